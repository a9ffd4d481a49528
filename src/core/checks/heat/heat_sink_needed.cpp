#include <fmt/core.h>

#include "core/checks/heat/package_heat.h"
#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
// A part that is too hot bare and would not be with the heat sink it can take.
Findings heatSinkNeeded(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const int device = static_cast<int>(d);
    const auto& settings = s.bench.devices[d].settings;
    const auto it = settings.find("heatSink");
    if (it == settings.end() || it->second == "fitted") continue;
    for (const auto& package : s.bench.devices[d].part->packages) {
      const auto bare = package.thermal.typical();
      const auto sink = package.thermalSink.typical();
      const auto hottest = package.hottest.typical();
      if (!bare || !sink || !hottest) continue;
      const auto running = largest(s, steady, [&](const OperatingPoint& p) { return packagePower(s, p, device, package.id).value; });
      const double limit = *hottest - 25;
      const double t = ambient(s.bench) + running.value * *bare;
      if (!running.point || t <= limit) continue;
      const double enough = (limit - ambient(s.bench)) / running.value;
      const bool helps = *sink <= enough;
      auto f = finding(Severity::Caution, fmt::format("{} needs a heat sink", called(s.bench, device)),
                       fmt::format("{} turns {} into heat; {:.0f} K/W or less keep it cool, bare it has {:.0f}{}.", called(s.bench, device),
                                   show(Watts{running.value}), enough, *bare,
                                   helps ? fmt::format(", with a small heat sink {:.0f}", *sink) : ". No small heat sink is enough"),
                       {idOf(s.bench, device)});
      f.formula = fmt::format("({} - {}) / {} = {:.3g} K/W", show(Celsius{limit}), show(Celsius{ambient(s.bench)}),
                              show(Watts{running.value}), enough);
      f.args = {{"power", Watts{running.value}}};
      f.sources = sourcesOf({&package.thermal});
      if (helps)
        f.repair =
            Plan(s.bench).setting(device, "heatSink", "fitted").repair(fmt::format("Fit a heat sink to {}.", called(s.bench, device)));
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
