#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::brushless_leads {
namespace {

std::vector<TerminalIndex> phases(const SolvedBench& s, std::size_t device) {
  std::vector<TerminalIndex> out;
  const auto& d = s.bench.devices[device];
  for (std::size_t i = 0; i < d.part->terminals.size(); ++i)
    if (d.part->terminals[i].phase) out.push_back(d.first + static_cast<int>(i));
  return out;
}

// What lies on a lead's copper, but for itself.
std::vector<TerminalIndex> others(const SolvedBench& s, TerminalIndex t) {
  auto out = s.nets.members(s.nets.of(t));
  std::erase(out, t);
  return out;
}

}  // namespace

// Each phase lead of a controller on one lead of one motor, and on nothing else. Which on which only decides the way it turns.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto mine = phases(s, d);
    std::vector<std::string> wrong;
    std::vector<std::string> subjects;
    std::set<int> partners;
    for (const auto t : mine) {
      const auto on = others(s, t);
      const bool lead = on.size() == 1 && s.bench.facts(on.front()).phase && s.bench.deviceOf(on.front()) != static_cast<int>(d);
      if (lead) partners.insert(s.bench.deviceOf(on.front()));
      if (lead) continue;
      wrong.push_back(on.empty() ? fmt::format("{} is open", s.bench.facts(t).label)
                                 : fmt::format("{} is on {}", s.bench.facts(t).label, s.bench.called(on.front())));
      subjects.push_back(s.bench.address(t));
    }
    const auto& name = s.bench.devices[d].called();
    if (wrong.empty() && partners.size() < 2) continue;
    if (wrong.empty()) {
      wrong.push_back("they go to more than one device");
      subjects.push_back(idOf(s.bench, static_cast<int>(d)));
    }
    const bool none = partners.empty() && std::ranges::none_of(mine, [&](TerminalIndex t) { return s.bench.connected(t); });
    auto f = finding(none ? Severity::Caution : Severity::Stop, fmt::format("The leads of {} are not as three phases", name),
                     fmt::format("Of {}, {}: each of its three leads belongs on one of the other's three, and on nothing else.", name,
                                 fmt::join(wrong, ", ")),
                     std::move(subjects));
    f.ways = {{fmt::format("Join the three leads of {} with the three of its {}, in any order.", name,
                           s.bench.devices[d].part->elements.empty() ? "controller" : "motor")}};
    f.formula = fmt::format("{}", fmt::join(wrong, "; "));
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"brushless-leads", "grounds", "The three leads of a brushless motor", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::brushless_leads
