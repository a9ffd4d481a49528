#include "core/checks/levels/reading.h"

#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
const std::vector<TerminalIndex>& InputsOfPins::of(TerminalIndex pin) {
  const auto [it, fresh] = m_known.try_emplace(pin);
  if (fresh && !m_solved.nets.rail(m_solved.nets.of(pin)))  // output-short speaks of a pin on a rail
    for (const auto t : signalReach(m_solved, pin))
      if (m_solved.bench.facts(t).input) it->second.push_back(t);
  return it->second;
}

namespace {

// The regulator whose output is on this rail; nullptr: none.
const parts::Regulator* regulatorOf(const SolvedBench& s, TerminalIndex rail) {
  const parts::Regulator* found = nullptr;
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
    if (const auto o = at(s.bench, d, r.out); o >= 0 && s.nets.same(o, rail)) found = &r;
  });
  return found;
}

}  // namespace

RailEnds railEnds(const SolvedBench& s, TerminalIndex pin, TerminalIndex input) {
  RailEnds ends;
  const auto group = pinGroup(s.bench, pin);
  const int d = s.bench.deviceOf(input);
  const auto& part = *s.bench.devices[d].part;
  const auto& facts = s.bench.facts(input);
  const auto set = facts.input ? part.levels.find(facts.input->levels) : part.levels.end();
  if (!group || set == part.levels.end()) return ends;
  const auto other = set->second.rail.empty() ? -1 : s.bench.terminal(d, set->second.rail);
  if (other >= 0 && s.nets.same(other, group->rail)) return ends;  // both move together
  const auto share = [&](TerminalIndex rail, bool upper) {
    const auto* r = rail < 0 ? nullptr : regulatorOf(s, rail);
    const auto typical = r ? r->set.typical() : std::nullopt;
    const auto end = !r ? std::nullopt : upper ? r->set.greatest() : r->set.least();
    return typical && end && *typical > 0 ? *end / *typical : 1.0;
  };
  ends.pin = share(group->rail, false);
  ends.input = share(other, true);
  ends.inputLow = share(other, false);
  return ends;
}

std::optional<Reading> readingAt(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const auto& facts = s.bench.facts(t);
  const int d = s.bench.deviceOf(t);
  const auto& part = *s.bench.devices[d].part;
  const auto set = facts.input ? part.levels.find(facts.input->levels) : part.levels.end();
  if (set == part.levels.end()) return std::nullopt;
  const auto ground = s.bench.terminal(d, facts.input->ground);
  const auto v = p.across(t, ground);
  if (!v) return std::nullopt;
  const auto& l = set->second;
  if (l.rail.empty()) return Reading{*v, Volts{*l.low.typical()}, Volts{*l.high.typical()}, 0, 0, {}};
  const auto rail = p.across(s.bench.terminal(d, l.rail), ground);
  if (!rail || rail->value < 1) return std::nullopt;  // no logic supply: that check speaks
  return Reading{*v, *rail * l.lowShare, *rail * l.highShare, l.lowShare, l.highShare, rail};
}

std::string Reading::lowLevels() const {
  return rail ? fmt::format("{:g} x {}", lowShare, show(*rail)) : show(low);
}
std::string Reading::highLevels() const {
  return rail ? fmt::format("{:g} x {}", highShare, show(*rail)) : show(high);
}

}  // namespace bold::checks
