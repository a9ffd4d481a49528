#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/heat/package_heat.h"
#include "core/checks/queries.h"

namespace bold::checks::junction_temperature {
namespace {

constexpr double kFar = 150;           // K above the limit from which a figure says less than "destroyed"
constexpr double kWorthAsking = 0.25;  // W below which an unknown thermal resistance is of no interest

bool holdsRegulator(const parts::Part& part, const std::string& package) {
  return std::ranges::any_of(
      part.elements, [&](const parts::Element& e) { return e.package == package && std::holds_alternative<parts::Regulator>(e.body); });
}

// One corner: what is turned into heat, into which air.
struct Heat {
  Extreme power;
  double air, rth;  // degC, K/W
};

struct Junction {
  Margins margins;  // expected, worst case
  int device;
  const parts::Package* package;
  double hottest;
  Heat expected, worst;
  std::optional<Severity> besides{};  // nobody knows how hot it gets
};

std::optional<Junction> measure(const SolvedBench& s, int device, const parts::Package& package) {
  const auto power = [&](const OperatingPoint& p) { return packagePower(s, p, device, package.id).value; };
  const auto expected = largest(s, steady, power);
  if (!expected.point || expected.value < kWorthAsking) return std::nullopt;
  const auto worst = largest(
      s,
      [](const OperatingPoint& p) {
        const auto action = p.command().action;
        return p.solved() && p.command().supply < 0 && p.command().moment == Moment::Running && action != Action::Boot && !brief(action);
      },
      power);
  const auto rth = thermalOf(s.bench, device, package, false);
  const auto hottest = package.hottest.typical();
  const double k = rth.value_or(0);
  Junction j{{},
             device,
             &package,
             hottest.value_or(0),
             {expected, ambient(s.bench), k},
             {worst, hotAmbient(s.bench), thermalOf(s.bench, device, package, true).value_or(k)}};
  if (!rth) j.besides = Severity::Caution;
  const auto degrees = [&](const Heat& h) { return rth ? std::optional(h.air + h.power.value * h.rth) : std::nullopt; };
  const std::vector subjects{idOf(s.bench, device)};
  j.margins = {heatMargin(s.bench, "junction", subjects, degrees(j.expected), heatLimits(package), expected.point),
               heatMargin(s.bench, "junction in the worst case", subjects, degrees(j.worst),
                          {atMost(LimitKind::Absolute, Severity::Caution, hottest, "greatest", package.hottest.source)}, worst.point)};
  j.margins[1].from = j.worst.air;
  j.margins[1].assumed = {fmt::format("ambient {}", show(Celsius{j.worst.air}))};
  return j;
}

std::vector<Junction> measure(const SolvedBench& s) {
  std::vector<Junction> out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d)
    for (const auto& package : s.bench.devices[d].part->packages)
      if (!holdsRegulator(*s.bench.devices[d].part, package.id))  // regulator-heat
        if (auto j = measure(s, static_cast<int>(d), package)) out.push_back(std::move(*j));
  return out;
}

Finding unknown(const SolvedBench& s, const Junction& j) {
  const auto& name = called(s.bench, j.device);
  const Watts power{j.expected.power.value};
  auto f =
      finding(fmt::format("Nobody knows how hot {} gets", name),
              fmt::format("With {} {} turns {} into heat, and its thermal resistance is not known: feel it after a minute, or enter the "
                          "figure.",
                          during(*j.expected.power.point), name, show(power)),
              {idOf(s.bench, j.device)});
  f.ways = {{fmt::format("Feel {} after a minute, or take one whose thermal resistance is known.", name)}};
  f.formula = fmt::format("{} > {}, K/W unknown", show(power), show(Watts{kWorthAsking}));
  f.args = {{"power", power}};
  return f;
}

}  // namespace

// The junction of every package with everything running, at the expected and at the hot corner.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Junction& j) {
    if (j.besides) return unknown(s, j);
    const bool expected = j.margins[0].passed();
    const auto& heat = expected ? j.expected : j.worst;
    const auto& margin = j.margins[expected ? 0 : 1];
    const Celsius shown{*margin.value};
    const Celsius hottest{j.hottest};
    const Celsius farther{j.hottest + kFar};
    const Watts power{heat.power.value};
    // Long before a straight line reaches such a temperature the part has failed.
    const bool far = shown > farther;
    const auto& name = called(s.bench, j.device);
    auto f = finding(far ? fmt::format("{} burns", name) : fmt::format("{} reaches {}", name, show(shown)),
                     fmt::format("With {} {} turns {} into heat: {} at {} of air{}; it stands {}.", during(*heat.power.point), name,
                                 show(power), far ? fmt::format("more than {}", show(farther)) : show(shown), show(Celsius{heat.air}),
                                 expected ? "" : " in the worst case", show(hottest)),
                     margin.subjects);
    f.ways = {{fmt::format("It would need {:.0f} K/W or less to the air, or a stage that loses less than {}.",
                           std::max(0.0, (hottest.value - heat.air) / std::max(power.value, 1e-3)), show(power))}};
    if (s.bench.devices[j.device].part->setting("heatSink"))
      f.ways.push_back({"If a heat sink is fitted, say so.", settingOf(s.bench, j.device, "heatSink")});
    f.formula = fmt::format("{} + {} x {:.3g} K/W {}", show(Celsius{heat.air}), show(power), heat.rth,
                            far ? "> " + show(farther) : "= " + show(shown));
    f.args = {{"temperature", shown}, {"power", power}, {"limit", hottest}};
    f.bar = Bar{"junction", far ? farther : shown, AnyQuantity(Celsius{heat.air}), hottest, "greatest"};
    f.sources = sourcesOf({&j.package->thermal, &j.package->hottest});
    return f;
  });
}

Check check() {
  return {"junction-temperature", "heat", "Too hot inside", Harm::Damage, judge};
}

}  // namespace bold::checks::junction_temperature
