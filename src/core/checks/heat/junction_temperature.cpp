#include <fmt/core.h>

#include <algorithm>

#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kMargin = 25;         // K below the limit at which it becomes a caution
constexpr double kFar = 150;           // K above the limit from which a figure says less than "destroyed"
constexpr double kWorthAsking = 0.25;  // W below which an unknown thermal resistance is of no interest

bool holdsRegulator(const parts::Part& part, const std::string& package) {
  return std::ranges::any_of(
      part.elements, [&](const parts::Element& e) { return e.package == package && std::holds_alternative<parts::Regulator>(e.body); });
}
}  // namespace

// The junction of every package with everything running, at the expected and at the hot corner.
Findings junctionTemperature(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const int device = static_cast<int>(d);
    const auto& part = *s.bench.devices[d].part;
    for (const auto& package : part.packages) {
      if (holdsRegulator(part, package.id)) continue;  // regulator-heat
      const auto running = largest(s, steady, [&](const OperatingPoint& p) { return packagePower(s, p, device, package.id).value; });
      const auto worst = largest(
          s,
          [](const OperatingPoint& p) {
            return p.solved() && p.command().supply < 0 && p.command().moment == Moment::Running && p.command().action != Action::Boot;
          },
          [&](const OperatingPoint& p) { return packagePower(s, p, device, package.id).value; });
      if (!running.point || running.value < kWorthAsking) continue;
      const auto rth = thermalOf(s.bench, device, package, false);
      const auto hottest = package.hottest.typical();
      if (!rth || !hottest) continue;  // unknown: told as one of the part's unknown figures
      const double usual = ambient(s.bench) + running.value * *rth;
      const double hot = hotAmbient(s.bench) + worst.value * thermalOf(s.bench, device, package, true).value_or(*rth);
      const bool stop = usual > *hottest;
      if (!stop && usual <= *hottest - kMargin && hot <= *hottest) continue;
      const bool expectedCorner = stop || usual > *hottest - kMargin;
      const Celsius shown{expectedCorner ? usual : hot};
      const Watts power{expectedCorner ? running.value : worst.value};
      const double k = expectedCorner ? *rth : thermalOf(s.bench, device, package, true).value_or(*rth);
      const double air = expectedCorner ? ambient(s.bench) : hotAmbient(s.bench);
      // Long before a straight line reaches such a temperature the part has failed.
      const bool far = shown.value > *hottest + kFar;
      auto f = finding(
          stop ? Severity::Stop : Severity::Caution,
          far ? fmt::format("{} burns", called(s.bench, device)) : fmt::format("{} reaches {}", called(s.bench, device), show(shown)),
          fmt::format("With {} {} turns {} into heat: {} at {} of air{}; it stands {}.", during(*(expectedCorner ? running : worst).point),
                      called(s.bench, device), show(power), far ? fmt::format("more than {}", show(Celsius{*hottest + kFar})) : show(shown),
                      show(Celsius{air}), expectedCorner ? "" : " in the worst case", show(Celsius{*hottest})),
          {idOf(s.bench, device)});
      f.formula = fmt::format("{} + {} x {:.3g} K/W {}", show(Celsius{air}), show(power), k,
                              far ? "> " + show(Celsius{*hottest + kFar}) : "= " + show(shown));
      f.args = {{"temperature", shown}, {"power", power}, {"limit", Celsius{*hottest}}};
      f.bar = Bar{"junction", far ? Celsius{*hottest + kFar} : shown, AnyQuantity(Celsius{air}), Celsius{*hottest}, "greatest"};
      f.sources = sourcesOf({&package.thermal, &package.hottest});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
