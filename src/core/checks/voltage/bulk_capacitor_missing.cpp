#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/checks/plan.h"
#include "core/checks/queries.h"
#include "core/checks/voltage/near_capacitor.h"

namespace bold::checks {
namespace {
constexpr std::array kRated{Volts{35}, Volts{50}, Volts{63}};  // of electrolytics; live plugging rings to twice the supply
constexpr double kMargin = 1.2;
}  // namespace

// A stage that asks for a capacitor close to its motor supply and has none.
Findings bulkCapacitorMissing(const SolvedBench& s) {
  Findings out;
  for (const auto& input : supplyInputs(s.bench, "motor")) {
    const auto asked = input.facts->bulk.typical();
    if (!asked || !inUse(s, input)) continue;
    const auto has = nearCapacitance(s, input).electrolytic;
    if (has.value >= 0.45 * *asked) continue;  // capacitors are made with wide tolerance
    auto f = finding(Severity::Caution, fmt::format("{} has no capacitor near it", s.bench.called(input.positive)),
                     fmt::format("{} asks for {} within {} of wire and has {}: its chopped current pulls the supply about.",
                                 called(s.bench, s.bench.deviceOf(input.positive)), show(Farads{*asked}), show(kNear),
                                 has.value > 0 ? show(has) : "none"),
                     {s.bench.address(input.positive)});
    f.formula = fmt::format("{} < {}", show(has), show(Farads{*asked}));
    f.args = {{"capacitance", has}, {"asked", Farads{*asked}}};
    f.sources = sourcesOf({&input.facts->bulk});
    const auto* p = s.point(Action::AllOff, Charge::Full);
    const auto v = p ? p->across(input.positive, input.negative) : std::nullopt;
    const auto rated = v ? std::ranges::find_if(kRated, [&](Volts r) { return v->value * kMargin < r.value; }) : kRated.end();
    if (rated != kRated.end() && !returnAstray(s, s.bench.deviceOf(input.positive))) {
      Plan plan(s.bench);
      const auto size = show(Farads{*asked});
      const auto id = plan.device("capacitor-electrolytic", "c", {}, {{"capacitance", size}, {"rated", show(*rated)}});
      plan.wire({id, "P"}, addressOf(s.bench, input.positive), "RD", 22, Metres{0.05})
          .wire({id, "N"}, addressOf(s.bench, input.negative), "BK", 22, Metres{0.05});
      f.repair = plan.repair(fmt::format("Fit {} {} at {}, + to it and - to {}, with leads of 5 cm.", size, show(*rated),
                                         s.bench.called(input.positive), s.bench.facts(input.negative).label));
    }
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
