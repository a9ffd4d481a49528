#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_no_pwm {
namespace {

// Two inputs of which one has PWM: the speed comes through that one; static-direction-pwm says what that means.
bool oneIsEnough(const SolvedBench& s, const std::vector<const harness::Signal*>& signals) {
  return signals.size() == 2 && std::ranges::any_of(signals, [&](const harness::Signal* sig) {
           const auto t = s.bench.terminal(sig->pin);
           return sig->role != "speed" && t >= 0 && s.bench.facts(t).pin && !s.bench.facts(t).pin->pwm.empty();
         });
}

}  // namespace

Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& intent : s.bench.intents) {
    const auto signals = harness::dutySignals(intent);
    if (oneIsEnough(s, signals)) continue;
    for (const auto* signal : signals) {
      const auto t = s.bench.terminal(signal->pin);
      if (t < 0 || !s.bench.facts(t).pin || !s.bench.facts(t).pin->pwm.empty()) continue;
      const bool soft = s.bench.facts(t).pin->softPwm;
      const auto& name = called(s.bench, s.bench.deviceIndex(intent.motor));
      auto f = finding(
          soft ? Severity::Caution : Severity::Stop, fmt::format("{} has no PWM", s.bench.called(t)),
          soft ? fmt::format("The speed of {} is to come from {}, which has PWM in software only: it jitters.", name, s.bench.called(t))
               : fmt::format("The speed of {} is to come from {}, which has no PWM: it will be full speed or nothing.", name,
                             s.bench.called(t)),
          {s.bench.address(t), intent.motor});
      std::string free;
      const auto& part = *s.bench.devices[s.bench.deviceOf(t)].part;
      for (const auto& other : part.terminals) {
        const auto o = s.bench.terminal(s.bench.deviceOf(t), other.id);
        if (other.pin && !other.pin->pwm.empty() && other.pin->reserved.empty() && !s.bench.connected(o))
          free += (free.empty() ? "" : ", ") + other.label;
      }
      f.ways = {{free.empty() ? fmt::format("Give up a PWM pin for {} of {}: none is free.", signal->role, name)
                              : fmt::format("Move the wire from {} to {}, and state that pin.", s.bench.called(t), free),
                 {intent.motor, "signal " + signal->role}},
                {"Or state no speed control, if full speed will do.", {intent.motor, "speed"}}};
      f.formula = free.empty() ? "no free pin with PWM is left" : "free pins with PWM: " + free;
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"pin-no-pwm", "pins", "Speed asked of a pin without PWM", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_no_pwm
