#include "core/report/plan_lines.h"

#include <fmt/core.h>

namespace bold::report {

std::vector<PlanLine> planLines(const harness::Harness& h) {
  std::vector<PlanLine> out;
  const auto verb = [](harness::State s) { return s == harness::State::Planned ? "add" : "take away"; };
  for (const auto& d : h.devices) {
    if (d.state != harness::State::OnBench) out.push_back({verb(d.state), fmt::format("{} ({})", d.called(), d.part)});
    for (const auto& [id, s] : d.settings)
      if (!s.planned.empty())
        out.push_back(
            {"set", fmt::format("{} of {} from {} to {}", id, d.called(), s.value.empty() ? "its standard" : s.value, s.planned)});
  }
  for (const auto& c : h.connections)
    if (c.state != harness::State::OnBench)
      out.push_back({verb(c.state), fmt::format("{}: {} to {} {}", c.id, c.a.text(), c.b.text(), c.colour)});
  return out;
}

}  // namespace bold::report
