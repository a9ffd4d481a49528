#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
// A load with electronics inside, on an output that can turn round or is chopped.
Findings polaritySensitiveLoad(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    const bool electronics = m.kind == MotorKind::Servo || (m.windings.size() == 1 && circuit::windingOf(s.bench, m, 0).directional);
    if (!electronics) continue;
    for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
      const int device = static_cast<int>(d);
      for (const auto& c : s.bench.devices[d].part->channels) {
        const auto& part = *s.bench.devices[static_cast<std::size_t>(m.device)].part;
        const auto touches = std::ranges::any_of(c.out, [&](const std::string& o) {
          return std::ranges::any_of(part.terminals, [&](const parts::Terminal& t) {
            return !t.input && s.nets.same(s.bench.terminal(device, o), s.bench.terminal(m.device, t.id));
          });
        });
        if (!touches) continue;
        const bool reversible = !c.lowSide && c.out.size() == 2;
        const bool chopped = m.intent && m.intent->speedControl;
        if (!reversible && !chopped) continue;
        auto f = finding(reversible ? Severity::Stop : Severity::Caution, fmt::format("{} has electronics inside", called(s, m)),
                         reversible ? fmt::format("{} stands no reversed supply, and {} can turn its outputs round.", called(s, m),
                                                  called(s.bench, device))
                                    : fmt::format("{} is to be chopped by PWM: its electronics start anew at every pulse.", called(s, m)),
                         {idOf(s.bench, m.device), idOf(s.bench, device)});
        f.formula = reversible ? "on both outputs of a bridge" : "speed by PWM of its supply";
        out.push_back(std::move(f));
      }
    }
  }
  return out;
}

}  // namespace bold::checks
