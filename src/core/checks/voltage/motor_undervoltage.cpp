#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"
#include "core/circuit/coils.h"

namespace bold::checks {
namespace {
constexpr double kTurns = 0.98;  // share of its running current below which the winding's resistance rules: it stands still
constexpr double kWeak = 0.6;    // share of the rated voltage below which nobody promises anything

// A stepper on plain switches whose coils get far less than they are made for.
void weakCoils(const SolvedBench& s, std::size_t m, Findings& out) {
  const auto& motor = s.motors[m];
  const auto* p = s.running(static_cast<int>(m), Charge::Nominal);
  const bool chopped = std::ranges::any_of(motor.reached, [&](ChannelRef r) { return circuit::chopperOf(s.bench, r) != nullptr; });
  const auto rated = circuit::ratedCurrent(s.bench, motor);
  if (!p || chopped || !rated) return;
  Amps most{};
  for (const int w : motor.windings) most = std::max(most, Amps{std::abs(p->element(motor.device, w).value)});
  if (most.value < 1e-3 || most.value >= kWeak * *rated) return;
  auto f = finding(Severity::Caution, fmt::format("The coils of {} get only {}", called(s, motor), show(most)),
                   fmt::format("A coil of {} gets {} of the {} it is made for: it will be weak and may miss steps.", called(s, motor),
                               show(most), show(Amps{*rated})),
                   {idOf(s.bench, motor.device)});
  f.formula = fmt::format("{} < {} x {}", show(most), kWeak, show(Amps{*rated}));
  f.args = {{"current", most}, {"rated", Amps{*rated}}};
  f.bar = Bar{"coil current", most, {}, Amps{kWeak * *rated}, "least to count on", true};
  f.sources = sourcesOf({&circuit::windingOf(s.bench, motor, 0).phase});
  out.push_back(std::move(f));
}

}  // namespace

// What is left at the motor while it runs. It stands still once the voltage no longer drives its running current.
Findings motorUndervoltage(const SolvedBench& s) {
  Findings out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.kind == MotorKind::UnipolarStepper || motor.kind == MotorKind::BipolarStepper) weakCoils(s, m, out);
    const auto* p = s.running(static_cast<int>(m), Charge::Nominal);
    if (motor.kind != MotorKind::Brushed || !p) continue;
    const auto& w = circuit::windingOf(s.bench, motor, 0);
    const auto v = p->across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
    const auto doing = p->doing(static_cast<int>(m));
    const bool driven = doing == circuit::Doing::Forward || doing == circuit::Doing::Reverse;
    if (!v || !driven || !w.nominal.typical() || !w.run.typical() || !w.resistance.typical()) continue;
    const Volts volts{std::abs(v->value)};
    const double amps = std::abs(p->element(motor.device, motor.windings[0]).value);
    const bool still = amps < kTurns * *w.run.typical() && volts.value < *w.run.typical() * *w.resistance.typical();
    const Volts least{w.nominal.min && w.nominal.max ? *w.nominal.min : kWeak * *w.nominal.typical()};
    if (!still && volts >= least) continue;
    const Volts need = still ? Volts{*w.run.typical() * *w.resistance.typical()} : least;
    auto f =
        finding(still ? Severity::Stop : Severity::Caution, fmt::format("{} gets only {}", called(s, motor), show(volts)),
                still ? fmt::format("{} gets {}; its running current of {} through its winding alone needs {}: it cannot turn under load.",
                                    called(s, motor), show(volts), show(Amps{*w.run.typical()}), show(need))
                      : fmt::format("{} gets {} of the {} it is made for: it will be weak and may not start.", called(s, motor),
                                    show(volts), displayText(w.nominal)),
                {idOf(s.bench, motor.device)});
    f.formula = fmt::format("{} < {}", show(volts), show(need));
    f.args = {{"voltage", volts}, {"least", need}};
    f.bar = Bar{"voltage at the motor", volts, {}, need, still ? "to turn at all" : "least to count on", true};
    f.sources = sourcesOf({&w.nominal, &w.run, &w.resistance});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
