#include <fmt/core.h>

#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks {
// A linear regulator: the volts it takes away times what it gives.
Findings regulatorHeat(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    const auto& element = s.bench.devices[static_cast<std::size_t>(d)].part->elements[static_cast<std::size_t>(e)];
    const auto* package = s.bench.devices[static_cast<std::size_t>(d)].part->package(element.package);
    if (r.switching || !package) return;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return p.power(d, e).value; });
    const auto rth = thermalOf(s.bench, d, *package, false);
    const auto hottest = package->hottest.typical();
    if (!worst.point || !rth || !hottest || worst.value < 0.25) return;
    const double t = ambient(s.bench) + worst.value * *rth;
    if (t <= *hottest - 25) return;
    const bool stop = t > *hottest;
    const double enough = (*hottest - 25 - ambient(s.bench)) / worst.value;
    auto f = finding(
        stop ? Severity::Stop : Severity::Caution, fmt::format("The regulator of {} reaches {}", called(s.bench, d), show(Celsius{t})),
        fmt::format("With {} the regulator of {} turns {} into heat and reaches {}; it stands {}. It would need {:.0f} K/W or less.",
                    during(*worst.point), called(s.bench, d), show(Watts{worst.value}), show(Celsius{t}), show(Celsius{*hottest}), enough),
        {s.bench.address(at(s.bench, d, r.out) >= 0 ? at(s.bench, d, r.out) : s.bench.devices[static_cast<std::size_t>(d)].first)});
    f.formula = fmt::format("{} + {} x {:.3g} K/W = {}", show(Celsius{ambient(s.bench)}), show(Watts{worst.value}), *rth, show(Celsius{t}));
    f.args = {{"temperature", Celsius{t}}, {"power", Watts{worst.value}}};
    f.bar = Bar{"regulator", Celsius{t}, {}, Celsius{*hottest}, "greatest"};
    f.sources = sourcesOf({&package->thermal});
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
