#include <fmt/core.h>

#include <map>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kHearsFrom = 200;  // Hz
constexpr double kHearsTo = 18000;  // Hz
}  // namespace

// The planned PWM frequency against the stage, the ear, and the timer it shares with others.
Findings pwmFrequency(const SolvedBench& s) {
  Findings out;
  struct User {
    const Motor* motor;
    TerminalIndex pin;
    Hertz frequency;
  };
  std::map<std::pair<int, std::string>, std::vector<User>> timers;
  for (const auto& m : s.motors) {
    if (!m.intent || !m.intent->pwm || !m.intent->speedControl) continue;
    const Hertz f0 = *m.intent->pwm;
    for (const auto& sig : m.intent->signals) {
      const auto t = s.bench.terminal(sig.pin);
      const bool duty = sig.role == "speed" || sig.role == "in" || sig.role == "in1" || sig.role == "in2";
      if (duty && t >= 0 && s.bench.facts(t).pin && !s.bench.facts(t).pin->pwm.empty())
        timers[{s.bench.deviceOf(t), s.bench.facts(t).pin->pwm}].push_back({&m, t, f0});
    }
    const auto most = m.meant.device < 0 ? std::nullopt : circuit::channelOf(s.bench, m.meant).pwmMost.typical();
    const bool over = most && f0.value > *most;
    const bool heard = f0.value >= kHearsFrom && f0.value <= kHearsTo;
    if (!over && !heard) continue;
    auto f = finding(
        over ? (f0.value > 2 * *most ? Severity::Stop : Severity::Caution) : Severity::Note,
        over ? fmt::format("{} is chopped at {}", called(s, m), show(f0)) : fmt::format("{} will whistle at {}", called(s, m), show(f0)),
        over ? fmt::format("{} is planned at {}; {} switches up to {}: above that it heats up and the duty is lost.", called(s, m),
                           show(f0), circuit::called(s.bench, m.meant), show(Hertz{*most}))
             : fmt::format("{} is planned at {}, which can be heard.", called(s, m), show(f0)),
        {idOf(s.bench, m.device)});
    f.formula = over ? fmt::format("{} > {}", show(f0), show(Hertz{*most}))
                     : fmt::format("{} lies between {} and {}", show(f0), show(Hertz{kHearsFrom}), show(Hertz{kHearsTo}));
    f.args = {{"frequency", f0}};
    if (over) f.bar = Bar{"PWM frequency", f0, {}, Hertz{*most}, "greatest"};
    if (over) f.sources = sourcesOf({&circuit::channelOf(s.bench, m.meant).pwmMost});
    out.push_back(std::move(f));
  }
  for (const auto& [timer, users] : timers)
    for (const auto& u : users) {
      const auto& first = users.front();
      if (u.frequency == first.frequency || u.motor == first.motor) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} share a timer", s.bench.called(first.pin), s.bench.facts(u.pin).label),
                       fmt::format("{} is planned at {} on {} and {} at {} on {}; both pins are driven by {}, which has one frequency.",
                                   called(s, *first.motor), show(first.frequency), s.bench.called(first.pin), called(s, *u.motor),
                                   show(u.frequency), s.bench.called(u.pin), timer.second),
                       {s.bench.address(first.pin), s.bench.address(u.pin)});
      f.formula = fmt::format("{} against {} on {}", show(first.frequency), show(u.frequency), timer.second);
      out.push_back(std::move(f));
      break;
    }
  return out;
}

}  // namespace bold::checks
