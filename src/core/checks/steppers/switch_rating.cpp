#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
// A hand switch with its largest current and its supply's voltage, against its DC ratings.
Findings switchRating(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    if (!c.closed || c.connector) return;  // of connectors see contact-current
    const auto a = at(s.bench, d, c.a);
    if (a < 0 || !s.bench.connected(a)) return;
    const auto rating = c.rating.typical();
    const auto worst = largest(s, everyday, [&](const OperatingPoint& p) { return std::abs(p.element(d, e).value); });
    const auto* source = sourceAt(s, a, true);
    const Volts volts = source ? fullVoltage(s.bench, *source).value_or(Volts{0}) : Volts{0};
    const bool high = c.volts.typical() && volts.value > *c.volts.typical();
    const bool over = rating && worst.value > *rating;
    if (!high && !over) return;
    const bool stop = over && worst.value > 2 * *rating;
    auto f = finding(stop ? Severity::Stop : Severity::Caution,
                     over ? fmt::format("{} carries {}", called(s.bench, d), show(Amps{worst.value}))
                          : fmt::format("{} breaks {}", called(s.bench, d), show(volts)),
                     over ? fmt::format("With {} {} carries {}; it is rated for {} DC.", during(*worst.point), called(s.bench, d),
                                        show(Amps{worst.value}), show(Amps{*rating}))
                          : fmt::format("{} has to break {} and is rated for {} DC: its arc does not go out.", called(s.bench, d),
                                        show(volts), displayText(c.volts)),
                     {idOf(s.bench, d)});
    f.formula = over ? fmt::format("{} > {}", show(Amps{worst.value}), show(Amps{*rating}))
                     : fmt::format("{} > {}", show(volts), displayText(c.volts));
    if (over) f.bar = Bar{"switch current", Amps{worst.value}, {}, Amps{*rating}, "DC rating"};
    f.sources = sourcesOf({&c.rating, &c.volts});
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
