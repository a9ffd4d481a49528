#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_undervoltage {
namespace {

constexpr double kTurns = 0.98;  // share of its running current below which the winding's resistance rules: it stands still
constexpr double kDead = 0.6;    // share of what a coil or light is made for below which it does not switch on
constexpr double kWeak = 0.6;    // share of the rated voltage below which nobody promises anything

// A brushed motor's voltage, or the current of a stepper's coils on plain switches.
struct Fed {
  Margin margin;
  const Motor* motor;
  bool coils;
  AnyQuantity made;  // what it is made for; of a motor that stands still what it needs to turn
};

std::optional<Fed> coils(const SolvedBench& s, std::size_t m) {
  const auto& motor = s.motors[m];
  const auto* p = s.running(static_cast<int>(m), Corner::Nominal);
  const bool chopped = std::ranges::any_of(motor.reached, [&](ChannelRef r) { return bench::chopperOf(s.bench, r) != nullptr; });
  const auto rated = bench::ratedCurrent(s.bench, motor);
  if (!p || chopped) return std::nullopt;
  Amps most{};
  for (const int w : motor.windings) most = std::max(most, Amps{std::abs(p->element(motor.device, w).value)});
  if (most.value < 1e-3) return std::nullopt;
  Margin margin{.quantity = "coil current",
                .subjects = {idOf(s.bench, motor.device)},
                .unit = Unit::Amp,
                .value = most.value,
                .limits = rising(atLeast(LimitKind::Recommended, Severity::Caution, rated ? std::optional(kWeak * *rated) : std::nullopt,
                                         "least to count on", bench::windingOf(s.bench, motor, 0).phase.source)),
                .at = p};
  return Fed{std::move(margin), &motor, true, Amps{rated.value_or(0)}};
}

std::optional<Fed> brushed(const SolvedBench& s, std::size_t m) {
  const auto& motor = s.motors[m];
  const auto* p = s.running(static_cast<int>(m), Corner::Nominal);
  if (!p) return std::nullopt;
  const auto& w = bench::windingOf(s.bench, motor, 0);
  const auto v = p->across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
  const auto doing = p->doing(static_cast<int>(m));
  const bool driven = doing == bench::Doing::Forward || doing == bench::Doing::Reverse || doing == bench::Doing::On;
  if (!v || !driven || !w.nominal.typical() || (!w.run.typical() && !motor.still) || !w.resistance.typical()) return std::nullopt;
  const Volts volts{std::abs(v->value)};
  const double amps = std::abs(p->element(motor.device, motor.windings[0]).value);
  const Volts least{w.nominal.min && w.nominal.max ? *w.nominal.min : kWeak * *w.nominal.typical()};
  const Volts turns{motor.still ? kDead * least.value : *w.run.typical() * *w.resistance.typical()};
  Margin margin{.quantity = "voltage at the motor",
                .subjects = {idOf(s.bench, motor.device)},
                .unit = Unit::Volt,
                .value = volts.value,
                .limits = rising(atLeast(LimitKind::Recommended, Severity::Caution, least.value, "least to count on", w.nominal.source)),
                .at = p};
  if (motor.still || amps < kTurns * *w.run.typical()) {
    if (turns >= least) margin.limits.clear();  // it stands still before it is weak
    margin.limits.push_back(atLeast(LimitKind::Absolute, Severity::Stop, turns.value,
                                    motor.still ? "to switch on at all" : "to turn at all", w.resistance.source));
  }
  const bool stands = margin.stops();
  return Fed{std::move(margin), &motor, false, stands && !motor.still ? turns : least};
}

std::vector<Fed> measure(const SolvedBench& s) {
  std::vector<Fed> out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto kind = s.motors[m].kind;
    const bool stepper = kind == MotorKind::UnipolarStepper || kind == MotorKind::BipolarStepper;
    auto fed = stepper ? coils(s, m) : kind == MotorKind::TwoLead ? brushed(s, m) : std::nullopt;
    if (fed) out.push_back(std::move(*fed));
  }
  return out;
}

Finding weakCoils(const SolvedBench& s, const Fed& m) {
  const Amps most{*m.margin.value};
  const auto& name = called(s, *m.motor);
  auto f = finding(
      fmt::format("The coils of {} get only {}", name, show(most)),
      fmt::format("A coil of {} gets {} of the {} it is made for: it will be weak and may miss steps.", name, show(most), show(m.made)),
      m.margin.subjects);
  f.ways = {{fmt::format("Take a higher supply, or a stage that regulates, so that a coil of {} gets {}.", name, show(m.made))}};
  f.formula = fmt::format("{} < {} x {}", show(most), kWeak, show(m.made));
  f.args = {{"current", most}, {"rated", m.made}};
  f.bar = barOf(m.margin, *m.margin.passed()->least, "least to count on", {}, true);
  f.sources = sourcesOf({&bench::windingOf(s.bench, *m.motor, 0).phase});
  return f;
}

}  // namespace

// What is left at the motor while it runs. It stands still once the voltage no longer drives its running current.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Fed& m) {
    if (m.coils) return weakCoils(s, m);
    const auto& w = bench::windingOf(s.bench, *m.motor, 0);
    const Volts volts{*m.margin.value};
    const bool stands = m.margin.stops();
    const auto& name = called(s, *m.motor);
    auto f = finding(
        fmt::format("{} gets only {}", name, show(volts)),
        stands && m.motor->still
            ? fmt::format("{} gets {} of the {} it is made for: it does not switch on.", name, show(volts), displayText(w.nominal))
        : stands ? fmt::format("{} gets {}; its running current of {} through its winding alone needs {}: it cannot turn under load.", name,
                               show(volts), show(Amps{*w.run.typical()}), show(m.made))
                 : fmt::format("{} gets {} of the {} it is made for: it will be weak and may not {}.", name, show(volts),
                               displayText(w.nominal), m.motor->still ? "switch on" : "start"),
        m.margin.subjects);
    f.ways = {{fmt::format("Take a supply that leaves {} at {}, or a stage that loses less.", show(m.made), name)}};
    if (m.motor->intent && m.motor->intent->dutyCap) f.ways.push_back({"Or allow a greater duty.", fieldOf(s, *m.motor, "duty")});
    f.formula = against(volts, "<", m.made);
    f.args = {{"voltage", volts}, {"least", m.made}};
    f.bar = barOf(m.margin, m.made.value, stands && !m.motor->still ? "to turn at all" : "least to count on", {}, true);
    f.sources = sourcesOf({&w.nominal, &w.run, &w.resistance});
    return f;
  });
}

Check check() {
  return {"motor-undervoltage", "voltage", "Too few volts for the motor", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::motor_undervoltage
