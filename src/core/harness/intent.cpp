#include "core/harness/intent.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>
#include <string_view>

#include "core/base/by_id.h"

namespace bold::harness {
namespace {

template <class Q>
std::string shown(const std::optional<Q>& value) {
  if constexpr (std::is_same_v<Q, bool>)
    return *value ? "yes" : "no";
  else if constexpr (std::is_arithmetic_v<Q>)
    return fmt::format("{:g}", static_cast<double>(*value));
  else
    return displayText(*value);
}
std::string shown(const std::string& value) {
  return value;
}
std::string shown(Active active) {
  return active == Active::High ? "high" : "low";
}

std::string shown(Switched switched) {
  return kSwitchedWords[static_cast<std::size_t>(switched)];
}

template <class Q>
bool says(const std::optional<Q>& value) {
  return value.has_value();
}
bool says(const std::string& value) {
  return !value.empty();
}
bool says(Switched switched) {
  return switched != Switched::Unsaid;
}
bool says(Active active) {
  return active != Active::Unsaid;
}

// Every item that is one value of a motor, with the field of the joined view that it becomes.
void eachItem(const Goal&, auto f) {
  f("directions", &Goal::bothDirections, &Intent::bothDirections);
  f("speed", &Goal::speedControl, &Intent::speedControl);
  f("hold", &Goal::hold, &Intent::hold);
  f("together", &Goal::together, &Intent::together);
  f("rate", &Goal::rate, &Intent::rate);
  f("forward lead", &Goal::forwardLead, &Intent::forwardLead);
  f("switching", &Goal::switched, &Intent::switched);
  f("stage", &Goal::stage, &Intent::stage);
  f("channel", &Goal::channel, &Intent::channel);
}
void eachItem(const ProgramFacts&, auto f) {
  f("PWM", &ProgramFacts::pwm, &Intent::pwm);
  f("greatest duty", &ProgramFacts::dutyCap, &Intent::dutyCap);
  f("ramp", &ProgramFacts::ramp, &Intent::ramp);
  f("steps a turn", &ProgramFacts::stepsPerTurn, &Intent::stepsPerTurn);
  f("step pulse", &ProgramFacts::pulse, &Intent::pulse);
  f("sequence", &ProgramFacts::sequence, &Intent::sequence);
}

void take(bool& to, const std::optional<bool>& from) {
  to = from.value_or(false);
}
template <class T>
void take(T& to, const T& from) {
  to = from;
}
// Back again: what is not so needs no statement unless somebody states the other.
void give(std::optional<bool>& to, bool from) {
  to = from;
}
template <class T>
void give(T& to, const T& from) {
  to = from;
}

// Typed ones first, each kind in document order.
template <class T>
std::vector<const T*> ofMotor(const std::vector<T>& entries, const std::string& motor) {
  std::vector<const T*> out;
  for (const auto& e : entries)
    if (e.motor == motor) out.push_back(&e);
  std::stable_partition(out.begin(), out.end(), [](const T* e) { return e->source.typed(); });
  return out;
}

template <class T>
void join(Intent& intent, const std::vector<T>& entries) {
  const auto mine = ofMotor(entries, intent.motor);
  eachItem(T{}, [&](const char*, auto item, auto field) {
    const auto it = std::ranges::find_if(mine, [&](const T* e) { return says(e->*item); });
    if (it != mine.end()) take(intent.*field, (*it)->*item);
  });
}

Intent joined(const Harness& h, const std::string& motor) {
  Intent out;
  out.motor = motor;
  join(out, h.goals);
  join(out, h.program);
  for (const auto* a : ofMotor(h.assignments, motor)) {
    const auto known = std::ranges::find(out.signals, a->role, &Signal::role);
    if (known == out.signals.end())
      out.signals.push_back({a->role, a->pin, a->numbering, a->active});
    else if (!says(known->active))
      known->active = a->active;
  }
  return out;
}

std::string by(const Origin& o) {
  if (o.typed()) return "typed";
  return o.line > 0 ? fmt::format("{}, line {}", o.file, o.line) : o.file;
}

class Comparing {
 public:
  explicit Comparing(const Harness& h) : m_h(h) {}

  std::vector<Problem> run() {
    items(m_h.goals);
    items(m_h.program);
    pins();
    return std::move(m_out);
  }

 private:
  const Harness& m_h;
  std::vector<Problem> m_out;

  template <class V>
  void differ(const char* item, const std::string& motor, const auto& first, const auto& later, const V& a, const V& b) {
    const auto* device = m_h.device(motor);
    m_out.push_back({fmt::format("The {} of {} is {} ({}) and {} ({}).", item, device ? device->called() : motor, shown(a),
                                 by(first.source), shown(b), by(later.source)),
                     "#" + later.id, "Both were kept; they cannot both be true."});
  }

  template <class T>
  void items(const std::vector<T>& entries) {
    for (std::size_t k = 0; k < entries.size(); ++k)
      eachItem(T{}, [&](const char* item, auto field, auto) {
        const auto& later = entries[k];
        if (!says(later.*field)) return;
        const auto first = std::ranges::find_if(entries, [&](const T& e) { return e.motor == later.motor && says(e.*field); });
        if ((*first).*field != later.*field) differ(item, later.motor, *first, later, (*first).*field, later.*field);
      });
  }

  void pins() {
    using Item = std::pair<std::string_view, std::string_view>;  // motor and role: a file may hold very many
    std::map<Item, const Assignment*> pins, levels;              // the first that says it
    for (const auto& later : m_h.assignments) {
      const auto& first = *pins.try_emplace({later.motor, later.role}, &later).first->second;
      if (first.pin != later.pin) differ(("pin for " + later.role).c_str(), later.motor, first, later, first.pin.text(), later.pin.text());
      if (!says(later.active)) continue;
      const auto& level = *levels.try_emplace({later.motor, later.role}, &later).first->second;
      if (level.active != later.active)
        differ(("active level of " + later.role).c_str(), later.motor, level, later, level.active, later.active);
    }
  }
};

// Collects what has to be put so that the typed entries say what is wanted.
class Stating {
 public:
  Stating(const Harness& h, const Intent& wanted, std::string title)
      : m_h(h), m_wanted(wanted), m_now(joined(h, wanted.motor)), m_ids(h.ids()), m_edit{std::move(title), {}} {}

  Edit run() {
    state(m_h.goals, "goal", !intentOf(m_h, m_wanted.motor));
    pins();
    state(m_h.program, "facts", false);
    return std::move(m_edit);
  }

 private:
  const Harness& m_h;
  const Intent& m_wanted;
  const Intent m_now;
  std::set<std::string> m_ids;
  Edit m_edit;

  std::string freeId(const std::string& stem) {
    for (int n = 1;; ++n)
      if (auto id = stem + std::to_string(n); m_ids.insert(id).second) return id;
  }

  // @param always make one even if it says nothing
  template <class T>
  void state(const std::vector<T>& entries, const char* stem, bool always) {
    std::vector<T> typed;
    for (const auto& e : entries)
      if (e.motor == m_wanted.motor && e.source.typed()) typed.push_back(e);
    const auto before = typed;
    const bool fresh = typed.empty();
    if (fresh) typed.emplace_back().motor = m_wanted.motor;
    bool changed = always && fresh;
    eachItem(T{}, [&](const char*, auto item, auto field) {
      if (m_wanted.*field == m_now.*field) return;
      changed = true;
      for (auto& e : typed) e.*item = T{}.*item;  // said once
      give(typed.front().*item, m_wanted.*field);
    });
    if (!changed) return;
    if (fresh) typed.front().id = freeId(stem);
    for (std::size_t k = 0; k < typed.size(); ++k)
      if (fresh || typed[k] != before[k]) m_edit.changes.emplace_back(Put<T>{typed[k], {}});
  }

  void pins() {
    const auto& all = m_h.assignments;
    const auto mine = [&](const Assignment& a) { return a.motor == m_wanted.motor && a.source.typed(); };
    for (const auto& a : all)
      if (mine(a) && std::ranges::count(m_wanted.signals, a.role, &Signal::role) == 0) m_edit.changes.emplace_back(Drop<Assignment>{a.id});
    for (const auto& s : m_wanted.signals) {
      const auto now = std::ranges::find(m_now.signals, s.role, &Signal::role);
      if (now != m_now.signals.end() && *now == s) continue;
      const auto it = std::ranges::find_if(all, [&](const Assignment& a) { return mine(a) && a.role == s.role; });
      Assignment a;
      if (it != all.end()) a = *it;
      if (a.id.empty()) a.id = freeId("pin");
      a.motor = m_wanted.motor;
      a.role = s.role;
      a.pin = s.pin;
      a.numbering = s.numbering;
      a.active = s.active;
      m_edit.changes.emplace_back(Put<Assignment>{a, {}});
    }
  }
};

}  // namespace

std::vector<Intent> intentsOf(const Harness& h) {
  std::vector<std::string> motors;
  std::set<std::string> known;
  const auto add = [&](const auto& entries) {
    for (const auto& e : entries)
      if (known.insert(e.motor).second) motors.push_back(e.motor);
  };
  add(h.goals);
  add(h.assignments);
  add(h.program);
  std::vector<Intent> out;
  for (const auto& m : motors) out.push_back(joined(h, m));
  return out;
}

std::optional<Intent> intentOf(const Harness& h, const std::string& motor) {
  const auto here = [&](const auto& entries) { return std::ranges::any_of(entries, [&](const auto& e) { return e.motor == motor; }); };
  if (!here(h.goals) && !here(h.assignments) && !here(h.program)) return std::nullopt;
  return joined(h, motor);
}

Intent intentFor(const Harness& h, const std::string& motor) {
  if (auto known = intentOf(h, motor)) return std::move(*known);
  Intent fresh;
  fresh.motor = motor;
  return fresh;
}

std::vector<const Signal*> dutySignals(const Intent& intent) {
  std::vector<const Signal*> out;
  if (!intent.speedControl) return out;
  for (const auto& s : intent.signals)
    if (s.role.starts_with("speed")) out.push_back(&s);
  if (!out.empty()) return out;
  for (const auto& s : intent.signals)
    if (s.role == "in" || s.role == "in1" || s.role == "in2") out.push_back(&s);
  return out;
}

std::vector<Problem> disagreements(const Harness& h) {
  return Comparing(h).run();
}

Edit stating(const Harness& h, const Intent& intent, std::string title) {
  return Stating(h, intent, std::move(title)).run();
}

}  // namespace bold::harness
