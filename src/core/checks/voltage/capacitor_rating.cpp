#include <fmt/core.h>

#include <cmath>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Every capacitor at full charge: its rated voltage and its polarity.
Findings capacitorRating(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Charge::Full);
  if (!p) return out;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    const auto v = a < 0 || b < 0 ? std::nullopt : p->across(a, b);
    if (!v) return;
    const bool reversed = c.polarised && v->value < -0.5;
    const auto rated = c.rated.typical();
    const double volts = std::abs(v->value);
    const double margin = c.tantalum ? 2.0 : 1.2;
    const bool over = rated && volts > *rated;
    if (!reversed && !over && !(rated && volts * margin > *rated)) return;
    const Volts limit{over || reversed ? rated.value_or(0) : *rated / margin};
    auto f =
        finding(reversed || over ? Severity::Stop : Severity::Caution,
                reversed ? fmt::format("{} is the wrong way round", called(s.bench, d))
                         : fmt::format("{} carries {}", called(s.bench, d), show(Volts{volts})),
                reversed ? fmt::format("{} has {} the wrong way round: it heats up and bursts.", called(s.bench, d), show(Volts{volts}))
                         : fmt::format("{} carries {} at full charge and is rated for {}{}.", called(s.bench, d), show(Volts{volts}),
                                       show(Volts{*rated}), over ? "" : fmt::format("; {:g} times the voltage is the rule", margin)),
                {idOf(s.bench, d)});
    f.formula = reversed ? fmt::format("{} at its + against its -", show(*v))
                         : fmt::format("{} against {}", show(Volts{volts}), show(Volts{*rated}));
    f.args = {{"voltage", Volts{volts}}};
    if (!reversed) f.bar = Bar{"voltage", Volts{volts}, {}, limit, over ? "rated voltage" : "with margin"};
    f.sources = sourcesOf({&c.rated});
    if (reversed && s.bench.devices[static_cast<std::size_t>(d)].part->elements.size() == 1)
      f.repair = Plan(s.bench).exchange(a, b).repair(fmt::format("Turn {} round: its + to {}.", called(s.bench, d), "the supply"));
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
