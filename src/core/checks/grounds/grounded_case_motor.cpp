#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::grounded_case_motor {
// A motor whose case is joined to one brush, on a bridge: its case jumps between the rails.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.windings.size() != 1) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    if (w.bonded.empty()) continue;
    for (const auto& ref : m.reached) {
      const auto& c = bench::channelOf(s.bench, ref);
      if (c.lowSide || c.out.size() != 2) continue;
      const auto lead = s.bench.terminal(m.device, w.bonded);
      auto f = finding(
          Severity::Caution, fmt::format("The case of {} is live", called(s, m)),
          fmt::format(
              "{} is joined to the case of {}: on a bridge the case stands at the supply half of the time, and a metal frame shorts it.",
              s.bench.called(lead), called(s, m)),
          {s.bench.address(lead), idOf(s.bench, m.device)});
      f.ways = {{fmt::format("Keep the case of {} off every metal that is grounded, or take a motor whose case is free.", called(s, m))}};
      f.formula = "case on a bridge's output";
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"grounded-case-motor", "grounds", "A motor whose case is one of its leads", Harm::Damage, judge};
}

}  // namespace bold::checks::grounded_case_motor
