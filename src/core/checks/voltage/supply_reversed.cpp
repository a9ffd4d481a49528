#include <fmt/core.h>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

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
  return out;
}

}  // namespace bold::checks
