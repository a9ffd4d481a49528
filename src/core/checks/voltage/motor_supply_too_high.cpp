#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_supply_too_high {
namespace {

constexpr double kTolerance = 1.0501;  // of adapters

struct Supply {
  Margin margin;
  std::string what;
  const Figure *recommended, *absolute;
};

Supply supplyOf(const SolvedBench& s, TerminalIndex t, std::string what, Volts v, const Figure& recommended, const Figure& absolute,
                const OperatingPoint& at) {
  // Where the absolute maximum is far away, what is printed names a class of supplies, and their tolerance is meant too.
  const bool classOnly = absolute.greatest() && recommended.max && *recommended.max * kTolerance < 0.8 * *absolute.greatest();
  Margin m{.quantity = "supply", .subjects = {s.bench.address(t)}, .unit = Unit::Volt, .value = v.value, .at = &at};
  if (recommended.max)
    m.limits.push_back(atMost(LimitKind::Recommended, Severity::Caution, *recommended.max * (classOnly ? kTolerance : 1), "recommended",
                              recommended.source));
  m.limits.push_back(atMost(LimitKind::Absolute, Severity::Stop, absolute.greatest(), "absolute maximum", absolute.source));
  return {std::move(m), std::move(what), &recommended, &absolute};
}

const Figure kNone;

// A stage's supply terminal, or the open switch of a loose transistor.
std::vector<Supply> measure(const SolvedBench& s) {
  std::vector<Supply> out;
  const auto* off = s.point(Action::AllOff, Corner::Full);
  if (!off) return out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply || supply->purpose == parts::SupplyFor::Logic || isServo(s, s.bench.deviceOf(t))) continue;  // servo-supply speaks of those
    if (const auto v = off->across(t, s.bench.terminal(s.bench.deviceOf(t), supply->back)))
      out.push_back(supplyOf(s, t, s.bench.called(t), *v, supply->recommended, supply->absolute, *off));
  }
  const auto transistor = [&](int d, const parts::Node& top, const parts::Node& bottom, const Figure& most) {
    if (top.starts_with('~') || bottom.starts_with('~')) return;
    const auto t = s.bench.terminal(d, top);
    if (const auto v = off->across(t, s.bench.terminal(d, bottom)))
      out.push_back(supplyOf(s, t, called(s.bench, d), Volts{std::abs(v->value)}, kNone, most, *off));
  };
  eachElement<parts::Phototransistor>(s.bench,
                                      [&](int d, int, const parts::Phototransistor& t) { transistor(d, t.collector, t.emitter, t.vce); });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& b) { transistor(d, b.collector, b.emitter, b.vce); });
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& m) { transistor(d, m.drain, m.source, m.vds); });
  return out;
}

}  // namespace

// Full charge without load.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Supply& m) {
    const bool over = m.margin.stops();
    const Volts v{*m.margin.value};
    const Volts limit{over ? *m.absolute->greatest() : *m.recommended->max};
    auto f = finding(fmt::format("{} gets {}", m.what, show(v)),
                     fmt::format("{} gets {} from a full supply; {} is {}.", m.what, show(v),
                                 over ? "its absolute maximum" : "the most it is meant for", show(limit)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Feed it with {} at most when the supply is full.", show(limit))}};
    f.formula = against(v, ">", limit);
    f.args = {{"voltage", v}, {"limit", limit}};
    f.bar = barOf(m.margin, limit.value, over ? "absolute maximum" : "recommended");
    f.sources = sourcesOf({m.recommended, m.absolute});
    return f;
  });
}

Check check() {
  return {"motor-supply-too-high", "voltage", "Motor supply too high for the stage", Harm::Damage, judge};
}

}  // namespace bold::checks::motor_supply_too_high
