#include <fmt/core.h>

#include <cmath>

#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kHotCopper = 1.3;  // copper 75 K above room temperature
}

// The winding's own heat, in motors whose thermal resistance is known.
Findings motorHeat(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.windings.empty()) continue;
    const auto& w = circuit::windingOf(s.bench, m, 0);
    const auto rth = w.thermal.typical();
    const auto hottest = w.hottest.typical();
    const auto r = w.resistance.typical();
    const auto* p = s.running(static_cast<int>(k), Charge::Full);
    if (!rth || !hottest || !r || !p) continue;
    double watts = 0;
    for (const int e : m.windings) watts += std::pow(p->element(m.device, e).value, 2) * *r * kHotCopper;
    const double t = ambient(s.bench) + watts * *rth;
    if (t <= *hottest) continue;
    auto f = finding(Severity::Caution, fmt::format("The winding of {} reaches {}", called(s, m), show(Celsius{t})),
                     fmt::format("{} turns {} into heat in its windings and reaches {} after a while; they stand {}.", called(s, m),
                                 show(Watts{watts}), show(Celsius{t}), show(Celsius{*hottest})),
                     {idOf(s.bench, m.device)});
    f.formula = fmt::format("{} + {} x {:.3g} K/W = {}", show(Celsius{ambient(s.bench)}), show(Watts{watts}), *rth, show(Celsius{t}));
    f.args = {{"temperature", Celsius{t}}, {"power", Watts{watts}}};
    f.bar = Bar{"winding", Celsius{t}, {}, Celsius{*hottest}, "greatest"};
    f.sources = sourcesOf({&w.thermal, &w.hottest});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
