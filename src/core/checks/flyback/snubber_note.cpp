#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr Metres kLong{0.5};
}

// Long leads to a brushed motor without suppression.
Findings snubberNote(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.kind != MotorKind::Brushed) continue;
    const auto& w = circuit::windingOf(s.bench, m, 0);
    const auto a = s.bench.terminal(m.device, w.a);
    const auto b = s.bench.terminal(m.device, w.b);
    Metres length{0};
    for (const auto& l : s.bench.links) {
      const auto& c = s.bench.connections[static_cast<std::size_t>(l.connection)];
      if ((l.a == a || l.b == a || l.a == b || l.b == b) && c.length) length = std::max(length, *c.length);
    }
    if (length < kLong) continue;
    bool suppressed = false;
    eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
      const auto x = at(s.bench, d, c.a);
      const auto y = at(s.bench, d, c.b);
      suppressed =
          suppressed || (x >= 0 && y >= 0 && ((s.nets.same(x, a) && s.nets.same(y, b)) || (s.nets.same(x, b) && s.nets.same(y, a))));
    });
    if (suppressed) continue;
    auto f = finding(
        Severity::Note, fmt::format("{} has {} of lead and no suppression", called(s, m), show(length)),
        fmt::format(
            "Brushes spark; {} of lead radiate it into sensors and resets. 100 nF across the leads of {}, at the motor, takes most of it.",
            show(length), called(s, m)),
        {idOf(s.bench, m.device)});
    f.formula = fmt::format("{} > {}", show(length), show(kLong));
    f.args = {{"length", length}};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
