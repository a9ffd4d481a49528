#include "core/program/pulses.h"

#include <algorithm>

namespace bold::program {
namespace {

constexpr double kTwoCalls = 6e-6;  // s: what a pin function takes by itself, twice; pulses without a wait are that far apart at least
constexpr int kUnpaced = 8;         // as many of them are no accident
constexpr std::size_t kMostStates = 16;
constexpr int kLeastStates = 4;  // that a stepper goes through before it repeats
constexpr std::size_t kCoils = 4;

// From wait to wait: the pins that are written, with their levels afterwards.
struct Step {
  std::map<std::string, int> levels;
  std::vector<std::string> order;  // in which they were written
  double wait = -1;                // s; -1: not known
  int event = -1;
};

std::vector<Step> stepsOf(const std::vector<Moment>& moments) {
  std::vector<Step> out(1);
  for (const auto& m : moments) {
    if (m.pin.empty()) {
      if (out.back().levels.empty()) continue;
      out.back().wait = m.seconds;
      out.emplace_back();
      continue;
    }
    if (m.level < 0 || (m.level > 0 && m.level < 1)) continue;
    if (!out.back().levels.contains(m.pin)) out.back().order.push_back(m.pin);
    out.back().levels[m.pin] = m.level > 0;
    if (out.back().event < 0) out.back().event = m.event;
  }
  return out;
}

}  // namespace

std::map<std::string, Pulses> pulsesOf(const std::vector<Moment>& moments) {
  struct Now {
    double level = -1, high = 0, since = 0;
    bool certain = true, risen = false;
    int unpaced = 0;
  };
  std::map<std::string, Now> now;
  std::map<std::string, Pulses> out;
  for (const auto& m : moments) {
    if (m.cut) now.clear();
    if (m.pin.empty()) {
      for (auto& [pin, n] : now) {
        if (m.seconds < 0) n.certain = false;
        n.since += std::max(m.seconds, 0.0);
        if (n.level == 1) n.high += std::max(m.seconds, 0.0);
      }
      continue;
    }
    auto& n = now[m.pin];
    if (m.level == 1 && n.level != 1) {
      auto& p = out[m.pin];
      if (n.risen && n.certain && n.since > 0) p.period = std::min(p.period.value_or(n.since), n.since);
      const int unpaced = n.risen && n.certain && n.since == 0 ? n.unpaced + 1 : n.unpaced;
      if (unpaced >= kUnpaced) p.period = std::min(p.period.value_or(kTwoCalls), kTwoCalls);
      n = {1, 0, 0, true, true, unpaced};
    } else if (m.level == 0 && n.level == 1) {
      auto& p = out[m.pin];
      p.falls = true;
      if (n.certain) p.shortest = std::min(p.shortest.value_or(n.high), n.high);
    }
    n.level = m.level;
  }
  std::erase_if(out, [](const auto& p) { return !p.second.falls && !p.second.period; });
  return out;
}

namespace {

std::vector<CoilSequence> inOneRun(const std::vector<Moment>& moments, const std::set<std::string>& known) {
  const auto steps = stepsOf(moments);
  // Pins that are written in the same steps, three times at least.
  std::map<std::set<std::string>, int> together;
  for (const auto& s : steps) {
    std::set<std::string> pins;
    for (const auto& [pin, level] : s.levels)
      if (!known.contains(pin)) pins.insert(pin);
    if (pins.size() >= 2 && pins.size() <= kCoils) ++together[pins];
  }
  std::vector<CoilSequence> out;
  std::set<std::string> taken;
  for (const auto& [all, count] : together) {
    const auto& pins = all;  // clang lets no lambda take a structured binding
    if (pins.size() != kCoils || count < kLeastStates) continue;
    if (std::ranges::any_of(pins, [&](const std::string& p) { return taken.contains(p); })) continue;
    CoilSequence one;
    // As the states write them, not as they were made outputs.
    for (const auto& s : steps) {
      std::vector<std::string> order;
      for (const auto& p : s.order)
        if (pins.contains(p)) order.push_back(p);
      if (order.size() == pins.size()) one.pins = std::move(order);
    }
    for (const auto& s : steps) {
      std::string state;
      for (const auto& p : one.pins) {
        const auto it = s.levels.find(p);
        state += it == s.levels.end() ? '?' : it->second ? '1' : '0';
      }
      if (state.find('?') != std::string::npos) continue;
      if (state.find('1') == std::string::npos) continue;  // off
      if (s.wait > 0) one.wait = std::min(one.wait.value_or(s.wait), s.wait);
      if (one.event < 0) one.event = s.event;
      if (!one.states.empty() && one.states.back() == state) continue;
      if (one.states.size() >= kMostStates) break;
      if (one.states.size() >= kLeastStates && one.states.front() == state) break;  // once round
      one.states.push_back(state);
    }
    if (one.states.size() < kLeastStates) continue;
    taken.insert(pins.begin(), pins.end());
    out.push_back(std::move(one));
  }
  return out;
}

}  // namespace

std::vector<CoilSequence> coilSequences(const std::vector<Moment>& moments, const std::set<std::string>& known) {
  std::vector<CoilSequence> out;
  auto taken = known;
  for (auto from = moments.begin(); from != moments.end();) {
    const auto to = std::find_if(from, moments.end(), [](const Moment& m) { return m.cut; });
    for (auto& s : inOneRun({from, to}, taken)) {
      taken.insert(s.pins.begin(), s.pins.end());
      out.push_back(std::move(s));
    }
    from = to == moments.end() ? to : to + 1;
  }
  return out;
}

}  // namespace bold::program
