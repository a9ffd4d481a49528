#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_heat {
namespace {

constexpr double kRunsAway = 999;   // degC: it never settles
constexpr double kCopper = 0.0039;  // 1/K, against 20 degC

struct Winding {
  Margin margin;
  const Motor* motor;
  Watts heat;  // in the end
  double rth;  // K/W
  bool runaway;
};

// Where a winding settles that is hotter the more it turns into heat, and turns into heat what its hot resistance makes of it.
struct Settled {
  double celsius, watts;
};

// A current that the torque or a stage gives: P = I^2 R(T). Nothing: each degree brings more than it takes away.
std::optional<Settled> byCurrent(double watts20, double rth, double air) {
  const double gain = kCopper * rth * watts20;
  if (gain >= 1) return std::nullopt;
  const double t = (air + rth * watts20 * (1 - 20 * kCopper)) / (1 - gain);
  return Settled{t, watts20 * (1 + kCopper * (t - 20))};
}
// A stiff voltage across it: P = V^2 / R(T), which always settles.
Settled byVoltage(double watts20, double rth, double air) {
  double t = air;
  double watts = watts20;
  for (int i = 0; i < 60; ++i) {
    watts = watts20 / (1 + kCopper * (t - 20));
    t = 0.5 * (t + air + rth * watts);
  }
  return {t, watts};
}

// A coil straight on its supply, by switches or bridges that regulate nothing.
bool onVoltage(const SolvedBench& s, const Motor& m) {
  return m.kind != MotorKind::TwoLead &&
         std::ranges::none_of(m.reached, [&](ChannelRef r) { return bench::chopperOf(s.bench, r) != nullptr; });
}

std::vector<Winding> measure(const SolvedBench& s) {
  std::vector<Winding> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.windings.empty()) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    const auto rth = w.thermal.typical();
    const auto r = w.resistance.typical();
    const auto* p = s.running(static_cast<int>(k), Corner::Full);
    if (!p) continue;
    double cold = 0;
    for (const int e : m.windings) cold += std::pow(p->element(m.device, e).value, 2) * r.value_or(0);
    std::optional<Settled> settled;
    if (rth && r) settled = onVoltage(s, m) ? byVoltage(cold, *rth, ambient(s.bench)) : byCurrent(cold, *rth, ambient(s.bench));
    const bool runaway = rth && r && !settled;
    std::optional<double> celsius;
    if (settled) celsius = settled->celsius;
    if (runaway) celsius = kRunsAway;
    out.push_back({heatMargin(s.bench, "winding", {idOf(s.bench, m.device)}, celsius,
                              {atMost(LimitKind::Absolute, Severity::Caution, w.hottest.typical(), "greatest", w.hottest.source)}, p),
                   &m, Watts{settled ? settled->watts : cold}, rth.value_or(0), runaway});
  }
  return out;
}

}  // namespace

// The winding's own heat, in motors whose thermal resistance is known.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Winding& m) {
    const Celsius t{*m.margin.value};
    const Celsius hottest{*m.margin.passed()->most};
    auto f =
        m.runaway
            ? finding(fmt::format("The winding of {} burns", called(s, *m.motor)),
                      fmt::format("{} turns {} into heat in its cold windings, more with every degree: it never settles; they stand {}.",
                                  called(s, *m.motor), show(m.heat), show(hottest)),
                      m.margin.subjects)
            : finding(fmt::format("The winding of {} reaches {}", called(s, *m.motor), show(t)),
                      fmt::format("{} turns {} into heat in its windings and reaches {} after a while; they stand {}.", called(s, *m.motor),
                                  show(m.heat), show(t), show(hottest)),
                      m.margin.subjects);
    if (const auto* chopper = m.motor->meant.device >= 0 ? bench::chopperOf(s.bench, m.motor->meant) : nullptr; chopper && !m.runaway)
      f.ways = {{fmt::format("Trim the stage of {} to {:.0f} % of its current.", called(s, *m.motor),
                             100 * std::sqrt(std::max(0.0, hottest.value - ambient(s.bench)) / std::max(t.value - ambient(s.bench), 1.0))),
                 figureOf(s.bench, m.motor->meant.device, "reference")}};
    else
      f.ways = {{fmt::format("Run {} for short times only, or with a lower voltage or load.", called(s, *m.motor))}};
    if (m.motor->intent && m.motor->intent->hold)
      f.ways.push_back({"Or let it go at rest, and state that it does not hold.", fieldOf(s, *m.motor, "hold")});
    f.formula = m.runaway ? fmt::format("0.0039 x {:.3g} K/W x {} > 1", m.rth, show(m.heat))
                          : fmt::format("{} + {} x {:.3g} K/W = {}", show(Celsius{ambient(s.bench)}), show(m.heat), m.rth, show(t));
    f.args = {{"power", m.heat}};
    if (!m.runaway) f.args.emplace("temperature", t);
    f.bar = barOf(m.margin, hottest.value, "greatest");
    const auto& w = bench::windingOf(s.bench, *m.motor, 0);
    f.sources = sourcesOf({&w.thermal, &w.hottest});
    return f;
  });
}

Check check() {
  return {"motor-heat", "heat", "A motor's winding gets too hot", Harm::Damage, judge};
}

}  // namespace bold::checks::motor_heat
