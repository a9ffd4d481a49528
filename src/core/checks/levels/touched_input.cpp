#include <fmt/core.h>

#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::touched_input {
namespace {

struct Rail {
  TerminalIndex plus;
  Volts volts;
};

// Of all supplies that a lead may come from the highest against the input's ground.
std::optional<Rail> highestRail(const SolvedBench& s, TerminalIndex ground) {
  std::optional<Rail> out;
  const auto* off = s.point(Action::AllOff, Corner::Full);
  if (!off) return out;
  for (const auto& pole : s.nets.sources()) {
    const auto v = off->across(pole.positive, ground);
    if (v && (!out || *v > out->volts)) out = {pole.positive, *v};
  }
  return out;
}

}  // namespace

// An input that is touched with a lead takes what the lead comes from.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (!m.intent || m.intent->switched != harness::Switched::ByHand) continue;
    if (bench::steeringOf(s.bench, s.nets, m) != bench::Steering::ByHand) continue;
    for (const auto t : bench::controlsOf(s.bench, s.nets, m)) {
      const auto& input = s.bench.facts(t).input;
      if (!input || !input->absolute.known() || s.nets.rail(s.nets.of(t))) continue;
      const auto rail = highestRail(s, s.bench.terminal(s.bench.deviceOf(t), input->ground));
      const Volts most{input->absolute.typical().value_or(0)};
      if (!rail || rail->volts <= most) continue;
      const auto plus = s.bench.called(rail->plus);
      auto f = finding(
          Severity::Caution, fmt::format("A lead from {} destroys {}", plus, s.bench.called(t)),
          fmt::format("{} is switched by hand. Its inputs are rated for {}; {} has {}.", called(s, m), show(most), plus, show(rail->volts)),
          {s.bench.address(t), idOf(s.bench, m.device)});
      f.ways = {
          {fmt::format("Touch the inputs of {} only with a supply of {} or less.", called(s.bench, s.bench.deviceOf(t)), show(most))}};
      f.formula = fmt::format("{} > {}", show(rail->volts), show(most));
      out.push_back(std::move(f));
      break;  // the same lead would be taken to the others
    }
  }
  return out;
}

Check check() {
  return {"touched-input", "levels", "An input that is touched with a lead", Harm::Damage, judge};
}

}  // namespace bold::checks::touched_input
