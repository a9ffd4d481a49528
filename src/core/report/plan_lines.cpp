#include "core/report/plan_lines.h"

#include <fmt/core.h>

#include "core/harness/names.h"

namespace bold::report {

namespace {

// As it may be typed: the name of the device, the terminal's id.
std::string called(const harness::Harness& h, const Address& end) {
  const auto* d = h.device(end.device);
  return d ? harness::shownName(h, *d) + " " + end.terminal : end.text();
}

}  // namespace

std::vector<PlanLine> planLines(const harness::Harness& h) {
  std::vector<PlanLine> out;
  const auto verb = [](harness::State s) { return s == harness::State::Planned ? "add" : "take away"; };
  for (const auto& d : h.devices) {
    if (d.state != harness::State::OnBench) out.push_back({verb(d.state), fmt::format("{} ({})", harness::shownName(h, d), d.part)});
    for (const auto& [id, s] : d.settings)
      if (!s.planned.empty())
        out.push_back({"set", fmt::format("{} of {} from {} to {}", id, harness::shownName(h, d),
                                          s.value.empty() ? "its standard" : s.value, s.planned)});
  }
  for (const auto& c : h.connections)
    if (c.state != harness::State::OnBench)
      out.push_back({verb(c.state), fmt::format("{}: {} to {} {}", c.id, called(h, c.a), called(h, c.b), c.colour)});
  return out;
}

}  // namespace bold::report
