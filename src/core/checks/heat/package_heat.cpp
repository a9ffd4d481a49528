#include "core/checks/heat/package_heat.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kShareToSpare = 0.27;  // of what it may be above the room: 25 K of a junction's 95
}

Watts packagePower(const SolvedBench& s, const OperatingPoint& p, int device, const std::string& package) {
  Watts sum{0};
  const auto& d = s.bench.devices[device];
  for (std::size_t e = 0; e < d.part->elements.size(); ++e)
    if (d.part->elements[e].package == package && d.has(d.part->elements[e])) sum = sum + p.power(device, static_cast<int>(e));
  return sum;
}

std::optional<double> thermalOf(const Bench& bench, int device, const parts::Package& package, bool worst) {
  const auto& settings = bench.devices[device].settings;
  const auto it = settings.find("heatSink");
  const auto& f = it != settings.end() && it->second == "fitted" && package.thermalSink.known() ? package.thermalSink : package.thermal;
  return worst ? f.greatest() : f.typical();
}

double ambient(const Bench& bench) {
  return bench.ambient ? bench.ambient->value : 30;
}
Margin heatMargin(const Bench& bench, std::string quantity, std::vector<std::string> subjects, std::optional<double> celsius,
                  std::vector<Limit> limits, const OperatingPoint* at) {
  Margin m{.quantity = std::move(quantity),
           .subjects = std::move(subjects),
           .unit = Unit::Celsius,
           .value = celsius,
           .limits = std::move(limits),
           .from = ambient(bench),
           .at = at};
  if (!bench.ambient) m.assumed = {"ambient 30 °C"};
  return m;
}

std::vector<Limit> heatLimits(const parts::Package& package) {
  const auto hottest = package.hottest.typical();
  const auto& source = package.hottest.source;
  // A case that stands 70 degC keeps less to spare than a junction that stands 150.
  std::optional<double> spared;
  if (hottest) spared = *hottest - std::min(kToSpare, kShareToSpare * (*hottest - 30));
  return {atMost(LimitKind::Recommended, Severity::Caution, spared, "to spare", source),
          atMost(LimitKind::Absolute, Severity::Stop, hottest, "greatest", source)};
}

double hotAmbient(const Bench& bench) {
  return std::max(40.0, ambient(bench) + 10);
}

}  // namespace bold::checks
