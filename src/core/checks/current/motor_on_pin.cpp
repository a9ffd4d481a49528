#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_on_pin {

// A winding's lead on the copper of a controller pin, with no stage output between.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& motor : s.motors) {
    std::vector<TerminalIndex> pins;
    for (std::size_t i = 0; i < motor.windings.size(); ++i) {
      const auto& w = bench::windingOf(s.bench, motor, i);
      for (const auto& lead : {w.a, w.b}) {
        const int net = s.nets.of(s.bench.terminal(motor.device, lead));
        if (s.nets.rail(net)) continue;  // a pin on that rail is what is wrong, not the motor
        for (const auto t : s.nets.members(net))
          if (pinGroup(s.bench, t)) pins.push_back(t);
      }
    }
    if (pins.empty()) continue;
    std::vector<std::string> subjects{idOf(s.bench, motor.device)};
    for (const auto t : pins) subjects.push_back(s.bench.address(t));
    const auto group = pinGroup(s.bench, pins.front());
    const auto& w = bench::windingOf(s.bench, motor, 0);
    const auto rail = s.bench.facts(group->rail).supply ? s.bench.facts(group->rail).supply->recommended.typical() : std::nullopt;
    auto f = finding(Severity::Stop, fmt::format("{} hangs on pin {}", called(s, motor), s.bench.called(pins.front())),
                     fmt::format("{} is wired straight to {}: a pin gives {} at most. Put a transistor or bridge between.",
                                 called(s, motor), s.bench.called(pins.front()), displayText(group->pins->absolute)),
                     std::move(subjects));
    f.ways = {{fmt::format("Take {} off {} and put a low-side switch between: a transistor with a clamp diode.", called(s, motor),
                           s.bench.called(pins.front()))}};
    if (!motor.still) f.ways.push_back({fmt::format("Or take a bridge, if {} has to turn both ways.", called(s, motor))});
    if (rail && w.resistance.typical()) {
      const Amps stall{*rail / *w.resistance.typical()};
      f.formula = fmt::format("{} / {} = {} at start > {}", show(Volts{*rail}), show(Ohms{*w.resistance.typical()}), show(stall),
                              displayText(group->pins->absolute));
      f.args = {{"start", stall}};
      if (const auto most = group->pins->absolute.typical())
        f.bar = Bar{"start current", stall, {}, Amps{*most}, "absolute maximum of a pin"};
    }
    f.sources = sourcesOf({&group->pins->absolute, &w.resistance});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"motor-on-pin", "current", "A motor straight on a pin", Harm::Damage, judge};
}

}  // namespace bold::checks::motor_on_pin
