#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::capacitor_rating {
namespace {

constexpr double kToSpare = 1.2;  // times the voltage that it carries
constexpr double kTantalum = 2.0;
constexpr double kBackwards = -0.5;  // V that an electrolytic stands the wrong way round

struct Charged {
  Margin margin;  // a polarised one's with its sign
  int device;
  const parts::Capacitor* capacitor;
  TerminalIndex a, b;
  Volts across;
  double toSpare;

  bool reversed() const { return capacitor->polarised && across.value < kBackwards; }
};

std::vector<Charged> measure(const SolvedBench& s) {
  std::vector<Charged> out;
  const auto* p = s.point(Action::AllOff, Corner::Full);
  if (!p) return out;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    const auto v = a < 0 || b < 0 ? std::nullopt : p->across(a, b);
    if (!v) return;
    // A board that has several is told apart by where they are.
    const bool loose = s.bench.devices[d].part->elements.size() == 1;
    Charged m{{.quantity = "voltage", .subjects = {loose ? idOf(s.bench, d) : s.bench.address(a)}, .unit = Unit::Volt, .at = p},
              d,
              &c,
              a,
              b,
              *v,
              c.tantalum ? kTantalum : kToSpare};
    const auto rated = c.rated.typical();
    m.margin.value = m.reversed() ? v->value : std::abs(v->value);
    m.margin.limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rated ? std::optional(*rated / m.toSpare) : std::nullopt,
                                    "with margin", c.rated.source),
                             atMost(LimitKind::Absolute, Severity::Stop, rated, "rated voltage", c.rated.source));
    if (m.reversed()) m.margin.limits = rising(atLeast(LimitKind::Absolute, Severity::Stop, kBackwards, "the wrong way round"));
    out.push_back(std::move(m));
  });
  return out;
}

}  // namespace

// Every capacitor at full charge: its rated voltage and its polarity.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Charged& m) {
    const auto& name = called(s.bench, m.device);
    const Volts volts{std::abs(m.across.value)};
    Finding f;
    if (m.reversed()) {
      f = finding(fmt::format("{} is the wrong way round", name),
                  fmt::format("{} has {} the wrong way round: it heats up and bursts.", name, show(volts)), m.margin.subjects);
      f.ways = {{fmt::format("Turn {} round, and take a new one: it has had {} the wrong way round.", name, show(volts))}};
      f.formula = fmt::format("{} at its + against its -", show(m.across));
      if (s.bench.devices[m.device].part->elements.size() == 1)
        f.repair = RepairDraft(s.bench).exchange(m.a, m.b).repair(fmt::format("Turn {} round: its + to {}.", name, "the supply"));
    } else {
      const Volts rated{*m.capacitor->rated.typical()};
      const auto& limit = *m.margin.passed();
      f = finding(fmt::format("{} carries {}", name, show(volts)),
                  fmt::format("{} carries {} at full charge and is rated for {}{}.", name, show(volts), show(rated),
                              m.margin.stops() ? "" : fmt::format("; {:g} times the voltage is the rule", m.toSpare)),
                  m.margin.subjects);
      f.ways = {{fmt::format("Take a capacitor for {} or more in the place of {}.", show(volts * m.toSpare), name),
                 figureOf(s.bench, m.device, "rated"), fmt::format("{:.4g} V", 1.01 * volts.value * m.toSpare)}};
      f.formula = fmt::format("{} against {}", show(volts), show(rated));
      f.bar = barOf(m.margin, *limit.most, std::string(limit.name));
    }
    f.args = {{"voltage", volts}};
    f.sources = sourcesOf({&m.capacitor->rated});
    return f;
  });
}

Check check() {
  return {"capacitor-rating", "voltage", "A capacitor beyond its voltage or reversed", Harm::Damage, judge};
}

}  // namespace bold::checks::capacitor_rating
