#include <algorithm>
#include <cmath>

#include "core/program/follower.h"

namespace bold::program {
namespace {

constexpr std::size_t kMostEvents = 20'000;
constexpr std::size_t kMostMoments = 20'000;
constexpr std::size_t kMostPins = 64;  // of one call
constexpr int kMostWorkedOut = 4;      // numbers that stand nowhere in the source
constexpr int kDeepestPins = 8;        // lists in lists

std::string roleOf(const std::string& fact) {
  return fact.size() > 4 ? fact.substr(4) : std::string();
}

}  // namespace

void Follower::pinWords(const Value& v, const std::string& role, const PublicCall* what, bool choice, std::vector<PinWord>& out,
                        int depth) const {
  if (out.size() >= kMostPins || depth > kDeepestPins) return;
  PinWord p;
  p.role = role;
  p.name = v.name;
  p.choice = choice;
  p.digits = v.digits;
  switch (v.kind) {
    case Value::Kind::Number: {
      p.word = fmt::format("{:g}", v.number);
      p.numbering = "program";
      if (v.digits.file < 0 && v.name.size() > 2 && v.name.size() < 5 && v.name[0] == 'P' &&
          std::isupper(static_cast<unsigned char>(v.name[1])) &&
          std::isdigit(static_cast<unsigned char>(v.name[2]))) {  // a port's bit where the interface takes pins: the pin of that name
        p.word = v.name;
        p.numbering = "name";
        break;
      }
      if (what && what->of) {
        const auto chosen = m_numbering.find(what->of->id);
        p.numbering = chosen != m_numbering.end() ? chosen->second : what->of->numbering;
        if (chosen == m_numbering.end() && m_calls.choosesNumbering(*what->of)) {
          p.word.clear();
          p.why = "the program has not chosen a numbering yet";
          break;
        }
        if (const auto own = what->of->numbers.find(p.word); own != what->of->numbers.end() && p.numbering == what->of->numbering) {
          p.word = own->second;
          p.numbering = "chip";
        } else if (p.numbering == "own") {
          p.why = fmt::format("{} is none of the pin numbers of these functions", p.word);
          p.word.clear();
          break;
        }
      }
      if (v.number < 0 || (v.number == 255 && v.digits.file < 0)) return;  // "no pin" of most interfaces, in a byte too
      break;
    }
    case Value::Kind::Text:
      p.word = v.text;
      p.numbering = "name";
      break;
    case Value::Kind::Public:
      p.word = v.text.substr(v.text.rfind('.') == std::string::npos ? 0 : v.text.rfind('.') + 1);
      p.numbering = "name";
      break;
    case Value::Kind::Object:
      if (const auto it = v.object->facts.find("pin"); it != v.object->facts.end())
        return pinWords(it->second, role, what, choice, out, depth + 1);
      p.why = "it is a thing whose pin is not known";
      break;
    case Value::Kind::List:
      for (const auto& i : *v.items) pinWords(i, role, what, choice, out, depth + 1);
      return;
    case Value::Kind::Either:
      if (std::ranges::count_if(*v.items, [](const Value& i) { return i.isNumber() && i.digits.file < 0; }) > kMostWorkedOut) {
        p.why = "it is worked out while the program runs";
        break;
      }
      for (const auto& i : *v.items) pinWords(i, role, what, true, out, depth + 1);
      return;
    case Value::Kind::None:
      return;
    default:
      p.why = v.text.empty() ? "it is not known" : v.text;
  }
  out.push_back(std::move(p));
}

std::vector<PinWord> Follower::pinsOf(const Facts& facts, const PublicCall* what) const {
  std::vector<PinWord> out;
  for (const auto& [fact, v] : facts)
    if (fact == "pin" || fact.starts_with("pin.")) pinWords(v, roleOf(fact), what, false, out);
  // Pins as bits of a number, of a port or of all.
  const auto mask = facts.find("mask");
  if (mask == facts.end() || !out.empty()) return out;
  const auto port = facts.find("port");
  std::string letter;
  if (port != facts.end() && port->second.kind == Value::Kind::Public) letter = port->second.text.substr(port->second.text.size() - 1);
  for (const auto& m : choices(mask->second)) {
    if (!m.isNumber() || m.number < 0 || m.number > 9e15 || (port != facts.end() && letter.empty())) {
      PinWord p;
      p.why = "which bits it means is not known";
      out.push_back(std::move(p));
      continue;
    }
    const auto bits = static_cast<std::uint64_t>(m.number);
    for (int n = 0; n < 53; ++n) {
      if (!(bits >> n & 1)) continue;
      PinWord p;
      p.word = letter.empty() ? std::to_string(n) : fmt::format("P{}{}", letter, n);
      p.numbering = letter.empty() ? "program" : "name";
      p.name = m.name;
      p.choice = mask->second.kind == Value::Kind::Either;
      out.push_back(std::move(p));
    }
  }
  return out;
}

void Follower::happens(Event e) {
  m_seen.emplace(e.place.file, e.place.begin);
  if (known(e.place)) return;
  e.certain = m_unsure == 0 && m_widened == 0;
  e.reached = m_reached;
  if (!m_around.empty()) e.within = m_around.back()->text;
  if (e.facts.contains("s") || e.facts.contains("ms") || e.facts.contains("us") || e.facts.contains("ns")) {
    double seconds = 0;
    bool known = true;
    for (const auto& [role, factor] : {std::pair{"s", 1.0}, {"ms", 1e-3}, {"us", 1e-6}, {"ns", 1e-9}})
      if (const auto it = e.facts.find(role); it != e.facts.end()) {
        known = known && it->second.isNumber();
        seconds += it->second.number * factor;
      }
    if (known) e.facts["seconds"] = number(seconds, false);
  }
  auto key = fmt::format("{} {} {}", e.does, e.place.file, e.place.begin);
  for (const auto& p : e.pins) key += " " + p.word + p.role;
  for (const auto& [role, v] : e.facts) key += " " + role + "=" + keyOf(v);
  const auto index = static_cast<int>(m_out.events.size());
  if (m_out.events.size() >= kMostEvents && !m_known.contains(key)) return;
  const auto [it, first] = m_known.try_emplace(key, index);
  if (first) {
    m_out.events.push_back(e);
  } else {
    auto& known = m_out.events[it->second];
    ++known.count;
    known.certain = known.certain || e.certain;
    known.reached = known.reached || e.reached;
  }
  takeLevels(e, it->second);
}

void Follower::level(const std::string& pin, const Value& v, int index) {
  auto& now = m_out.levels[pin];
  put({&now}, v);
  if (m_widened > 0 || !m_reached || m_out.moments.size() >= kMostMoments) return;
  m_out.moments.push_back({pin, v.isNumber() ? v.number : -1, 0, index});
}

// What becomes of the pins, in order.
void Follower::takeLevels(const Event& e, int index) {
  const std::string_view does = e.does;
  const auto fact = [&](const std::string& role) -> const Value* {
    const auto it = e.facts.find(role);
    return it == e.facts.end() ? nullptr : &it->second;
  };
  if (does == "delay") {
    const auto* s = fact("seconds");
    if (m_widened == 0 && m_reached && m_out.moments.size() < kMostMoments) m_out.moments.push_back({"", -1, s ? s->number : -1, index});
    return;
  }
  if (does == "release-all") {
    for (auto& [pin, v] : m_out.levels) put({&v}, words("released"));
    return;
  }
  const auto* wide = fact("level");
  const auto* duty = fact("duty");
  const auto* scale = fact("scale");
  for (const auto& p : e.pins) {
    if (p.word.empty()) continue;
    if (does == "release") {
      level(p.word, words("released"), index);
      continue;
    }
    const Value* own = p.role.empty() ? wide : fact("level." + p.role);
    if (!own) own = wide;
    if (does == "mode" && !own) {
      // An output that nobody has written yet stands low.
      const auto* mode = fact("mode");
      if (mode && mode->kind == Value::Kind::Text && mode->text.starts_with("output") && !m_out.levels.contains(p.word) && !p.choice)
        level(p.word, number(0), index);
      continue;
    }
    if (does == "toggle") {
      const auto now = m_out.levels.find(p.word);
      level(p.word,
            now != m_out.levels.end() && now->second.isNumber() ? number(now->second.number > 0 ? 0 : 1) : unknown("it is turned over"),
            index);
    } else if (does == "pwm") {
      const bool known = duty && duty->isNumber() && scale && scale->isNumber() && scale->number > 0;
      const auto all = duty && scale ? choices(*duty) : std::vector<Value>{};
      std::optional<Value> v;
      if (!known && scale && scale->isNumber() && scale->number > 0)
        for (const auto& c : all) {
          const auto one = c.isNumber() ? number(std::min(1.0, c.number / scale->number), false) : unknown("its duty is not known");
          v = v ? either(*v, one) : one;
        }
      level(p.word, known ? number(std::min(1.0, duty->number / scale->number), false) : v ? *v : unknown("its duty is not known"), index);
    } else if (does == "write" || does == "motor-write" || does == "mode" || does == "pulse" || does == "servo" || does == "motor") {
      if (!own) {
        if (does == "write") level(p.word, unknown("its level is not known"), index);
        continue;
      }
      std::optional<Value> v;
      for (const auto& c : choices(*own)) {
        const auto t = truth(c);
        const auto one = c.isNumber() ? number(c.number > 1 ? 1 : c.number, false) : t ? number(*t) : unknown("its level is not known");
        v = v ? either(*v, one) : one;
      }
      level(p.word, p.choice ? either(m_out.levels[p.word], *v) : *v, index);
    }
  }
}

}  // namespace bold::program
