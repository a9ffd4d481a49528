#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/current/supply_path.h"
#include "core/checks/queries.h"

namespace bold::checks::no_cut_off {
constexpr Amps kGlows{100};  // into a short: what makes a wire of the bench glow before anybody has found the plug

// A source that can burn a wire and no switch between it and what it feeds.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    if (!strong(body) || body.limit.known() || !reachesLoad(s, beforeSwitch(s, pole), pole.device)) continue;
    const auto amps = shortCurrent(body);
    auto f = finding(body.lithium || (amps && *amps > kGlows) ? Severity::Caution : Severity::Note,
                     fmt::format("{} cannot be switched off", called(s.bench, pole.device)),
                     fmt::format("There is no switch between {} and what it feeds{}: when something goes wrong a plug has to be pulled.",
                                 called(s.bench, pole.device), amps ? fmt::format("; it gives about {} into a short", show(*amps)) : ""),
                     {idOf(s.bench, pole.device)});
    f.ways = {{fmt::format("Put a switch into the wire from the + of {}.", called(s.bench, pole.device))}};
    f.formula = "no switch on the way from its + to a load";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"no-cut-off", "current", "A strong supply without a switch", Harm::Danger, judge};
}

}  // namespace bold::checks::no_cut_off
