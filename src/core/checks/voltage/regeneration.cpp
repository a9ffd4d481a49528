#include <fmt/core.h>

#include <cmath>

#include "core/checks/queries.h"
#include "core/parts/truth_table.h"

namespace bold::checks {
namespace {

constexpr double kRunsDown = 0.02;        // s, mechanical time constant of a geared motor: its kinetic energy from V^2 / R
constexpr double kGivenBack = 0.5;        // the rest stays in the winding and the gears
constexpr double kSupplyOutput = 500e-6;  // F for each ampere of rating, at an adapter's output where none is stated

// Whether taking the speed input low brakes: then a falling duty pumps the motor's energy back into the supply.
bool brakesAtLowDuty(const SolvedBench& s, const Motor& m) {
  if (m.meant.device < 0 || !m.intent || !m.intent->speedControl) return false;
  const auto& channel = circuit::channelOf(s.bench, m.meant);
  if (channel.out.size() != 2 || channel.lowSide) return false;
  const auto rows = parts::truthTable(*s.bench.devices[static_cast<std::size_t>(m.meant.device)].part, channel);
  const auto speed = channel.signals.find("speed");
  for (const auto& on : rows) {
    if (parts::bridgeAction(on.outputs[0], on.outputs[1]) != parts::BridgeAction::Forward) continue;
    for (const auto& off : rows) {
      if (parts::bridgeAction(off.outputs[0], off.outputs[1]) != parts::BridgeAction::Brake) continue;
      int changes = 0;
      bool bySpeed = speed == channel.signals.end();
      for (const auto& [t, level] : on.inputs)
        if (off.inputs.at(t) != level) {
          ++changes;
          bySpeed = bySpeed || t == speed->second;
        }
      if (changes == 1 && bySpeed) return true;
    }
  }
  return false;
}

}  // namespace

// A motor braked by its own PWM gives its energy back; a supply that takes none lets the voltage rise.
Findings regeneration(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::Brushed || (m.intent && m.intent->ramp) || !brakesAtLowDuty(s, m)) continue;
    const auto* p = s.running(static_cast<int>(k), Charge::Full);
    const auto& w = circuit::windingOf(s.bench, m, 0);
    if (!p || !w.resistance.typical()) continue;
    for (const auto& input : supplyInputs(s.bench, "motor")) {
      if (s.bench.deviceOf(input.positive) != m.meant.device) continue;
      const auto* pole = sourceAt(s, input.positive, true);
      const auto v = p->across(input.positive, input.negative);
      const auto absolute = input.facts->absolute.typical();
      if (!pole || !v || !absolute || sourceBody(s.bench, *pole).sinks || !sourceBody(s.bench, *pole).limit.known()) continue;
      const auto& source = sourceBody(s.bench, *pole);
      double farads = source.capacitance.typical().value_or(kSupplyOutput * source.continuous.typical().value_or(1));
      eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
        const auto a = at(s.bench, d, c.a);
        const auto b = at(s.bench, d, c.b);
        if (a >= 0 && b >= 0 && (s.nets.same(a, input.positive) || s.nets.same(b, input.positive)))
          farads += c.capacitance.typical().value_or(0);
      });
      const double joules = 0.5 * kGivenBack * kRunsDown * v->value * v->value / *w.resistance.typical();
      const Volts peak{std::sqrt(v->value * v->value + 2 * joules / farads)};
      if (peak.value <= *absolute) continue;
      auto f = finding(Severity::Caution, fmt::format("{} can lift its supply to {}", called(s, m), show(peak)),
                       fmt::format("Slowed down by its PWM, {} gives about {:.2g} J back; {} takes none, and with {} the voltage rises to "
                                   "{} where {} stands {}.",
                                   called(s, m), joules, called(s.bench, pole->device), show(Farads{farads}), show(peak),
                                   called(s.bench, m.meant.device), show(Volts{*absolute})),
                       {s.bench.address(input.positive), idOf(s.bench, m.device)});
      f.formula = fmt::format("sqrt({}² + 2 x {:.2g} J / {}) = {}", show(*v), joules, show(Farads{farads}), show(peak));
      f.args = {{"peak", peak}, {"absolute", Volts{*absolute}}};
      f.bar = Bar{"supply while slowing down", peak, AnyQuantity(*v), Volts{*absolute}, "absolute maximum"};
      f.sources = sourcesOf({&input.facts->absolute, &w.resistance});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
