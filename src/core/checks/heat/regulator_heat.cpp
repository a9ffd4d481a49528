#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks::regulator_heat {
namespace {

constexpr double kWorthAsking = 0.25;  // W below which it only gets warm

struct Heated {
  Margin margin;
  int device;
  const parts::Package* package;
  Extreme power;
  double rth, hottest;
};

std::vector<Heated> measure(const SolvedBench& s) {
  std::vector<Heated> out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    const auto& device = s.bench.devices[d];
    const auto* package = device.part->package(device.part->elements[e].package);
    if (r.switching || !package) return;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return p.power(d, e).value; });
    if (!worst.point || worst.value < kWorthAsking) return;
    const auto rth = thermalOf(s.bench, d, *package, false);
    const auto hottest = package->hottest.typical();
    const auto o = at(s.bench, d, r.out);
    out.push_back({heatMargin(s.bench, "regulator", {s.bench.address(o >= 0 ? o : device.first)},
                              rth ? std::optional(ambient(s.bench) + worst.value * *rth) : std::nullopt, heatLimits(*package), worst.point),
                   d, package, worst, rth.value_or(0), hottest.value_or(0)});
  });
  return out;
}

}  // namespace

// A linear regulator: the volts it takes away times what it gives.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Heated& m) {
    const Celsius t{*m.margin.value};
    const Watts power{m.power.value};
    const double enough = (m.hottest - kToSpare - ambient(s.bench)) / power.value;
    const auto& name = called(s.bench, m.device);
    auto f = finding(
        fmt::format("The regulator of {} reaches {}", name, show(t)),
        fmt::format("With {} the regulator of {} turns {} into heat and reaches {}; it stands {}. It would need {:.0f} K/W or less.",
                    during(*m.power.point), name, show(power), show(t), show(Celsius{m.hottest}), enough),
        m.margin.subjects);
    f.ways = {{fmt::format("Feed {} from a lower voltage, or what hangs on it from another supply; or a heat sink of {:.0f} K/W or less.",
                           name, enough)}};
    f.formula = fmt::format("{} + {} x {:.3g} K/W = {}", show(Celsius{ambient(s.bench)}), show(power), m.rth, show(t));
    f.args = {{"temperature", t}, {"power", power}};
    f.bar = barOf(m.margin, m.hottest, "greatest");
    f.sources = sourcesOf({&m.package->thermal});
    return f;
  });
}

Check check() {
  return {"regulator-heat", "heat", "A regulator gets too hot", Harm::Damage, judge};
}

}  // namespace bold::checks::regulator_heat
