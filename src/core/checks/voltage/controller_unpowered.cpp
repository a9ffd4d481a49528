#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {

// The rail of a controller's pins below half of what the chip needs. Only controllers that something is wired to.
Findings controllerUnpowered(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Charge::Nominal);
  if (!p) return out;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    const auto rail = s.bench.terminal(d, pins.rail);
    const auto& supply = s.bench.facts(rail).supply;
    const double least = supply && supply->recommended.min ? *supply->recommended.min : 3.0;
    const Volts v = p->across(rail, s.bench.terminal(d, pins.ground)).value_or(Volts{0});
    if (v.value >= least / 2) return;
    auto f = finding(Severity::Stop, fmt::format("{} is not powered", called(s.bench, d)),
                     fmt::format("{} has {} on its supply; it needs {}. Plug in its supply, or put it on the bench.", called(s.bench, d),
                                 show(v), show(Volts{least})),
                     {idOf(s.bench, d)});
    // The loose regulator that should feed it is where to look next.
    eachElement<parts::Regulator>(s.bench, [&](int r, int, const parts::Regulator& reg) {
      if (r != d && s.nets.same(at(s.bench, r, reg.out), rail)) f.subjects.push_back(idOf(s.bench, r));
    });
    f.formula = fmt::format("{} < {}", show(v), show(Volts{least}));
    f.args = {{"voltage", v}, {"least", Volts{least}}};
    f.bar = Bar{"controller supply", v, {}, Volts{least}, "least", true};
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
