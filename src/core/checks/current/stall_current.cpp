#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/current/stall_table.h"

namespace bold::checks {
namespace {

// Stall current at the far end of the catalogue's spread of the winding, everything else as solved.
double atSpreadEnd(double stall, double volts, const parts::Winding& w) {
  if (!w.resistance.spreadMin || !w.resistance.typical() || w.resistance.overridden || stall <= 0) return stall;
  const double outside = volts / stall - *w.resistance.typical();
  return volts / (std::max(outside, 0.0) + *w.resistance.spreadMin);
}

}  // namespace

// Stalled at full charge with a cold winding, the others running, against continuous and peak by the stage's protection.
Findings stallCurrent(const SolvedBench& s) {
  Findings out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.kind != MotorKind::Brushed) continue;
    const auto* p = s.point(static_cast<int>(m), Action::Forward, Moment::Stalled, Charge::Full);
    const auto* run = s.running(static_cast<int>(m), Charge::Full);
    if (!p || !run) continue;
    const auto& w = circuit::windingOf(s.bench, motor, 0);
    for (const auto& ref : motor.reached) {
      const auto& channel = circuit::channelOf(s.bench, ref);
      const auto& rating = continuousOf(s.bench, ref);
      if (circuit::chopperOf(s.bench, ref) || !rating.typical()) continue;
      Amps stall{};
      Amps running{};
      for (const auto& o : channel.out) {
        const auto t = s.bench.terminal(ref.device, o);
        stall = std::max(stall, Amps{std::abs(leaving(s, *p, t).value)});
        running = std::max(running, Amps{std::abs(leaving(s, *run, t).value)});
      }
      const double continuous = *rating.typical();
      const double peak = channel.peak.typical().value_or(1.5 * continuous);
      const bool peakKnown = channel.peak.typical().has_value();
      const ShortLoad typical{stall.value, running.value, continuous, peak, peakKnown, channel.protection};
      const auto v = p->across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
      const double through = std::abs(p->element(motor.device, motor.windings[0]).value);
      const double open = v ? std::abs(v->value) + through * 0.5 : 0;  // what stands behind the winding, wires and stage included
      ShortLoad spread = typical;
      spread.amps = std::max(stall.value,
                             atSpreadEnd(through, open, w) * (through > 0 ? stall.value / through : 1));  // of what joined channels share
      const Weight byTypical = weigh(typical);
      const Weight bySpread = lower(weigh(spread));
      const Weight worst = std::max(byTypical, bySpread);
      if (worst == Weight::Quiet) continue;
      const bool fromSpread = bySpread > byTypical;
      const Amps shown{fromSpread ? spread.amps : stall.value};
      const AnyQuantity limit = Amps{shown.value > peak || peak < continuous        ? peak
                                     : worst == Weight::Note && shown.value <= peak ? continuous
                                                                                    : peak};
      auto f =
          finding(severityOf(worst), fmt::format("{} stalls at {} on {}", called(s, motor), show(shown), circuit::called(s.bench, ref)),
                  fmt::format("Stalled, {} draws {}{}; {} stands {} for long and {} for a moment, and has {}.", called(s, motor),
                              show(shown), fromSpread ? " if its winding is at the low end of its class" : "",
                              circuit::called(s.bench, ref), show(Amps{continuous}), show(Amps{peak}), word(channel.protection)),
                  {idOf(s.bench, motor.device), s.bench.address(s.bench.terminal(ref.device, channel.out.front()))});
      if (fromSpread) f.text += " Measure the winding at three rotor positions and enter the lowest.";
      f.formula =
          fmt::format("{} at {} on the winding ({}) against {} continuous, {} peak", show(stall), v ? show(Volts{std::abs(v->value)}) : "?",
                      displayText(w.resistance), show(Amps{continuous}), show(Amps{peak}));
      f.args = {{"stall", shown}, {"running", running}, {"continuous", Amps{continuous}}, {"peak", Amps{peak}}};
      f.bar = Bar{"stall current", shown, AnyQuantity(running), limit, limit.value == peak ? "peak" : "continuous"};
      f.sources = sourcesOf({&w.resistance, &rating, &channel.peak});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
