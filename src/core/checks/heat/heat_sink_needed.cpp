#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::heat_sink_needed {
namespace {

struct Bare {
  Margin margin;
  int device;
  const parts::Package* package;
  Extreme power;
  double bare, sink, limit;  // K/W, K/W, degC
};

std::vector<Bare> measure(const SolvedBench& s) {
  std::vector<Bare> out;
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
      if (!running.point) continue;
      const double limit = *hottest - kToSpare;
      out.push_back(
          {heatMargin(s.bench, "junction without a heat sink", {idOf(s.bench, device)}, ambient(s.bench) + running.value * *bare,
                      {atMost(LimitKind::Recommended, Severity::Caution, limit, "25 K to spare", package.hottest.source)}, running.point),
           device, &package, running, *bare, *sink, limit});
    }
  }
  return out;
}

}  // namespace

// A part that is too hot bare and would not be with the heat sink it can take.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Bare& m) {
    const Watts power{m.power.value};
    const double enough = (m.limit - ambient(s.bench)) / power.value;
    const bool helps = m.sink <= enough;
    const auto& name = called(s.bench, m.device);
    auto f = finding(fmt::format("{} needs a heat sink", name),
                     fmt::format("{} turns {} into heat; {:.0f} K/W or less keep it cool, bare it has {:.0f}{}.", name, show(power), enough,
                                 m.bare, helps ? fmt::format(", with a small heat sink {:.0f}", m.sink) : ". No small heat sink is enough"),
                     m.margin.subjects);
    f.formula = fmt::format("({} - {}) / {} = {:.3g} K/W", show(Celsius{m.limit}), show(Celsius{ambient(s.bench)}), show(power), enough);
    f.args = {{"power", power}};
    f.sources = sourcesOf({&m.package->thermal});
    if (helps) f.repair = RepairDraft(s.bench).setting(m.device, "heatSink", "fitted").repair(fmt::format("Fit a heat sink to {}.", name));
    return f;
  });
}

Check check() {
  return {"heat-sink-needed", "heat", "A heat sink is needed", Harm::Damage, judge};
}

}  // namespace bold::checks::heat_sink_needed
