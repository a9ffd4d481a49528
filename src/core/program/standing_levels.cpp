#include "core/program/standing_levels.h"

#include <algorithm>
#include <cctype>
#include <initializer_list>
#include <set>

#include "core/base/lower.h"

namespace bold::program {

using harness::SourceRead;

namespace {

constexpr std::size_t kMostTogether = 64;  // sets of pins

// A word of a function's name: "pump_off", "stopAll", and neither "offset" nor "stopwatch".
bool hasWord(const std::string& name, std::initializer_list<std::string_view> words) {
  const auto lowered = lower(name);
  const auto letter = [&](std::size_t k) { return std::isalpha(static_cast<unsigned char>(name[k])) != 0; };
  for (const std::string_view word : words)
    for (auto at = lowered.find(word); at != std::string::npos; at = lowered.find(word, at + 1)) {
      const auto end = at + word.size();
      const bool ends = end == name.size() || !letter(end) ||
                        (std::isupper(static_cast<unsigned char>(name[end])) && std::islower(static_cast<unsigned char>(name[end - 1])));
      if (ends) return true;
    }
  return false;
}

// What it writes is meant as off.
bool meansOff(const std::string& name) {
  return hasWord(name, {"off", "stop", "halt"});
}
bool meansToHold(const std::string& name) {
  return meansOff(name) || hasWord(name, {"brake", "hold", "lock"});
}

}  // namespace

void firstLevels(const Followed& followed, SourceRead& out) {
  std::map<std::string, const Moment*> now;
  std::set<std::string> told;
  const auto unwritten = [&](const Moment& m) { return m.event >= 0 && followed.events[m.event].does == "mode" && m.level == 0; };
  for (const auto& m : followed.moments) {
    if (!m.pin.empty()) {
      if (!told.contains(m.pin)) now[m.pin] = &m;
      continue;
    }
    if (m.cut) continue;
    for (const auto& [pin, at] : now) {
      told.insert(pin);
      if ((m.event != Moment::kBegun && !unwritten(*at)) || (at->level != 0 && at->level != 1)) continue;
      for (auto& u : out.pins)
        if (u.word == pin) u.first = at->level > 0 ? "high" : "low";
    }
    now.clear();
  }
}

void offLevels(const Followed& followed, const UseOf& useOf, SourceRead& out) {
  std::map<std::size_t, std::set<std::string>> all;
  for (const auto& e : followed.events) {
    const auto it = e.facts.find("level");
    if (e.does != "write" || it == e.facts.end() || !meansOff(e.within)) continue;
    for (const auto& p : e.pins) {
      if (p.word.empty() || p.choice) continue;
      const auto t = truth(it->second);
      all[useOf(p)].insert(!t ? "unsure" : *t ? "high" : "low");
    }
  }
  for (const auto& [k, levels] : all)
    if (levels.size() == 1 && *levels.begin() != "unsure") out.pins[k].off = *levels.begin();
}

void lastLevels(const Followed& followed, SourceRead& out) {
  if (!followed.ends) return;
  std::set<std::string> released;  // by interfaces that do so by themselves
  for (const auto& e : followed.events)
    if (e.call && e.call->of && e.call->of->releases)
      for (const auto& p : e.pins) released.insert(p.word);
  for (auto& u : out.pins) {
    const auto it = followed.levels.find(u.word);
    if (it == followed.levels.end()) continue;
    const auto& v = it->second;
    bool high = false, low = false, unsure = false, freed = released.contains(u.word), part = false;
    for (const auto& c : freed ? std::vector<Value>{} : choices(v)) {
      if (c.kind == Value::Kind::Text)
        freed = true;
      else if (!c.isNumber())
        unsure = c.kind != Value::Kind::Unknown || !c.text.empty();
      else if (c.number > 0 && c.number < 1)
        part = true;
      else
        (c.number > 0 ? high : low) = true;
    }
    u.last = high && (low || freed || unsure || part) ? "unsure"
             : part                                   ? (low || freed ? "unsure" : "pwm")
             : high                                   ? "high"
             : unsure                                 ? "unsure"
             : freed && !low                          ? "released"
                                                      : "low";
  }
}

std::vector<Together> highTogether(const Followed& followed) {
  struct Now {
    double level;
    int event;
  };
  std::map<std::string, Now> now;
  std::vector<Together> out;
  const auto look = [&] {
    Together t;
    for (const auto& [pin, n] : now)
      if (n.level > 0) {
        t.pins.push_back(pin);
        t.event = std::max(t.event, n.event);
      }
    const bool known = std::ranges::any_of(out, [&](const Together& o) { return std::ranges::includes(o.pins, t.pins); });
    if (t.pins.size() < 2 || known || out.size() >= kMostTogether) return;
    if (t.event < 0 || !meansToHold(followed.events[t.event].within)) out.push_back(std::move(t));
  };
  for (const auto& m : followed.moments) {
    if (!m.pin.empty()) {
      now[m.pin] = {m.level, m.event};
      continue;
    }
    if (m.event == Moment::kBegun) continue;
    look();
    if (m.cut) now.clear();
  }
  look();
  return out;
}

}  // namespace bold::program
