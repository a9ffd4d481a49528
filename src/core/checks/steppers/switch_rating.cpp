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
  Figure rating, breaks;  // A, V, DC
  bool relay;
  Extreme worst;
  Volts volts;
};

// The supply behind a contact: of a relay either of its ends may be the one at the load.
const bench::Nets::Pole* supplyBehind(const SolvedBench& s, TerminalIndex a, TerminalIndex b) {
  const auto* source = sourceAt(s, a, true);
  return source || b < 0 ? source : sourceAt(s, b, true);
}

std::vector<Switched> measure(const SolvedBench& s) {
  std::vector<Switched> out;
  const auto look = [&](int d, int e, const Figure& rating, const Figure& breaks, const bench::Nets::Pole* source, TerminalIndex contact) {
    const bool relay = contact >= 0;

    const auto amps = rating.typical();
    const auto worst = largest(s, everyday, [&](const OperatingPoint& p) { return std::abs(p.element(d, e).value); });
    const auto full = source ? fullVoltage(s.bench, *source) : std::nullopt;
    const std::vector subjects{relay ? s.bench.address(contact) : idOf(s.bench, d)};  // a relay has several
    Switched m{{{.quantity = relay ? "contact current" : "switch current",
                 .subjects = subjects,
                 .unit = Unit::Amp,
                 .value = worst.known(),
                 .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, amps, "DC rating", rating.source),
                                  atMost(LimitKind::Recommended, Severity::Stop, amps ? std::optional(kStopShare * *amps) : std::nullopt,
                                         "2 x DC rating", rating.source)),
                 .at = worst.point}},
               d,
               rating,
               breaks,
               relay,
               worst,
               full.value_or(Volts{0})};
    if (full) {
      m.margins.push_back({.quantity = "voltage to break", .subjects = subjects, .unit = Unit::Volt});
      m.margins.back().value = m.volts.value;
      m.margins.back().limits = rising(atMost(LimitKind::Recommended, Severity::Caution, breaks.typical(), "DC rating", breaks.source));
    }
    out.push_back(std::move(m));
  };
  eachElement<parts::Contact>(s.bench, [&](int d, int e, const parts::Contact& c) {
    if (!c.closed || c.connector) return;  // of connectors see contact-current
    const auto a = at(s.bench, d, c.a);
    if (a < 0 || !s.bench.connected(a)) return;
    look(d, e, c.rating, c.volts, supplyBehind(s, a, -1), -1);
  });
  eachElement<parts::Switch>(s.bench, [&](int d, int e, const parts::Switch& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (!c.contact || a < 0 || b < 0 || !s.bench.connected(a) || !s.bench.connected(b)) return;
    look(d, e, c.rating, c.volts, supplyBehind(s, a, b), a);
  });
  return out;
}

}  // namespace

// A hand switch or a relay's contact with its largest current and its supply's voltage, against its DC ratings.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Switched& m) {
    const bool over = m.margins[0].passed();
    const Amps amps{m.worst.value};
    const char* kind = m.relay ? "relay" : "switch";
    const auto& name = called(s.bench, m.device);
    auto f = finding(over ? fmt::format("{} carries {}", name, show(amps)) : fmt::format("{} breaks {}", name, show(m.volts)),
                     over ? fmt::format("With {} {} carries {}; it is rated for {} DC.", during(*m.worst.point), name, show(amps),
                                        show(Amps{*m.rating.typical()}))
                          : fmt::format("{} has to break {} and is rated for {} DC: its arc does not go out.", name, show(m.volts),
                                        displayText(m.breaks)),
                     m.margins[0].subjects);
    f.ways = {{over ? fmt::format("Take a {} for {} DC or more in the place of {}.", kind, show(amps), name)
                    : fmt::format("Take a {} for {} DC or more in the place of {}.", kind, show(m.volts), name)}};
    f.formula = over ? against(amps, ">", Amps{*m.rating.typical()}) : fmt::format("{} > {}", show(m.volts), displayText(m.breaks));
    if (over) f.bar = barOf(m.margins[0], *m.rating.typical(), "DC rating");
    f.sources = sourcesOf({&m.rating, &m.breaks});
    return f;
  });
}

Check check() {
  return {"switch-rating", "steppers", "A switch beyond its DC rating", Harm::Danger, judge};
}

}  // namespace bold::checks::switch_rating
