#include <algorithm>

#include "core/program/follower.h"

namespace bold::program {
namespace {

// What is said of one call only, not of the thing that it is called on.
bool passing(const std::string& role) {
  static const std::set<std::string> kPassing{"level", "duty",  "mode",  "pull",     "ms",     "us",   "s",
                                              "ns",    "angle", "steps", "function", "values", "mask", "width"};
  return kPassing.contains(role) || role.starts_with("level.");
}

bool isPin(const std::string& role) {
  return role == "pin" || role.starts_with("pin.");
}

bool looksLikePin(std::string name) {
  std::ranges::transform(name, name.begin(), [](unsigned char c) { return static_cast<char>(std::tolower(c)); });
  return name.find("pin") != std::string::npos || name.starts_with("gpio");
}

}  // namespace

Value Follower::publicCall(const std::string& path, const std::shared_ptr<Object>& self, const std::vector<Argument>& given, const Code& at,
                           Scope& scope) {
  std::vector<std::string> keywords;
  std::size_t inOrder = 0;
  for (const auto& g : given) {
    if (g.keyword.empty())
      ++inOrder;
    else
      keywords.push_back(g.keyword);
  }
  if (const auto* what = m_calls.find(path, inOrder, keywords)) return perform(*what, path, self, given, at, scope);
  if (!self && m_calls.isClass(path)) {
    Value v;
    v.kind = Value::Kind::Object;
    v.object = newObject();
    v.object->type = path;
    v.object->number = ++m_objects;
    v.object->place = at.place;
    return v;
  }
  for (const auto& g : given)
    if (g.value.kind == Value::Kind::Function && m_callbacks.size() < 64) m_callbacks.push_back(g.value.code);
  unknownCall(path, given, at);
  return unknown(fmt::format("nobody says what {} gives", path));
}

// Something that nobody describes is worth a word where it is handed what looks like pins.
void Follower::unknownCall(const std::string& path, const std::vector<Argument>& given, const Code& at) {
  const auto last = path.substr(path.find_last_of(".:") == std::string::npos ? 0 : path.find_last_of(".:") + 1);
  const bool makes = !last.empty() && std::isupper(static_cast<unsigned char>(last[0])) &&
                     std::ranges::any_of(last, [](unsigned char c) { return std::islower(c); });
  UnknownCall u{path, at.place, {}};
  for (const auto& g : given)
    for (const auto& v :
         g.value.kind == Value::Kind::List ? std::vector<Value>(g.value.items->begin(), g.value.items->end()) : choices(g.value)) {
      if (!v.isNumber() || v.number < 0 || v.number > 99 || v.number != static_cast<int>(v.number)) continue;
      if (!makes && !looksLikePin(v.name) && !looksLikePin(g.keyword)) continue;
      u.pins.push_back({fmt::format("{:g}", v.number), "program", "", v.name, v.digits, "", false});
    }
  if (u.pins.empty() || std::ranges::any_of(m_out.unknown, [&](const UnknownCall& x) { return x.place == u.place && x.name == u.name; }))
    return;
  if (m_out.unknown.size() < 200) m_out.unknown.push_back(std::move(u));
}

// What was handed over, by role.
Follower::Facts Follower::taken(const PublicCall& what, const std::vector<Argument>& given) const {
  Facts out;
  const auto give = [&](const std::string& role, const Value& v) {
    if (role == "-" || role.empty()) return;
    if (role == "pins" && v.kind == Value::Kind::List) {
      for (std::size_t k = 0; k < v.items->size() && k < 64; ++k) out[fmt::format("pin.in{}", k + 1)] = (*v.items)[k];
      return;
    }
    if (role == "pins") {
      out["pin"] = v;
      return;
    }
    if (role == "struct") {
      if (v.kind == Value::Kind::Object)
        for (const auto& [field, to] : what.fields)
          if (const auto it = v.object->fields.find(field);
              it != v.object->fields.end() && (it->second.kind != Value::Kind::Unknown || isPin(to)))
            out[to] = it->second;
      return;
    }
    out[role] = v;
  };
  std::size_t next = 0;
  for (const auto& g : given) {
    if (g.keyword.empty()) {
      if (next < what.takes.size()) give(what.takes[next].role, g.value);
      ++next;
    } else if (const auto t = std::ranges::find(what.takes, g.keyword, &Taken::keyword); t != what.takes.end())
      give(t->role, g.value);
  }
  std::erase_if(out, [](const auto& f) { return f.second.kind == Value::Kind::None; });
  return out;
}

std::string Follower::unitOf(const PublicCall& what, const Facts& facts) const {
  if (what.unit.empty()) return {};
  const auto it = facts.find(what.unit == "pin" ? "pin" : "unit");
  return what.unit + ":" + (it == facts.end() ? std::string() : keyOf(it->second));
}

// What was said before of the thing, its unit, and all of its kind; then what follows from it.
void Follower::complete(Facts& facts, const PublicCall& what, const Object* self) {
  const auto merge = [&](const Facts& more) {
    for (const auto& [role, v] : more)
      if (!passing(role)) facts.try_emplace(role, v);
  };
  if (self) merge(self->facts);
  Scope formula;
  const auto work = [&](const Code& code) {
    for (const auto& [role, v] : facts) formula.names[role] = v;
    return evaluate(code, formula);
  };
  for (const auto* first : {"unit", "shares"})  // by which the others are found
    if (const auto it = what.facts.find(first); it != what.facts.end()) facts[first] = work(it->second);
  if (const auto from = facts.find("from"); from != facts.end() && from->second.kind == Value::Kind::Object)
    merge(Facts(from->second.object->facts));
  const auto unit = unitOf(what, facts);
  if (!unit.empty())
    if (const auto it = m_units.find(unit); it != m_units.end()) merge(it->second);
  // What is said of a pin by itself holds for whatever drives it.
  if (what.unit != "pin")
    if (const auto pin = facts.find("pin"); pin != facts.end() && pin->second.isNumber())
      if (const auto it = m_units.find("pin:" + keyOf(pin->second)); it != m_units.end()) merge(it->second);
  if (const auto shared = facts.find("shares"); shared != facts.end() && !what.shares.empty())
    if (const auto it = m_units.find(what.shares + ":" + keyOf(shared->second)); it != m_units.end()) merge(it->second);
  if (what.of)
    if (const auto it = m_units.find("@" + what.of->id); it != m_units.end()) merge(it->second);
  for (const auto& [role, code] : what.defaults)
    if (!facts.contains(role)) facts[role] = work(code);
  for (const auto& [role, code] : what.facts) facts[role] = work(code);
  for (const auto& [role, word] : what.said) facts[role] = words(word);
}

// A function that something else calls later, or at the same time.
void Follower::runs(const Value& function, Scope& scope) {
  if (function.kind != Value::Kind::Function && function.kind != Value::Kind::Public) return;
  if (m_runs.size() < 64) m_runs.push_back(function);
  Code at;
  (void)branches({[&] {
                    (void)callValue(function, {}, at, scope);
                    m_pending = Flow::On;
                    return Flow::On;
                  },
                  [] { return Flow::On; }});
}

Value Follower::perform(const PublicCall& what, const std::string& called, const std::shared_ptr<Object>& self,
                        const std::vector<Argument>& given, const Code& at, Scope& scope) {
  auto own = taken(what, given);
  if (const auto it = own.find("object"); it != own.end() && !self) {  // what is filled in is handed over
    const auto on = it->second.kind == Value::Kind::Object ? it->second.object : nullptr;
    return on ? perform(what, called, on, given, at, scope) : unknown("what is filled in is not known");
  }
  own.erase("object");
  auto facts = own;
  complete(facts, what, self.get());
  const auto unit = unitOf(what, facts);
  if (what.does == "set" || what.does == "join" || (what.does == "pwm" && !what.unit.empty())) {
    auto& kept = m_units[what.unit == "@" ? "@" + what.of->id : unit];
    for (const auto& [role, v] : facts)
      if (!passing(role) && !(what.unit == "@" && isPin(role))) kept[role] = v;
    // A unit may have several pins.
    if (what.does == "join" && own.contains("pin")) {
      auto& all = kept["joined"];
      if (all.kind != Value::Kind::List) all = list({});
      if (std::ranges::none_of(*all.items, [&](const Value& v) { return same(v, own["pin"]); })) all.items->push_back(own["pin"]);
    }
  }
  Value out = unknown(fmt::format("what {} gives is not known before it runs", called));
  if (!what.makes.empty()) {
    out = {};
    out.kind = Value::Kind::Object;
    out.object = newObject();
    out.object->type = what.makes;
    out.object->number = ++m_objects;
    out.object->place = at.place;
    for (const auto& [role, v] : facts)
      if (!passing(role)) out.object->facts[role] = v;
  } else if (self)
    for (const auto& [role, v] : own)
      if (!passing(role)) self->facts[role] = v;
  if (what.does == "numbering") {
    if (const auto it = facts.find("mode"); it != facts.end() && it->second.kind == Value::Kind::Text)
      m_numbering[what.of->id] = it->second.text;
  } else if (what.does == "end") {
    if (const auto it = facts.find("function"); it != facts.end()) m_atEnd.push_back(it->second);
  } else if (what.does == "stop") {
    m_pending = Flow::Exit;
  } else if (!what.does.empty() && what.does != "set") {
    Event e;
    e.does = what.does == "join" ? "mode" : what.does;
    e.call = &what;
    e.called = called;
    e.place = at.place;
    e.object = out.kind == Value::Kind::Object ? out.object->number : self ? self->number : 0;
    auto pins = facts;
    if (const auto all = facts.find("joined"); all != facts.end() && what.does != "join" && all->second.kind == Value::Kind::List) {
      pins.erase("pin");
      for (std::size_t k = 0; k < all->second.items->size(); ++k) pins[fmt::format("pin.{}", k)] = (*all->second.items)[k];
    }
    e.pins = pinsOf(pins, &what);
    e.facts = std::move(facts);
    if (const auto mode = e.facts.find("mode"); mode != e.facts.end() && !what.modes.empty()) {
      const auto said = what.modes.find(keyOf(mode->second).starts_with('\'') ? keyOf(mode->second).substr(1) : keyOf(mode->second));
      mode->second = said == what.modes.end() ? unknown("its mode is not known") : words(said->second);
    }
    if (const auto pull = e.facts.find("pull"); pull != e.facts.end()) {
      const auto said = what.pulls.find(keyOf(pull->second).starts_with('\'') ? keyOf(pull->second).substr(1) : keyOf(pull->second));
      pull->second = said == what.pulls.end() ? unknown("its pull is not known") : words(said->second);
    }
    for (auto& p : e.pins)
      if (p.role.size() == 1 && std::isdigit(static_cast<unsigned char>(p.role[0])) && what.does != "coils") p.role.clear();
    happens(std::move(e));
  }
  if (what.does == "interrupt" || what.does == "runs")
    if (const auto it = own.find("function"); it != own.end()) runs(it->second, scope);
  if (what.returns) {
    Scope formula;
    formula.names = own;
    auto v = evaluate(*what.returns, formula);
    if (v.kind != Value::Kind::Unknown) return v;
  }
  return out;
}

}  // namespace bold::program
