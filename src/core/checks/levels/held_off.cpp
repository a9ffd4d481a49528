#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::held_off {
namespace {

constexpr Ohms kHolds{2e3};  // less than any pull resistor of a board
constexpr double kShare = 0.3;

// The level that a terminal is held at by the wires; nothing: it is open, or a pin may change it.
std::optional<bool> heldHigh(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t, TerminalIndex ground) {
  if (drivenBy(s, t) >= 0) return std::nullopt;
  const auto ohms = p.resistance(t, ground);
  const auto volts = p.across(t, ground);
  if (!ohms || !volts || *ohms > kHolds) return std::nullopt;
  return volts->value > kShare;
}

}  // namespace

// A reset, an enable or a run input that the wires hold where the board never runs.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& limit = s.bench.facts(t).limit;
    if (!limit || !s.bench.connected(t) || (limit->low.empty() && limit->high.empty())) continue;
    const int d = s.bench.deviceOf(t);
    const auto ground = s.bench.terminal(d, limit->ground);
    const auto high = heldHigh(s, *p, t, ground);
    if (!high) continue;
    const auto& then = *high ? limit->high : limit->low;
    if (then.empty()) continue;
    const auto& name = called(s.bench, d);
    const auto at = s.bench.called(t);
    auto f = finding(Severity::Stop, fmt::format("{} is held {}", at, *high ? "high" : "low"),
                     fmt::format("The wires hold {} {}: {} {}.", at, *high ? "high" : "low", name, then), {s.bench.address(t)});
    f.ways = {{fmt::format("Take the wire off {}, or lead it over a button.", at)}};
    f.formula = fmt::format("{} at {}", at, show(p->across(t, ground).value_or(Volts{0})));
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"held-off", "levels", "A board that is held in reset or switched off", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::held_off
