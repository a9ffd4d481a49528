#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pwm_channel_shared {
namespace {

struct Speed {
  TerminalIndex pin;
  const harness::Intent* intent;
  const harness::Signal* signal;
};

std::vector<Speed> speeds(const SolvedBench& s) {
  std::vector<Speed> out;
  for (const auto& intent : s.bench.intents)
    for (const auto* signal : harness::dutySignals(intent)) {
      const auto pin = s.bench.terminal(signal->pin);
      if (pin >= 0 && s.bench.facts(pin).pin && !s.bench.facts(pin).pin->channel.empty()) out.push_back({pin, &intent, signal});
    }
  return out;
}

}  // namespace

// Two pins that one channel of the PWM unit drives: whatever is written last is the duty of both.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto all = speeds(s);
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = i + 1; k < all.size(); ++k) {
      const auto& a = all[i];
      const auto& b = all[k];
      const auto& one = *s.bench.facts(a.pin).pin;
      const auto& other = *s.bench.facts(b.pin).pin;
      if (a.pin == b.pin || s.bench.deviceOf(a.pin) != s.bench.deviceOf(b.pin) || one.pwm != other.pwm || one.channel != other.channel)
        continue;
      const auto motor = [&](const Speed& x) { return called(s.bench, s.bench.deviceIndex(x.intent->motor)); };
      auto f = finding(
          Severity::Stop, fmt::format("{} and {} are one PWM channel", s.bench.called(a.pin), s.bench.facts(b.pin).label),
          fmt::format("{} ({} of {}) and {} ({} of {}) are both channel {} of {}: they always have the same duty.", s.bench.called(a.pin),
                      a.signal->role, motor(a), s.bench.called(b.pin), b.signal->role, motor(b), one.channel, one.pwm),
          {s.bench.address(a.pin), s.bench.address(b.pin), a.intent->motor});
      if (b.intent != a.intent) f.subjects.push_back(b.intent->motor);
      f.ways = {{fmt::format("Move {} or {} to a pin of another channel than {} of {}.", s.bench.called(a.pin), s.bench.called(b.pin),
                             one.channel, one.pwm),
                 {a.intent->motor, "signal " + a.signal->role}}};
      f.formula = fmt::format("{} = {} = {} channel {}", s.bench.facts(a.pin).label, s.bench.facts(b.pin).label, one.pwm, one.channel);
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"pwm-channel-shared", "pins", "Two speeds on one PWM channel", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pwm_channel_shared
