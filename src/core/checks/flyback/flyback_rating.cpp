#include <fmt/core.h>

#include <cmath>

#include "core/checks/flyback/clamp.h"

namespace bold::checks {
namespace {
constexpr Seconds kSlow{5e-6};  // recovery of a standard rectifier whose data sheet does not say
}

// The diode that clamps: its reverse voltage, its current, and how long it takes to let go.
Findings flybackRating(const SolvedBench& s) {
  Findings out;
  for (const auto& d : looseDiodes(s)) {
    const auto& body = std::get<parts::Diode>(
        s.bench.devices[static_cast<std::size_t>(d.device)].part->elements[static_cast<std::size_t>(d.element)].body);
    const auto& name = called(s.bench, d.device);
    const auto say = [&](Severity severity, const std::string& headline, const std::string& text, const std::string& formula,
                         AnyQuantity value, AnyQuantity limit, const std::string& what, const Figure& source) {
      auto f = finding(severity, headline, text, {idOf(s.bench, d.device)});
      f.formula = formula;
      f.args = {{"value", value}, {"limit", limit}};
      f.bar = Bar{what, value, {}, limit, "rating"};
      f.sources = sourcesOf({&source});
      out.push_back(std::move(f));
    };
    for (std::size_t k = 0; k < s.motors.size(); ++k) {
      const auto& m = s.motors[k];
      const auto* opened = justOpened(s, static_cast<int>(k));
      if (!opened || opened->element(d.device, d.element).value < 0.01 || m.windings.size() != 1) continue;
      const Amps i = opened->element(d.device, d.element);
      const auto back = largest(s, everyday, [&](const OperatingPoint& p) {
        const auto v = p.across(d.cathode, d.anode);
        return v ? v->value : 0;
      });
      if (const auto r = body.reverseVoltage.typical(); r && back.value * 1.25 > *r)
        say(back.value > *r ? Severity::Stop : Severity::Caution, fmt::format("{} is blocked against {}", name, show(Volts{back.value})),
            fmt::format("{} stands {} backwards and is blocked against {}.", name, show(Volts{*r}), show(Volts{back.value})),
            fmt::format("1.25 x {} > {}", show(Volts{back.value}), show(Volts{*r})), Volts{back.value}, Volts{*r}, "reverse voltage",
            body.reverseVoltage);
      const bool pwm = m.intent && m.intent->speedControl;
      const auto average = body.ratedCurrent.typical();
      if (pwm && average) {
        // A motor behind PWM freewheels for the rest of every period; half of it is what a plan without a cap may ask for.
        const double off = m.intent->dutyCap ? 1 - *m.intent->dutyCap : 0.5;
        const Amps mean = i * off;
        if (mean.value > *average)
          say(mean.value > 1.5 * *average ? Severity::Stop : Severity::Caution, fmt::format("{} carries {} on average", name, show(mean)),
              fmt::format("Between the pulses {} carries the current of {}: {} on average, and it is made for {}.", name, called(s, m),
                          show(mean), show(Amps{*average})),
              fmt::format("{:.2g} x {} = {} > {}", off, show(i), show(mean), show(Amps{*average})), mean, Amps{*average}, "average current",
              body.ratedCurrent);
      }
      const auto* stalled = s.point(static_cast<int>(k), Action::Forward, Moment::Stalled, Charge::Full);
      if (const auto surge = body.surge.typical(); surge && stalled && !pwm) {
        const Amps stall{std::abs(stalled->element(m.device, m.windings[0]).value)};
        if (stall.value > *surge)
          say(Severity::Stop, fmt::format("{} takes {} in one pulse", name, show(stall)),
              fmt::format("Switched off while held, {} drives {} through {}, which stands {} once.", called(s, m), show(stall), name,
                          show(Amps{*surge})),
              fmt::format("{} > {}", show(stall), show(Amps{*surge})), stall, Amps{*surge}, "surge current", body.surge);
      }
      if (pwm && m.intent->pwm && !body.schottky) {
        const double recovery = body.recovery.typical().value_or(kSlow.value);
        const double share = recovery * m.intent->pwm->value;
        if (share > 0.01)
          say(share > 0.05 ? Severity::Caution : Severity::Note, fmt::format("{} is slow for {}", name, show(*m.intent->pwm)),
              fmt::format("{} takes {}{} to let go, {:.0f} % of a period at {}: it heats itself and the switch.", name,
                          body.recovery.known() ? "" : "about ", show(Seconds{recovery}), 100 * share, show(*m.intent->pwm)),
              fmt::format("{} x {} = {:.1f} %", show(Seconds{recovery}), show(*m.intent->pwm), 100 * share), Seconds{recovery},
              Seconds{0.05 / m.intent->pwm->value}, "recovery time", body.recovery);
      }
    }
  }
  return out;
}

}  // namespace bold::checks
