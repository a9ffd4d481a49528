#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kTolerance = 1.0501;  // of adapters
}  // namespace

// A stage's supply terminal, or the open switch of a loose transistor, against full charge without load.
Findings motorSupplyTooHigh(const SolvedBench& s) {
  Findings out;
  const auto* off = s.point(Action::AllOff, Charge::Full);
  if (!off) return out;
  const auto judge = [&](Volts v, const Figure& recommended, const Figure& absolute, const std::string& what,
                         std::vector<std::string> subjects) {
    const bool over = absolute.greatest() && v.value > *absolute.greatest();
    // Where the absolute maximum is far away, what is printed names a class of supplies, and their tolerance is meant too.
    const bool classOnly = absolute.greatest() && recommended.max && *recommended.max * kTolerance < 0.8 * *absolute.greatest();
    const bool high = !over && recommended.max && v.value > *recommended.max * (classOnly ? kTolerance : 1);
    if (!over && !high) return;
    const AnyQuantity limit{over ? *absolute.greatest() : *recommended.max, Unit::Volt};
    auto f = finding(over ? Severity::Stop : Severity::Caution, fmt::format("{} gets {}", what, show(v)),
                     fmt::format("{} gets {} from a full supply; {} is {}.", what, show(v),
                                 over ? "its absolute maximum" : "the most it is meant for", show(limit)),
                     std::move(subjects));
    f.formula = fmt::format("{} > {}", show(v), show(limit));
    f.args = {{"voltage", v}, {"limit", limit}};
    f.bar = Bar{"supply", v, {}, limit, over ? "absolute maximum" : "recommended"};
    f.sources = sourcesOf({&recommended, &absolute});
    out.push_back(std::move(f));
  };
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply || supply->purpose == "logic" || isServo(s, s.bench.deviceOf(t))) continue;  // servo-supply speaks of those
    if (const auto v = off->across(t, s.bench.terminal(s.bench.deviceOf(t), supply->back)))
      judge(*v, supply->recommended, supply->absolute, s.bench.called(t), {s.bench.address(t)});
  }
  const Figure none;
  const auto transistor = [&](int d, const parts::Node& top, const parts::Node& bottom, const Figure& most) {
    if (top.starts_with('~') || bottom.starts_with('~')) return;
    const auto v = off->across(s.bench.terminal(d, top), s.bench.terminal(d, bottom));
    if (v) judge(Volts{std::abs(v->value)}, none, most, called(s.bench, d), {s.bench.address(s.bench.terminal(d, top))});
  };
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& b) { transistor(d, b.collector, b.emitter, b.vce); });
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& m) { transistor(d, m.drain, m.source, m.vds); });
  return out;
}

}  // namespace bold::checks
