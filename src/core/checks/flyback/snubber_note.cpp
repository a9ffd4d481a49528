#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::snubber_note {
namespace {

constexpr Metres kLong{0.5};

struct Lead {
  Margin margin;
  const Motor* motor;
  Metres length;
};

std::vector<Lead> measure(const SolvedBench& s) {
  std::vector<Lead> out;
  for (const auto& m : s.motors) {
    if (m.kind != MotorKind::TwoLead || m.still) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    const auto a = s.bench.terminal(m.device, w.a);
    const auto b = s.bench.terminal(m.device, w.b);
    std::optional<Metres> length;
    for (const auto& l : s.bench.links) {
      const auto& c = s.bench.connections[l.connection];
      if ((l.a == a || l.b == a || l.a == b || l.b == b) && c.length) length = std::max(length.value_or(Metres{0}), *c.length);
    }
    bool suppressed = false;
    eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
      const auto x = at(s.bench, d, c.a);
      const auto y = at(s.bench, d, c.b);
      suppressed =
          suppressed || (x >= 0 && y >= 0 && ((s.nets.same(x, a) && s.nets.same(y, b)) || (s.nets.same(x, b) && s.nets.same(y, a))));
    });
    if (suppressed) continue;
    out.push_back({{.quantity = "lead without suppression",
                    .subjects = {idOf(s.bench, m.device)},
                    .unit = Unit::Metre,
                    .value = length ? std::optional(length->value) : std::nullopt,
                    .limits = rising(atMost(LimitKind::Recommended, Severity::Note, kLong.value, "long"))},
                   &m,
                   length.value_or(Metres{0})});
  }
  return out;
}

}  // namespace

// Long leads to a brushed motor without suppression.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Lead& m) {
    auto f = finding(
        fmt::format("{} has {} of lead and no suppression", called(s, *m.motor), show(m.length)),
        fmt::format(
            "Brushes spark; {} of lead radiate it into sensors and resets. 100 nF across the leads of {}, at the motor, takes most of it.",
            show(m.length), called(s, *m.motor)),
        m.margin.subjects);
    f.ways = {{fmt::format("Solder 100 nF across {}, or enter the length of its leads if it is less.", called(s, *m.motor))}};
    f.formula = against(m.length, ">", kLong);
    f.args = {{"length", m.length}};
    return f;
  });
}

Check check() {
  return {"snubber-note", "flyback", "Long leads without suppression", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::snubber_note
