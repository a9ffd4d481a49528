#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kLeast = 3.0;     // V, of a controller that does not say
constexpr double kNotAtAll = 0.5;  // of the least: below that it is not fed at all

struct Powered {
  Margin margin;
  int device;
  TerminalIndex rail;
  Volts supply, least;
};

std::vector<Powered> measure(const SolvedBench& s) {
  std::vector<Powered> out;
  const auto* p = s.point(Action::AllOff, Charge::Nominal);
  if (!p) return out;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    const auto rail = s.bench.terminal(d, pins.rail);
    const auto& supply = s.bench.facts(rail).supply;
    const bool stated = supply && supply->recommended.min;
    const Volts least{stated ? *supply->recommended.min : kLeast};
    const Volts v = p->across(rail, s.bench.terminal(d, pins.ground)).value_or(Volts{0});
    Margin margin{.quantity = "controller supply",
                  .subjects = {idOf(s.bench, d)},
                  .unit = Unit::Volt,
                  .value = v.value,
                  .limits = rising(atLeast(LimitKind::Promised, Severity::Stop, kNotAtAll * least.value, "half its least",
                                           stated ? supply->recommended.source : "")),
                  .at = p};
    if (!stated) margin.assumed = {"a least supply of " + show(least)};
    out.push_back({std::move(margin), d, rail, v, least});
  });
  return out;
}

}  // namespace

// The rail of a controller's pins below half of what the chip needs. Whether what it gets is enough is for logic-supply-out-of-range.
Said controllerUnpowered(const SolvedBench& s) {
  return say(measure(s), [&](const Powered& m) {
    const auto& name = called(s.bench, m.device);
    auto f = finding(fmt::format("{} is not powered", name),
                     fmt::format("{} has {} on its supply; it needs {}. Plug in its supply, or put it on the bench.", name, show(m.supply),
                                 show(m.least)),
                     m.margin.subjects);
    // The loose regulator that should feed it is where to look next.
    eachElement<parts::Regulator>(s.bench, [&](int r, int, const parts::Regulator& reg) {
      if (r != m.device && s.nets.same(at(s.bench, r, reg.out), m.rail)) f.subjects.push_back(idOf(s.bench, r));
    });
    f.formula = against(m.supply, "<", m.least);
    f.args = {{"voltage", m.supply}, {"least", m.least}};
    f.bar = barOf(m.margin, m.least.value, "least", {}, true);
    return f;
  });
}

}  // namespace bold::checks
