#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::resistor_power {
namespace {

constexpr double kBurns = 2;          // times its rating
constexpr double kOfInterest = 1e-3;  // W: less warms nothing

struct Heated {
  Margin margin;
  int device;
  const parts::Resistor* resistor;
  Extreme power;
};

std::vector<Heated> measure(const SolvedBench& s) {
  std::vector<Heated> out;
  eachElement<parts::Resistor>(s.bench, [&](int d, int e, const parts::Resistor& r) {
    const auto rating = r.power.typical();
    if (!rating || r.conductor) return;
    const auto most = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.power(d, e).value); });
    if (most.value < kOfInterest) return;
    out.push_back({{.quantity = "power in a resistor",
                    .subjects = {idOf(s.bench, d)},
                    .unit = Unit::Watt,
                    .value = most.known(),
                    .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, *rating, "rating", r.power.source),
                                     atMost(LimitKind::Absolute, Severity::Stop, kBurns * *rating, "2 x rating", r.power.source)),
                    .at = most.point},
                   d,
                   &r,
                   most});
  });
  return out;
}

}  // namespace

// What a loose resistor turns into heat for long, against what its size stands.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Heated& m) {
    const Watts power{m.power.value};
    const Watts rating{*m.resistor->power.typical()};
    const auto& name = called(s.bench, m.device);
    auto f =
        finding(fmt::format("{} turns {} into heat", name, show(power)),
                fmt::format("With {} {} turns {} into heat; it is made for {}{}.", during(*m.power.point), name, show(power), show(rating),
                            m.margin.stops() ? ": it chars and may set light to what it lies on" : ": it gets too hot to touch"),
                m.margin.subjects);
    f.ways = {{fmt::format("Take a resistor for {} or more, or a larger value.", show(power)), figureOf(s.bench, m.device, "power"),
               fmt::format("{:.4g} W", 1.01 * power.value)}};
    f.formula = fmt::format("{} > {}{}", show(power), m.margin.stops() ? "2 x " : "", show(rating));
    f.args = {{"power", power}, {"limit", rating}};
    f.bar = barOf(m.margin, rating.value, "rating");
    f.sources = sourcesOf({&m.resistor->power});
    return f;
  });
}

Check check() {
  return {"resistor-power", "heat", "A resistor that gets too hot", Harm::Damage, judge};
}

}  // namespace bold::checks::resistor_power
