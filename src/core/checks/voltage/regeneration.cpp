#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/truth_table.h"

namespace bold::checks::regeneration {
namespace {

constexpr double kRunsDown = 0.02;        // s, mechanical time constant of a geared motor: its kinetic energy from V^2 / R
constexpr double kGivenBack = 0.5;        // the rest stays in the winding and the gears
constexpr double kSmallSupply = 1;        // A, rating of a supply that states none
constexpr double kSupplyOutput = 500e-6;  // F for each ampere of rating, at an adapter's output where none is stated

// Whether taking the speed input low brakes: then a falling duty pumps the motor's energy back into the supply.
bool brakesAtLowDuty(const SolvedBench& s, const Motor& m) {
  if (m.meant.device < 0 || !m.intent || !m.intent->speedControl) return false;
  const auto& channel = bench::channelOf(s.bench, m.meant);
  if (channel.out.size() != 2 || channel.lowSide) return false;
  const auto rows = parts::truthTable(*s.bench.devices[m.meant.device].part, channel);
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

struct Lifted {
  Margin margin;
  const Motor* motor;
  SupplyInput input;
  const bench::Nets::Pole* pole;
  Volts supply, peak;
  double joules;
  Farads farads;
};

// What takes the energy in: the source's own output and every capacitor on its plus.
Farads buffer(const SolvedBench& s, const SupplyInput& input, const parts::Source& source) {
  Farads sum{source.capacitance.typical().value_or(kSupplyOutput * source.continuous.typical().value_or(kSmallSupply))};
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (a >= 0 && b >= 0 && (s.nets.same(a, input.positive) || s.nets.same(b, input.positive)))
      sum.value += c.capacitance.typical().value_or(0);
  });
  return sum;
}

std::vector<Lifted> measure(const SolvedBench& s) {
  std::vector<Lifted> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::TwoLead || m.still || (m.intent && m.intent->ramp) || !brakesAtLowDuty(s, m)) continue;
    const auto* p = s.running(static_cast<int>(k), Corner::Full);
    const auto& w = bench::windingOf(s.bench, m, 0);
    if (!p || !w.resistance.typical()) continue;
    for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor)) {
      if (s.bench.deviceOf(input.positive) != m.meant.device) continue;
      const auto* pole = sourceAt(s, input.positive, true);
      const auto v = p->across(input.positive, input.negative);
      if (!pole || !v || sourceBody(s.bench, *pole).sinks || !sourceBody(s.bench, *pole).limit.known()) continue;
      const auto& source = sourceBody(s.bench, *pole);
      const auto farads = buffer(s, input, source);
      const double joules = 0.5 * kGivenBack * kRunsDown * v->value * v->value / *w.resistance.typical();
      const Volts peak{std::sqrt(v->value * v->value + 2 * joules / farads.value)};
      const auto& absolute = input.facts->absolute;
      Margin margin{
          .quantity = "supply while slowing down",
          .subjects = {s.bench.address(input.positive), idOf(s.bench, m.device)},
          .unit = Unit::Volt,
          .value = peak.value,
          .limits = rising(atMost(LimitKind::Absolute, Severity::Caution, absolute.typical(), "absolute maximum", absolute.source)),
          .at = p};
      if (!source.capacitance.typical()) margin.assumed = {"500 µF at the supply's output for each ampere of its rating"};
      out.push_back({std::move(margin), &m, input, pole, *v, peak, joules, farads});
    }
  }
  return out;
}

}  // namespace

// A motor braked by its own PWM gives its energy back; a supply that takes none lets the voltage rise.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Lifted& m) {
    const Volts absolute{*m.margin.passed()->most};
    auto f = finding(fmt::format("{} can lift its supply to {}", called(s, *m.motor), show(m.peak)),
                     fmt::format("Slowed down by its PWM, {} gives about {:.2g} J back; {} takes none, and with {} the voltage rises to "
                                 "{} where {} stands {}.",
                                 called(s, *m.motor), m.joules, called(s.bench, m.pole->device), show(m.farads), show(m.peak),
                                 called(s.bench, m.motor->meant.device), show(absolute)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Fit a capacitor of {} or more at {}, or a suppressor for less than {}.",
                           show(Farads{2 * m.joules / std::max(absolute.value * absolute.value - m.supply.value * m.supply.value, 1.0)}),
                           called(s.bench, m.motor->meant.device), show(absolute))},
              {"Or let the program slow it down gently, and state that it does.", fieldOf(s, *m.motor, "starting")}};
    f.formula = fmt::format("sqrt({}² + 2 x {:.2g} J / {}) = {}", show(m.supply), m.joules, show(m.farads), show(m.peak));
    f.args = {{"peak", m.peak}, {"absolute", absolute}};
    f.bar = barOf(m.margin, absolute.value, "absolute maximum", m.supply);
    f.sources = sourcesOf({&m.input.facts->absolute, &bench::windingOf(s.bench, *m.motor, 0).resistance});
    return f;
  });
}

Check check() {
  return {"regeneration", "voltage", "A braking motor lifts its supply", Harm::Damage, judge};
}

}  // namespace bold::checks::regeneration
