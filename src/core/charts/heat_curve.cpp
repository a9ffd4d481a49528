#include "core/charts/heat_curve.h"

#include <fmt/core.h>

#include <cmath>

#include "core/checks/heat/package_heat.h"

namespace bold::charts {
namespace {
constexpr int kHeatSteps = 200;
}

std::optional<double> reaches(const Series& s, double y) {
  for (std::size_t k = 0; k < s.x.size(); ++k)
    if (s.y[k] >= y) return s.x[k];
  return std::nullopt;
}

std::optional<Curve> heatCurve(const bench::SolvedBench& s, int motor) {
  const auto& m = s.motors[motor];
  const auto* run = s.running(motor, bench::Corner::Full);
  const auto* stalled = s.point(motor, bench::Action::Forward, bench::Moment::Stalled, bench::Corner::Full);
  if (!run || !stalled) return std::nullopt;
  for (const auto& ref : m.reached) {
    const auto& part = *s.bench.devices[ref.device].part;
    for (const auto& package : part.packages) {
      const auto rth = checks::thermalOf(s.bench, ref.device, package, false);
      const auto tau = package.settles.typical();
      const auto hottest = package.hottest.typical();
      const double hot = checks::packagePower(s, *stalled, ref.device, package.id).value;
      if (!rth || !tau || !hottest || hot < 1e-3) continue;
      const double warm = checks::packagePower(s, *run, ref.device, package.id).value;
      const double air = checks::ambient(s.bench);
      Curve c;
      c.yUnit = Unit::Celsius;
      c.title = fmt::format("{} with {} stalled", bench::called(s.bench, ref.device), bench::called(s, m));
      Series line;
      line.name = fmt::format("{} stalled, {} running", displayText(Watts{hot}), displayText(Watts{warm}));
      const double from = air + warm * *rth;
      const double to = air + hot * *rth;
      for (int k = 0; k <= kHeatSteps; ++k) {
        const double t = 3 * *tau * k / kHeatSteps;
        line.x.push_back(t);
        line.y.push_back(to + (from - to) * std::exp(-t / *tau));
      }
      c.limits.push_back({"junction, greatest", *hottest});
      const auto when = reaches(line, *hottest);
      c.note = when ? fmt::format("reaches {} after {} held", displayText(Celsius{*hottest}), displayText(Seconds{*when}))
                    : fmt::format("stays below {} however long it is held", displayText(Celsius{*hottest}));
      c.series.push_back(std::move(line));
      return c;
    }
  }
  return std::nullopt;
}

}  // namespace bold::charts
