#include <fmt/core.h>

#include <algorithm>
#include <cassert>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::shoot_through {
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

constexpr double kShorts = 0.05;  // A through both transistors of a leg

// No command asks for it, and a slip of the program, or a pin that is not set up yet, makes it.
Finding possible(const SolvedBench& s, const Leg& leg, const Extreme& combined) {
  assert(combined.point);
  const auto& title = combined.point->command().title;
  const auto pins = title.substr(title.find(": ") + 2);
  auto f =
      finding(Severity::Caution, fmt::format("{} and {} can be on together", called(s.bench, leg.top), called(s.bench, leg.bottom)),
              fmt::format("With {} both transistors of the leg at {} conduct: {} run straight from the supply to ground. The plan does "
                          "not ask for it, and nothing but the program prevents it.",
                          pins, s.bench.called(leg.middle), show(Amps{combined.value})),
              {idOf(s.bench, leg.top), idOf(s.bench, leg.bottom)});
  f.ways = {{fmt::format("Put an interlock between the two controls, or a bridge that has one, in the place of {} and {}.",
                         called(s.bench, leg.top), called(s.bench, leg.bottom))},
            {"Or make sure that the program never writes that, and holds both off while it starts."}};
  f.formula = fmt::format("{} through both with {}", show(Amps{combined.value}), pins);
  f.args = {{"current", Amps{combined.value}}};
  return f;
}

}  // namespace

// Both switches of a leg on at once: in a command of the intent, or in any state the pins can reach.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors)
    if (const auto pins = bench::bridgePins(s.bench, s.nets, m); pins.size() > bench::kMostBridgePins) {
      auto f = finding(Severity::NotJudged, fmt::format("{} pins reach the bridge of {}", pins.size(), called(s, m)),
                       fmt::format("The bridge of {} is reached by {} pins; what it does in all their states is worked out for {} at most.",
                                   called(s, m), pins.size(), bench::kMostBridgePins),
                       {idOf(s.bench, m.device)});
      f.ways = {{fmt::format("Drive {} by at most {} pins, or by a bridge that is one part.", called(s, m), bench::kMostBridgePins)}};
      f.formula = fmt::format("{} > {}", pins.size(), bench::kMostBridgePins);
      out.push_back(std::move(f));
    }
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
    const auto combined = largest(
        s, [](const OperatingPoint& p) { return p.solved() && p.command().action == Action::Combination; },
        [&](const OperatingPoint& p) {
          return std::min(std::abs(p.element(leg.top, leg.topElement).value), std::abs(p.element(leg.bottom, leg.bottomElement).value));
        });
    if (!happens && combined.value > kShorts) {
      out.push_back(possible(s, leg, combined));
      continue;
    }
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
    f.ways = {{happens ? fmt::format("Turn the level of one of the two over in between, or steer {} and {} by a pin each.",
                                     called(s.bench, leg.top), called(s.bench, leg.bottom))
                       : fmt::format("Steer {} and {} so that one level cannot have both on, or take a bridge that is one part.",
                                     called(s.bench, leg.top), called(s.bench, leg.bottom))}};
    f.formula = happens ? fmt::format("{} through both", show(Amps{both.value})) : "two pins, no interlock";
    if (happens) f.args = {{"current", Amps{both.value}}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"shoot-through", "commands", "Both switches of a leg on", Harm::Danger, judge};
}

}  // namespace bold::checks::shoot_through
