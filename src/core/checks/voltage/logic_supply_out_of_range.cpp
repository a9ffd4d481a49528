#include <fmt/core.h>

#include <algorithm>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// Where 5 V or 3.3 V is to be had for this stage: the rail of the first powered controller that fits its window and
// shares its ground. A stage that makes its own gets none: feeding it from outside as well is another fault.
TerminalIndex fittingRail(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const auto& supply = *s.bench.facts(t).supply;
  const int stage = s.bench.deviceOf(t);
  const auto back = s.bench.terminal(stage, supply.back);
  bool own = false;
  eachElement<parts::Regulator>(
      s.bench, [&](int d, int, const parts::Regulator& r) { own = own || (d == stage && s.bench.terminal(d, r.out) == t); });
  TerminalIndex found = -1;
  if (own) return found;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    const auto rail = s.bench.terminal(d, pins.rail);
    const auto v = p.across(rail, s.bench.terminal(d, pins.ground));
    const bool fits = v && s.nets.same(back, s.bench.terminal(d, pins.ground)) &&
                      (!supply.recommended.min || v->value >= *supply.recommended.min) &&
                      (!supply.recommended.max || v->value <= *supply.recommended.max);
    if (fits && found < 0) found = rail;
  });
  return found;
}

bool used(const SolvedBench& s, int device) {
  for (const auto& m : s.motors)
    for (const auto& r : m.reached)
      if (r.device == device) return true;
  return false;
}

// The rail of a controller's pins: when that is dead, controller-unpowered says so.
bool railOfPins(const SolvedBench& s, int device) {
  bool has = false;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins&) { has = has || d == device; });
  return has;
}

// A board that is fed past this terminal, at a rail further in: what then comes out here feeds nothing.
bool fedElsewhere(const SolvedBench& s, const OperatingPoint& p, int device) {
  const auto& terminals = s.bench.devices[static_cast<std::size_t>(device)].part->terminals;
  return std::ranges::any_of(terminals, [&](const parts::Terminal& facts) {
    const auto t = s.bench.terminal(device, facts.id);
    return facts.supply && s.bench.connected(t) && leaving(s, p, t).value < -1e-3;
  });
}

}  // namespace

// Judged at rest and while anything runs: a supply that comes through an input or a pull resistor is there only at times.
Findings logicSupplyOutOfRange(const SolvedBench& s) {
  Findings out;
  const auto* nominal = s.point(Action::AllOff, Charge::Nominal);
  if (!nominal) return out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply || supply->purpose != "logic") continue;
    const int d = s.bench.deviceOf(t);
    const auto back = s.bench.terminal(d, supply->back);
    Volts high{0};
    Volts v{1e9};
    for (const auto& p : s.points) {
      if (!everyday(*p) || !steady(*p)) continue;
      const Volts here = p->across(t, back).value_or(Volts{0});
      high = std::max(high, here);
      if (p->charge() == Charge::Nominal) v = std::min(v, here);
    }
    const auto& window = supply->recommended;
    const bool over = supply->absolute.greatest() && high.value > *supply->absolute.greatest();
    const bool controller = railOfPins(s, d);
    const bool absent = window.min && v.value < *window.min / 2;
    if (absent && (controller || !used(s, d))) continue;
    if (controller && !s.bench.connected(t) && fedElsewhere(s, *nominal, d)) continue;
    const bool tooHigh = window.max && high.value > *window.max * 1.0001;
    const bool tooLow = window.min && v.value < *window.min;
    if (!over && !absent && !tooHigh && !tooLow) continue;
    Finding f;
    if (over) {
      f = finding(Severity::Stop, fmt::format("{} gets {}", s.bench.called(t), show(high)),
                  fmt::format("The logic supply {} gets {}; its absolute maximum is {}.", s.bench.called(t), show(high),
                              show(Volts{*supply->absolute.greatest()})),
                  {s.bench.address(t)});
      f.bar = Bar{"logic supply", high, {}, Volts{*supply->absolute.greatest()}, "absolute maximum"};
    } else if (absent) {
      f = finding(Severity::Stop, fmt::format("{} has no logic supply", called(s.bench, d)),
                  fmt::format("Nothing feeds {} ({}): the stage cannot do anything.", s.bench.called(t), show(v)), {s.bench.address(t)});
      f.bar = Bar{"logic supply", v, {}, Volts{*window.min}, "least", true};
      if (const auto rail = fittingRail(s, *nominal, t); rail >= 0 && !s.bench.connected(t))
        f.repair =
            Plan(s.bench).wire(t, rail, "RD").repair(fmt::format("Add a red wire from {} to {}.", found(s.bench, t), found(s.bench, rail)));
    } else {
      const Volts shown = tooHigh ? high : v;
      const double limit = tooHigh ? *window.max : *window.min;
      f = finding(Severity::Caution, fmt::format("{} gets {}", s.bench.called(t), show(shown)),
                  fmt::format("The logic supply {} gets {}; it is meant for {}.", s.bench.called(t), show(shown), displayText(window)),
                  {s.bench.address(t)});
      f.bar = Bar{"logic supply", shown, {}, Volts{limit}, tooHigh ? "recommended" : "least", !tooHigh};
    }
    f.formula = fmt::format("{} against {}", show(f.bar->value), show(f.bar->limit));
    f.args = {{"voltage", f.bar->value}, {"limit", f.bar->limit}};
    f.sources = sourcesOf({&supply->recommended, &supply->absolute});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
