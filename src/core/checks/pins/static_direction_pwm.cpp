#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::static_direction_pwm {
// Two inputs and no speed input: one driven by PWM, the other standing as a direction.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.kind != MotorKind::TwoLead || !m.intent || !m.intent->speedControl || !m.intent->bothDirections) continue;
    TerminalIndex in[2] = {-1, -1};
    bool speed = false;
    for (const auto& sig : m.intent->signals) {
      speed = speed || sig.role == "speed";
      if (sig.role == "in1") in[0] = s.bench.terminal(sig.pin);
      if (sig.role == "in2") in[1] = s.bench.terminal(sig.pin);
    }
    if (speed || in[0] < 0 || in[1] < 0 || !s.bench.facts(in[0]).pin || !s.bench.facts(in[1]).pin) continue;
    const bool first = !s.bench.facts(in[0]).pin->pwm.empty();
    const bool second = !s.bench.facts(in[1]).pin->pwm.empty();
    if (first == second) continue;
    const auto pwm = first ? in[0] : in[1];
    const auto still = first ? in[1] : in[0];
    auto f = finding(
        Severity::Caution, fmt::format("The duty of {} turns round", called(s, m)),
        fmt::format("{} has PWM and {} has not: with {} high the motor is driven while {} is low, so 30 % means 70 % that way round.",
                    s.bench.called(pwm), s.bench.called(still), s.bench.facts(still).label, s.bench.facts(pwm).label),
        {s.bench.address(still), idOf(s.bench, m.device)});
    f.ways = {{fmt::format("Move {} to a PWM pin as well, or write 1 - duty in reverse.", s.bench.called(still))}};
    f.formula = "duty in reverse = 1 - duty";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"static-direction-pwm", "pins", "Direction and PWM on two inputs", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::static_direction_pwm
