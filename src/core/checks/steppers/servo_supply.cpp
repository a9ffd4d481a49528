#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
// A servo's supply: its voltage while it moves, and at full charge.
Findings servoSupply(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::Servo) continue;
    for (const auto& input : supplyInputs(s.bench, "motor")) {
      if (s.bench.deviceOf(input.positive) != m.device) continue;
      const auto* off = s.point(Action::AllOff, Charge::Full);
      const auto* run = s.running(static_cast<int>(k), Charge::Nominal);
      const auto most = off ? off->across(input.positive, input.negative) : std::nullopt;
      const auto usual = run ? run->across(input.positive, input.negative) : std::nullopt;
      const auto high = input.facts->recommended.max;
      const auto low = input.facts->recommended.min;
      const double full = most ? most->value : 0;
      const bool over = high && full > *high;
      const bool none = run && (!usual || usual->value < 0.5);
      const bool under = usual && low && usual->value < *low;
      if (!over && !under && !none) continue;
      const Volts v = over ? Volts{full} : usual.value_or(Volts{0});
      const Volts limit{over ? *high : low.value_or(0)};
      auto f =
          finding(over || none ? Severity::Stop : Severity::Caution,
                  none ? fmt::format("{} has no supply", s.bench.called(input.positive)) : fmt::format("{} gets {}", called(s, m), show(v)),
                  none   ? fmt::format("Nothing feeds {}: {} cannot move.", s.bench.called(input.positive), called(s, m))
                  : over ? fmt::format("{} gets {} from a full supply; it is made for {} at most: its electronics burn.", called(s, m),
                                       show(v), show(limit))
                         : fmt::format("{} gets {} while it moves; it wants {}: it is weak and slow.", called(s, m), show(v), show(limit)),
                  {s.bench.address(input.positive), idOf(s.bench, m.device)});
      f.formula = fmt::format("{} {} {}", show(v), over ? ">" : "<", show(limit));
      f.args = {{"voltage", v}, {"limit", limit}};
      f.bar = Bar{"servo supply", v, {}, limit, over ? "greatest" : "least", !over};
      f.sources = sourcesOf({&input.facts->recommended});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
