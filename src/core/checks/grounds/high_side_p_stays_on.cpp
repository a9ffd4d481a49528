#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::high_side_p_stays_on {
namespace {

constexpr double kOpens = 1;       // V between source and gate from which a P-channel MOSFET leaks on, where its threshold is unknown
constexpr double kJunction = 0.5;  // V between emitter and base from which a PNP transistor leaks on

}  // namespace
// A PNP or P-channel transistor on a supply above its pin's high level: it never turns off.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* off = s.point(Action::AllOff, Corner::Nominal);
  if (!off) return out;
  const auto judge = [&](int d, TerminalIndex top, TerminalIndex control, double opens) {
    if (top < 0 || control < 0) return;
    const auto pin = drivenBy(s, control);
    if (pin < 0) return;
    const auto group = pinGroup(s.bench, pin);
    const auto supply = off->across(top, group->ground);
    const auto rail = off->across(group->rail, group->ground);
    const auto still = off->across(top, control);
    if (!supply || !rail || !still || supply->value < rail->value + 0.5 || still->value < opens) return;
    auto f = finding(Severity::Stop, fmt::format("{} never turns off", called(s.bench, d)),
                     fmt::format("{} stands at {}; {} gives {} at most, so {} is left between its control and its supply and it stays on. "
                                 "The pin is pulled up to that supply as well.",
                                 s.bench.called(top), show(*supply), s.bench.called(pin), show(*rail), show(*still)),
                     {s.bench.address(control), s.bench.address(pin)});
    f.ways = {{fmt::format("Drive {} by a small N-type transistor and a pull-up to {} instead of by {} itself.", called(s.bench, d),
                           s.bench.called(top), s.bench.called(pin))}};
    f.formula = fmt::format("{} - {} = {} > {}", show(*supply), show(*supply - *still), show(*still), show(Volts{opens}));
    f.args = {{"supply", *supply}, {"left", *still}};
    out.push_back(std::move(f));
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    if (t.pChannel) judge(d, at(s.bench, d, t.source), at(s.bench, d, t.gate), t.threshold.least().value_or(kOpens));
  });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    if (t.pnp) judge(d, at(s.bench, d, t.emitter), at(s.bench, d, t.base), kJunction);
  });
  return out;
}

Check check() {
  return {"high-side-p-stays-on", "grounds", "A P-type transistor that never turns off", Harm::Danger, judge};
}

}  // namespace bold::checks::high_side_p_stays_on
