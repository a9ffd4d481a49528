#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_strapping {
// A pin that decides how the controller starts, with something wired to it.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* boot = s.point(Action::Boot, Corner::Nominal);
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto group = pinGroup(s.bench, t);
    if (!group || !s.bench.connected(t) || s.bench.facts(t).pin->strap.empty()) continue;
    const bool wantHigh = s.bench.facts(t).pin->strap == "high";
    const auto v = boot ? boot->across(t, group->ground) : std::nullopt;
    const auto rail = boot ? boot->across(group->rail, group->ground) : std::nullopt;
    const double level = v ? v->value : 0;
    const double half = rail ? 0.5 * rail->value : 0;
    const bool wrong = v && half > 0.5 && (wantHigh ? level < half : level > half);
    auto f = finding(wrong ? Severity::Stop : Severity::Caution,
                     fmt::format("{} decides how {} starts", s.bench.called(t), called(s.bench, group->device)),
                     wrong ? fmt::format("{} must be {} while {} starts, and what is wired to it makes it {}: it will not start.",
                                         s.bench.called(t), wantHigh ? "high" : "low", called(s.bench, group->device), show(Volts{level}))
                           : fmt::format("{} must be {} while {} starts; it is now, but what is wired to it may change that.",
                                         s.bench.called(t), wantHigh ? "high" : "low", called(s.bench, group->device)),
                     {s.bench.address(t)});
    f.ways = {{fmt::format("Move what is on {} to another pin, or hold it {} while {} starts by 10 kΩ.", s.bench.called(t),
                           wantHigh ? "high" : "low", called(s.bench, group->device))}};
    f.formula = v ? fmt::format("{} at boot, must be {}", show(Volts{level}), wantHigh ? "high" : "low")
                  : std::string("must be ") + (wantHigh ? "high" : "low");
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"pin-strapping", "pins", "A pin that decides how the board starts", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_strapping
