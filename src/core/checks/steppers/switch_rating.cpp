#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::switch_rating {
namespace {

constexpr double kStopShare = 2;  // times the rating

struct Switched {
  Margins margins;  // its current, the voltage it breaks
  int device;
  const parts::Contact* contact;
  Extreme worst;
  Volts volts;
};

std::vector<Switched> measure(const SolvedBench& s) {
  std::vector<Switched> out;
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    if (!c.closed || c.connector) return;  // of connectors see contact-current
    const auto a = at(s.bench, d, c.a);
    if (a < 0 || !s.bench.connected(a)) return;
    const auto rating = c.rating.typical();
    const auto worst = largest(s, everyday, [&](const OperatingPoint& p) { return std::abs(p.element(d, e).value); });
    const auto* source = sourceAt(s, a, true);
    const auto full = source ? fullVoltage(s.bench, *source) : std::nullopt;
    const std::vector subjects{idOf(s.bench, d)};
    Switched m{{{.quantity = "switch current",
                 .subjects = subjects,
                 .unit = Unit::Amp,
                 .value = worst.known(),
                 .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rating, "DC rating", c.rating.source),
                                  atMost(LimitKind::Recommended, Severity::Stop,
                                         rating ? std::optional(kStopShare * *rating) : std::nullopt, "2 x DC rating", c.rating.source)),
                 .at = worst.point}},
               d,
               &c,
               worst,
               full.value_or(Volts{0})};
    if (full) {
      m.margins.push_back({.quantity = "voltage to break", .subjects = subjects, .unit = Unit::Volt});
      m.margins.back().value = m.volts.value;
      m.margins.back().limits = rising(atMost(LimitKind::Recommended, Severity::Caution, c.volts.typical(), "DC rating", c.volts.source));
    }
    out.push_back(std::move(m));
  });
  return out;
}

}  // namespace

// A hand switch with its largest current and its supply's voltage, against its DC ratings.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Switched& m) {
    const bool over = m.margins[0].passed();
    const Amps amps{m.worst.value};
    const auto& c = *m.contact;
    const auto& name = called(s.bench, m.device);
    auto f = finding(over ? fmt::format("{} carries {}", name, show(amps)) : fmt::format("{} breaks {}", name, show(m.volts)),
                     over ? fmt::format("With {} {} carries {}; it is rated for {} DC.", during(*m.worst.point), name, show(amps),
                                        show(Amps{*c.rating.typical()}))
                          : fmt::format("{} has to break {} and is rated for {} DC: its arc does not go out.", name, show(m.volts),
                                        displayText(c.volts)),
                     m.margins[0].subjects);
    f.ways = {{over ? fmt::format("Take a switch for {} DC or more in the place of {}.", show(amps), name)
                    : fmt::format("Take a switch for {} DC or more in the place of {}.", show(m.volts), name)}};
    f.formula = over ? against(amps, ">", Amps{*c.rating.typical()}) : fmt::format("{} > {}", show(m.volts), displayText(c.volts));
    if (over) f.bar = barOf(m.margins[0], *c.rating.typical(), "DC rating");
    f.sources = sourcesOf({&c.rating, &c.volts});
    return f;
  });
}

Check check() {
  return {"switch-rating", "steppers", "A switch beyond its DC rating", Harm::Danger, judge};
}

}  // namespace bold::checks::switch_rating
