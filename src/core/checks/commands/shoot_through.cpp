#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// A leg of loose transistors: top from a supply, bottom to ground, one node between.
struct Leg {
  int top, bottom;  // devices
  int topElement, bottomElement;
  TerminalIndex topControl, bottomControl, middle;
};

struct Half {
  int device, element;
  TerminalIndex control, rail, middle;
};

std::vector<Leg> legs(const SolvedBench& s) {
  std::vector<Half> tops;
  std::vector<Half> bottoms;
  const auto sort = [&](int d, int e, TerminalIndex control, TerminalIndex x, TerminalIndex y) {
    if (control < 0 || x < 0 || y < 0) return;
    for (const auto& [rail, middle] : {std::pair{x, y}, std::pair{y, x}}) {
      if (sourceAt(s, rail, true) && !sourceAt(s, middle, true)) tops.push_back({d, e, control, rail, middle});
      if (sourceAt(s, rail, false) && !sourceAt(s, middle, false)) bottoms.push_back({d, e, control, rail, middle});
    }
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int e, const parts::Mosfet& t) {
    sort(d, e, at(s.bench, d, t.gate), at(s.bench, d, t.drain), at(s.bench, d, t.source));
  });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int e, const parts::Bipolar& t) {
    sort(d, e, at(s.bench, d, t.base), at(s.bench, d, t.collector), at(s.bench, d, t.emitter));
  });
  std::vector<Leg> out;
  for (const auto& a : tops)
    for (const auto& b : bottoms)
      if (a.device != b.device && s.nets.same(a.middle, b.middle))
        out.push_back({a.device, b.device, a.element, b.element, a.control, b.control, a.middle});
  return out;
}

}  // namespace

// Both switches of a leg on at once: in a command of the plan, or in any state the pins can reach.
Findings shootThrough(const SolvedBench& s) {
  Findings out;
  for (const auto& leg : legs(s)) {
    const auto both = largest(
        s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Running; },
        [&](const OperatingPoint& p) {
          return std::min(std::abs(p.element(leg.top, leg.topElement).value), std::abs(p.element(leg.bottom, leg.bottomElement).value));
        });
    const auto topPin = drivenBy(s, leg.topControl);
    const auto bottomPin = drivenBy(s, leg.bottomControl);
    const bool apart = topPin >= 0 && bottomPin >= 0 && topPin != bottomPin;
    const bool happens = both.value > 0.02;
    if (!happens && !apart) continue;
    auto f = finding(
        happens ? Severity::Stop : Severity::Caution,
        happens ? fmt::format("{} and {} are on together", called(s.bench, leg.top), called(s.bench, leg.bottom))
                : fmt::format("Nothing keeps {} and {} apart", called(s.bench, leg.top), called(s.bench, leg.bottom)),
        happens ? fmt::format("With {} both transistors of the leg at {} conduct: {} run straight from the supply to ground.",
                              during(*both.point), s.bench.called(leg.middle), show(Amps{both.value}))
                : fmt::format(
                      "{} and {} can both be on: {} and {} are written one after the other, and a slip of the program shorts the supply.",
                      called(s.bench, leg.top), called(s.bench, leg.bottom), s.bench.called(topPin), s.bench.called(bottomPin)),
        {idOf(s.bench, leg.top), idOf(s.bench, leg.bottom)});
    f.formula = happens ? fmt::format("{} through both", show(Amps{both.value})) : "two pins, no interlock";
    if (happens) f.args = {{"current", Amps{both.value}}};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
