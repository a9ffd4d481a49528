#include <fmt/core.h>

#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
// Gate against source, base against emitter, over every command.
Findings gateOvervoltage(const SolvedBench& s) {
  Findings out;
  const auto everyPoint = [](const OperatingPoint& p) {
    return p.solved() && circuit::expected(p.charge()) && p.command().moment != Moment::JustOpened;
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    const auto g = at(s.bench, d, t.gate);
    const auto source = at(s.bench, d, t.source);
    const auto most = t.vgs.typical();
    if (g < 0 || source < 0 || !most || !s.bench.connected(g)) return;
    const auto worst = largest(s, everyPoint, [&](const OperatingPoint& p) {
      const auto v = p.across(g, source);
      return v ? std::abs(v->value) : 0;
    });
    if (worst.value <= *most) return;
    auto f = finding(Severity::Stop, fmt::format("The gate of {} gets {}", called(s.bench, d), show(Volts{worst.value})),
                     fmt::format("With {} there are {} between gate and source of {}; it stands {}.", during(*worst.point),
                                 show(Volts{worst.value}), called(s.bench, d), show(Volts{*most})),
                     {s.bench.address(g)});
    f.formula = fmt::format("{} > {}", show(Volts{worst.value}), show(Volts{*most}));
    f.args = {{"voltage", Volts{worst.value}}, {"limit", Volts{*most}}};
    f.bar = Bar{"gate voltage", Volts{worst.value}, {}, Volts{*most}, "absolute maximum"};
    f.sources = sourcesOf({&t.vgs});
    out.push_back(std::move(f));
  });
  constexpr double kReverseBase = 5.0;  // V: base-emitter junctions break down at 5 to 6 V backwards
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    const auto b = at(s.bench, d, t.base);
    const auto e = at(s.bench, d, t.emitter);
    if (b < 0 || e < 0 || !s.bench.connected(b)) return;
    const auto worst = largest(s, everyPoint, [&](const OperatingPoint& p) {
      const auto v = t.pnp ? p.across(b, e) : p.across(e, b);
      return v ? v->value : 0;
    });
    if (worst.value <= kReverseBase) return;
    auto f = finding(Severity::Stop, fmt::format("The base of {} is {} backwards", called(s.bench, d), show(Volts{worst.value})),
                     fmt::format("With {} the base of {} is {} the wrong side of its emitter; the junction breaks down from 5 V.",
                                 during(*worst.point), called(s.bench, d), show(Volts{worst.value})),
                     {s.bench.address(b)});
    f.formula = fmt::format("{} > 5 V", show(Volts{worst.value}));
    f.args = {{"voltage", Volts{worst.value}}};
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
