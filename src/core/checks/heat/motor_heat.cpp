#include <fmt/core.h>

#include <cmath>

#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kHotCopper = 1.3;  // copper 75 K above room temperature

struct Winding {
  Margin margin;
  const Motor* motor;
  Watts heat;
  double rth;  // K/W
};

std::vector<Winding> measure(const SolvedBench& s) {
  std::vector<Winding> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.windings.empty()) continue;
    const auto& w = circuit::windingOf(s.bench, m, 0);
    const auto rth = w.thermal.typical();
    const auto r = w.resistance.typical();
    const auto* p = s.running(static_cast<int>(k), Charge::Full);
    if (!p) continue;
    double watts = 0;
    for (const int e : m.windings) watts += std::pow(p->element(m.device, e).value, 2) * r.value_or(0) * kHotCopper;
    const Margin margin =
        heatMargin(s.bench, "winding", {idOf(s.bench, m.device)}, rth && r ? std::optional(ambient(s.bench) + watts * *rth) : std::nullopt,
                   {atMost(LimitKind::Absolute, Severity::Caution, w.hottest.typical(), "greatest", w.hottest.source)}, p);
    out.push_back({margin, &m, Watts{watts}, rth.value_or(0)});
  }
  return out;
}

}  // namespace

// The winding's own heat, in motors whose thermal resistance is known.
Said motorHeat(const SolvedBench& s) {
  return say(measure(s), [&](const Winding& m) {
    const Celsius t{*m.margin.value};
    const Celsius hottest{*m.margin.passed()->most};
    auto f = finding(fmt::format("The winding of {} reaches {}", called(s, *m.motor), show(t)),
                     fmt::format("{} turns {} into heat in its windings and reaches {} after a while; they stand {}.", called(s, *m.motor),
                                 show(m.heat), show(t), show(hottest)),
                     m.margin.subjects);
    f.formula = fmt::format("{} + {} x {:.3g} K/W = {}", show(Celsius{ambient(s.bench)}), show(m.heat), m.rth, show(t));
    f.args = {{"temperature", t}, {"power", m.heat}};
    f.bar = barOf(m.margin, hottest.value, "greatest");
    const auto& w = circuit::windingOf(s.bench, *m.motor, 0);
    f.sources = sourcesOf({&w.thermal, &w.hottest});
    return f;
  });
}

}  // namespace bold::checks
