#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::supply_sequence {
// A stage that must have its logic before its motor supply, fed from two sources that are switched apart.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor)) {
    if (!input.facts->afterLogic) continue;
    const int d = s.bench.deviceOf(input.positive);
    for (const auto& logic : supplyInputs(s.bench, parts::SupplyFor::Logic)) {
      if (s.bench.deviceOf(logic.positive) != d) continue;
      for (const auto& p : s.points) {
        if (!p->solved() || !bench::partlyFed(*p)) continue;
        const auto motor = p->across(input.positive, input.negative);
        const auto l = p->across(logic.positive, logic.negative);
        if (!motor || motor->value < 2 || (l && l->value > 2)) continue;
        auto f = finding(
            Severity::Caution, fmt::format("{} must have {} first", called(s.bench, d), s.bench.facts(logic.positive).label),
            fmt::format("With {} {} has {} at {} and nothing at {}: it has to be switched on the other way round.", p->command().title,
                        called(s.bench, d), show(*motor), s.bench.facts(input.positive).label, s.bench.facts(logic.positive).label),
            {s.bench.address(input.positive), s.bench.address(logic.positive)});
        f.ways = {{fmt::format("Switch on what feeds {} first, or feed both from one switch.", s.bench.called(logic.positive))}};
        f.formula = "two supplies that are switched on apart";
        out.push_back(std::move(f));
        break;
      }
    }
  }
  return out;
}

Check check() {
  return {"supply-sequence", "steppers", "The order of two supplies", Harm::Damage, judge};
}

}  // namespace bold::checks::supply_sequence
