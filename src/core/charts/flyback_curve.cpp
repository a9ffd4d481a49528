#include "core/charts/flyback_curve.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/flyback/clamp.h"

namespace bold::charts {
namespace {

constexpr double kSwitchFarads = 300e-12;  // output capacitance of a switch and its wires
constexpr double kClampOhms = 0.5;         // of what conducts once the voltage is reached
constexpr double kDiode = 0.8;             // V above the supply with an ordinary diode
constexpr double kAir = 200;               // V at which something gives way where no rating is known
constexpr int kTransientSteps = 1500;

// The lowest absolute voltage of what switches the motor: there an unclamped pulse ends.
double breakdown(const bench::SolvedBench& s, const bench::Motor& m) {
  double least = kAir;
  for (const auto& ref : m.reached)
    for (const auto& e : s.bench.devices[ref.device].part->elements) {
      if (const auto* t = std::get_if<parts::Mosfet>(&e.body)) least = std::min(least, t->vds.typical().value_or(kAir));
      if (const auto* t = std::get_if<parts::Bipolar>(&e.body)) least = std::min(least, t->vce.typical().value_or(kAir));
    }
  return least;
}

}  // namespace

// L di/dt = V - R i - v and C dv/dt = i - clamp(v), by the implicit midpoint's plain cousin (backward Euler): it damps,
// and never grows.
Series openingTransient(const Opening& o, double seconds, int steps) {
  Series out;
  const double h = seconds / steps;
  double i = o.amps;
  double v = 0;
  for (int k = 0; k <= steps; ++k) {
    out.x.push_back(k * h);
    out.y.push_back(v);
    const double top = o.volts + o.clampAbove;
    // Two unknowns; the clamp is on or off, whichever fits.
    double ni = 0;
    double nv = 0;
    for (const bool on : {false, true}) {
      const double g = on ? 1 / kClampOhms : 0;
      // ni = i + h/L (V - R ni - nv);  nv = v + h/C (ni - g (nv - top))
      const double a = 1 + h * o.ohms / o.henries;
      const double b = h / o.henries;
      const double c = 1 + h * g / o.farads;
      const double d = h / o.farads;
      const double right1 = i + b * o.volts;
      const double right2 = v + d * g * top;
      const double det = a * c + b * d;
      ni = (right1 * c - b * right2) / det;
      nv = (a * right2 + d * right1) / det;
      if ((nv > top) == on) break;
    }
    i = ni;
    v = std::max(nv, -1.0);  // its body diode keeps it from going below ground
  }
  return out;
}

std::optional<Curve> flybackCurve(const bench::SolvedBench& s, int motor) {
  const auto& m = s.motors[motor];
  if (m.windings.size() != 1) return std::nullopt;
  const auto& w = bench::windingOf(s.bench, m, 0);
  const auto* opened = checks::justOpened(s, motor);
  const auto* running = s.running(motor, bench::Corner::Full);
  const auto l = w.inductance.typical();
  const auto r = w.resistance.typical();
  if (!opened || !running || !l || !r) return std::nullopt;
  const double amps = std::abs(running->element(m.device, m.windings[0]).value);
  const auto at = running->across(s.bench.terminal(m.device, w.a), s.bench.terminal(m.device, w.b));
  if (!at || amps < 1e-3) return std::nullopt;
  const double volts = std::abs(at->value);
  const bool clamped = opened->arcShare(motor) < 0.05;
  const auto back = opened->across(s.bench.terminal(m.device, w.b), s.bench.terminal(m.device, w.a));
  const double drop = clamped && back ? std::clamp(std::abs(back->value), 0.2, 100.0) : kDiode;
  const double gives = std::max(breakdown(s, m) - volts, 1.0);
  const double seconds = 1.8 * *l * amps / (drop + amps * *r / 2);
  Curve c;
  c.title = fmt::format("{} switched off at {}", bench::called(s, m), displayText(Amps{amps}));
  c.yUnit = Unit::Volt;
  const Opening with{*l, *r, volts, amps, drop, kSwitchFarads};
  Opening without = with;
  without.clampAbove = gives;
  c.series.push_back(openingTransient(with, seconds, kTransientSteps));
  c.series.back().name = clamped ? "as wired, clamped" : "with a diode across the motor";
  c.series.push_back(openingTransient(without, seconds, kTransientSteps));
  c.series.back().name = clamped ? "without the clamp" : "as wired, nothing clamps";
  c.limits.push_back({"the switch gives way", volts + gives});
  c.note = fmt::format("{} and {} of the winding, {} at the switch", displayText(Henries{*l}), displayText(Ohms{*r}),
                       displayText(Farads{kSwitchFarads}));
  return c;
}

}  // namespace bold::charts
