#include "core/bench/motor_doing.h"

#include <algorithm>
#include <cmath>

namespace bold::bench {
namespace {

constexpr double kMoves = 0.2;        // share of its running current from which a motor counts as turning
constexpr double kOn = 0.2;           // share of its rated current from which a coil, light or heater counts as on
constexpr double kBrakeShare = 0.15;  // share of the shorted motor's current from which it brakes

Doing stepperDoing(const Readings& r, const Motor& m) {
  for (std::size_t i = 0; i < m.windings.size(); ++i) {
    const auto& w = windingOf(r.bench, m, i);
    const auto rated = parts::ratedCurrent(w);
    if (rated && *rated > 0 && std::abs(r.element(m.device, m.windings[i]).value) > kMoves * *rated) return Doing::Energised;
  }
  return Doing::Nothing;
}

// Which way the current flows through it does not matter, unless it has electronics or diodes of its own.
Doing stillDoing(const parts::Winding& w, double amps) {
  const auto ohms = w.resistance.typical();
  const auto volts = w.nominal.typical();
  const double rated = ohms && volts ? *volts / *ohms : kRunningCurrent.value.value;
  return (w.directional ? amps : std::abs(amps)) > kOn * rated ? Doing::On : Doing::Off;
}

// A turning motor that is let go is a generator: it brakes when its own voltage drives a current round, so and so much of what it
// would drive through a dead short.
Doing letGo(const Readings& r, const Motor& m, double amps) {
  const auto& w = windingOf(r.bench, m, 0);
  const double ohms = *w.resistance.typical();
  const auto volts = r.across(r.bench.terminal(m.device, w.a), r.bench.terminal(m.device, w.b));
  const double own = volts ? std::abs(volts->value - amps * ohms) : *w.nominal.typical();
  return std::abs(amps) > kBrakeShare * own / ohms ? Doing::Brake : Doing::Coast;
}

}  // namespace

Doing doingOf(const Readings& r, const std::vector<Motor>& motors, const Command& command, int motor) {
  const auto& m = motors[motor];
  if (m.kind == MotorKind::Servo) return Doing::Energised;
  if (m.kind != MotorKind::TwoLead) return stepperDoing(r, m);
  const auto& w = windingOf(r.bench, m, 0);
  if (r.node(r.bench.terminal(m.device, w.a)) < 0) return Doing::Nothing;
  const double amps = r.element(m.device, m.windings[0]).value;
  if (m.still) return stillDoing(w, amps);
  const bool stops = command.action == Action::Brake || command.action == Action::Coast;
  const bool asked = command.motor >= 0 && stops && std::ranges::count(together(motors, command.motor), motor) > 0;
  if (asked && w.nominal.typical() && w.resistance.typical()) return letGo(r, m, amps);
  const double run = valueOf(w.run.typical(), kRunningCurrent);
  if (amps > kMoves * run) return Doing::Forward;
  if (amps < -kMoves * run) return Doing::Reverse;
  return Doing::Coast;
}

}  // namespace bold::bench
