#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"

namespace bold::checks::supply_reversed {

namespace {

// The controller's ground that shares copper with t; -1: none.
TerminalIndex onControllerGround(const SolvedBench& s, TerminalIndex t) {
  TerminalIndex ground = -1;
  for (const auto u : s.nets.members(s.nets.of(t)))
    if (s.bench.facts(u).ground && parts::isController(*s.bench.devices[s.bench.deviceOf(u)].part)) ground = u;
  return ground;
}

// Whether this source also feeds something the right way round, or has its minus on a controller's ground: then it is
// the stage's wires that are crossed.
bool feedsRightly(const SolvedBench& s, const bench::Nets::Pole& pole) {
  if (onControllerGround(s, pole.negative) >= 0) return true;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (supply && s.nets.same(t, pole.positive) && s.nets.same(s.bench.terminal(s.bench.deviceOf(t), supply->back), pole.negative))
      return true;
  }
  return false;
}

bool fuseAt(const SolvedBench& s, TerminalIndex t) {
  bool any = false;
  eachElement<parts::Resistor>(s.bench, [&](int d, int, const parts::Resistor& r) {
    any = any || (r.fuse && (s.nets.same(t, at(s.bench, d, r.a)) || s.nets.same(t, at(s.bench, d, r.b))) && d != s.bench.deviceOf(t));
  });
  return any;
}

// Which way round polarised capacitors stand across a source: those at a stage were put there with its wires.
enum class Capacitors { None, Right, Wrong };
Capacitors capacitorsAcross(const SolvedBench& s, const bench::Nets::Pole& pole) {
  auto out = Capacitors::None;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (!c.polarised || a < 0 || b < 0) return;
    if (s.nets.same(a, pole.positive) && s.nets.same(b, pole.negative)) out = Capacitors::Right;
    if (s.nets.same(b, pole.positive) && s.nets.same(a, pole.negative)) out = Capacitors::Wrong;
  });
  return out;
}

// A motor or the transistor of a loose stage: neither has terminals that name a supply.
const char* loadWord(const parts::Part& part) {
  if (parts::isMotor(part)) return "a motor";
  const bool transistor = std::ranges::any_of(part.elements, [](const parts::Element& e) {
    return std::holds_alternative<parts::Mosfet>(e.body) || std::holds_alternative<parts::Bipolar>(e.body);
  });
  return transistor ? "a transistor" : nullptr;
}

// The lower half of a split supply: another source stands on this one's plus and feeds such a load from its own.
bool lowerHalf(const SolvedBench& s, const bench::Nets::Pole& pole) {
  return std::ranges::any_of(s.nets.sources(), [&](const bench::Nets::Pole& other) {
    if (other.device == pole.device || !s.nets.same(other.negative, pole.positive)) return false;
    return std::ranges::any_of(s.nets.members(s.nets.of(other.positive)),
                               [&](TerminalIndex t) { return loadWord(*s.bench.devices[s.bench.deviceOf(t)].part) != nullptr; });
  });
}

// Supply terminals and the inputs of loose regulators, each with what it is fed against.
std::vector<std::pair<TerminalIndex, TerminalIndex>> fedPairs(const Bench& bench) {
  std::vector<std::pair<TerminalIndex, TerminalIndex>> out;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (const auto& supply = bench.facts(t).supply) out.emplace_back(t, bench.terminal(bench.deviceOf(t), supply->back));
  eachElement<parts::Regulator>(bench, [&](int d, int, const parts::Regulator& r) {
    const std::pair pair{at(bench, d, r.in), at(bench, d, r.ground)};
    if (pair.first >= 0 && pair.second >= 0 && std::ranges::count(out, pair.first, &std::pair<TerminalIndex, TerminalIndex>::first) == 0)
      out.push_back(pair);
  });
  return out;
}

// A source whose plus lies on the controller's ground while its minus goes to a motor or a transistor: nothing names its
// terminals, but nobody switches a motor on a negative supply with such parts.
void plusOnGround(const SolvedBench& s, Findings& out) {
  for (const auto& pole : s.nets.sources()) {
    if (s.nets.same(pole.positive, pole.negative)) continue;
    const auto ground = onControllerGround(s, pole.positive);
    const char* load = nullptr;
    for (const auto t : s.nets.members(s.nets.of(pole.negative)))
      if (!load) load = loadWord(*s.bench.devices[s.bench.deviceOf(t)].part);
    if (ground < 0 || !load) continue;
    if (std::string_view(load) == "a transistor" && lowerHalf(s, pole)) continue;
    auto f = finding(Severity::Stop, fmt::format("{} is the wrong way round", called(s.bench, pole.device)),
                     fmt::format("The plus of {} is joined to {}, and its minus feeds {}: it is the wrong way round.",
                                 called(s.bench, pole.device), s.bench.called(ground), load),
                     {s.bench.address(pole.positive), s.bench.address(pole.negative)});
    f.ways = {RepairDraft(s.bench)
                  .exchange(pole.positive, pole.negative)
                  .way(fmt::format("Exchange the two wires at {}: its minus to ground.", called(s.bench, pole.device)))};
    f.formula = fmt::format("{} + on ground", called(s.bench, pole.device));
    // Motors on the plus as well: then it is the ground that went astray.
    const auto& members = s.nets.members(s.nets.of(pole.positive));
    const bool motorsOnPlus =
        std::ranges::any_of(members, [&](TerminalIndex t) { return parts::isMotor(*s.bench.devices[s.bench.deviceOf(t)].part); });
    if (!motorsOnPlus)
      f.repair = RepairDraft(s.bench)
                     .exchange(pole.positive, pole.negative)
                     .repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, pole.positive), found(s.bench, pole.negative)));
    out.push_back(std::move(f));
  }
}

}  // namespace

// A source's negative pole on a supply terminal and its positive pole on that terminal's return: from the wires alone.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& [t, back] : fedPairs(s.bench)) {
    for (const auto& pole : s.nets.sources()) {
      if (!s.nets.same(t, pole.negative) || !s.nets.same(back, pole.positive) || s.nets.same(pole.positive, pole.negative)) continue;
      auto f = finding(Severity::Stop, fmt::format("{} is fed the wrong way round", called(s.bench, s.bench.deviceOf(t))),
                       fmt::format("{} is joined to the minus of {}, and {} to its plus.", s.bench.called(t), called(s.bench, pole.device),
                                   s.bench.called(back)),
                       {s.bench.address(t), s.bench.address(back)});
      f.ways = {RepairDraft(s.bench).exchange(t, back).way(
          fmt::format("Exchange the wires at {} and {}.", s.bench.called(t), s.bench.called(back)))};
      f.formula = fmt::format("{} on {} -, {} on {} +", s.bench.called(t), called(s.bench, pole.device), s.bench.called(back),
                              called(s.bench, pole.device));
      const auto capacitors = capacitorsAcross(s, pole);
      const bool atStage = capacitors == Capacitors::Right || (capacitors == Capacitors::None && feedsRightly(s, pole));
      const auto x = atStage ? t : pole.positive;
      const auto y = atStage ? back : pole.negative;
      const bool several = connectionsAt(s.bench, x) > 1 || connectionsAt(s.bench, y) > 1;
      // A fuse that is in the plus already would come into the minus.
      const bool fused = !atStage && fuseAt(s, pole.positive);
      // Where other parts' grounds lie on that plus as well, the crossed wires are not at this one.
      const int mine = s.bench.deviceOf(t);
      const bool others = std::ranges::any_of(s.nets.members(s.nets.of(back)), [&](TerminalIndex u) {
        const int d = s.bench.deviceOf(u);
        return s.bench.facts(u).ground && d != mine && !parts::isController(*s.bench.devices[d].part);
      });
      if (!fused && !(atStage && others) && (!atStage || !several || capacitors != Capacitors::None))
        f.repair = RepairDraft(s.bench).exchange(x, y).repair(
            fmt::format("Exchange the wires at {} and {}.", found(s.bench, x), found(s.bench, y)));
      out.push_back(std::move(f));
    }
  }
  plusOnGround(s, out);
  return out;
}

Check check() {
  return {"supply-reversed", "voltage", "A supply the wrong way round", Harm::Damage, judge};
}

}  // namespace bold::checks::supply_reversed
