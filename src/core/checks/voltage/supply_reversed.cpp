#include <fmt/core.h>

#include "core/checks/plan.h"
#include "core/checks/queries.h"
#include "core/parts/roles.h"

namespace bold::checks {

namespace {

// Whether this source also feeds something the right way round: then it is the stage's wires that are crossed.
bool feedsRightly(const SolvedBench& s, const circuit::Nets::Pole& pole) {
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (supply && s.nets.same(t, pole.positive) && s.nets.same(s.bench.terminal(s.bench.deviceOf(t), supply->back), pole.negative))
      return true;
  }
  return false;
}

// A source whose plus lies on the controller's ground while its minus goes to a motor: nothing names its terminals, but
// nobody switches a motor on a negative supply with such parts.
void plusOnGround(const SolvedBench& s, Findings& out) {
  for (const auto& pole : s.nets.sources()) {
    if (s.nets.same(pole.positive, pole.negative)) continue;
    TerminalIndex ground = -1;
    for (const auto t : s.nets.members(s.nets.of(pole.positive)))
      if (s.bench.facts(t).ground && parts::isController(*s.bench.devices[static_cast<std::size_t>(s.bench.deviceOf(t))].part)) ground = t;
    bool motor = false;
    for (const auto t : s.nets.members(s.nets.of(pole.negative)))
      motor = motor || parts::isMotor(*s.bench.devices[static_cast<std::size_t>(s.bench.deviceOf(t))].part);
    if (ground < 0 || !motor) continue;
    auto f = finding(Severity::Stop, fmt::format("{} is the wrong way round", called(s.bench, pole.device)),
                     fmt::format("The plus of {} is joined to {}, and its minus feeds a motor: it is the wrong way round.",
                                 called(s.bench, pole.device), s.bench.called(ground)),
                     {s.bench.address(pole.positive), s.bench.address(pole.negative)});
    f.formula = fmt::format("{} + on ground", called(s.bench, pole.device));
    f.repair = Plan(s.bench)
                   .exchange(pole.positive, pole.negative)
                   .repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, pole.positive), found(s.bench, pole.negative)));
    out.push_back(std::move(f));
  }
}

}  // namespace

// A source's negative pole on a supply terminal and its positive pole on that terminal's return: from the wires alone.
Findings supplyReversed(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply) continue;
    const auto back = s.bench.terminal(s.bench.deviceOf(t), supply->back);
    for (const auto& pole : s.nets.sources()) {
      if (!s.nets.same(t, pole.negative) || !s.nets.same(back, pole.positive) || s.nets.same(pole.positive, pole.negative)) continue;
      auto f = finding(Severity::Stop, fmt::format("{} is fed the wrong way round", called(s.bench, s.bench.deviceOf(t))),
                       fmt::format("{} is joined to the minus of {}, and {} to its plus.", s.bench.called(t), called(s.bench, pole.device),
                                   s.bench.called(back)),
                       {s.bench.address(t), s.bench.address(back)});
      f.formula = fmt::format("{} on {} -, {} on {} +", s.bench.called(t), called(s.bench, pole.device), s.bench.called(back),
                              called(s.bench, pole.device));
      const bool atStage = feedsRightly(s, pole);
      const auto x = atStage ? t : pole.positive;
      const auto y = atStage ? back : pole.negative;
      f.repair = Plan(s.bench).exchange(x, y).repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, x), found(s.bench, y)));
      out.push_back(std::move(f));
    }
  }
  plusOnGround(s, out);
  return out;
}

}  // namespace bold::checks
