#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/levels/pin_pulls.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::open_drain_without_pull_up {
// An output that only pulls low, read by a pin, with nothing that pulls it up: no resistor, and no pull of the pin that is known to be on.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    if (!s.bench.facts(t).openDrain || !s.bench.connected(t)) continue;
    const auto pin = drivenBy(s, t);
    if (pin < 0) continue;
    const auto group = pinGroup(s.bench, pin);
    const auto r = p->resistance(t, group->rail);
    if (r && r->value < 500e3) continue;
    const auto pulls = pullsOf(s.bench, pin);
    if (pullSaid(program, pin, s.bench.deviceOf(t)) == "up" && (pulls.empty() || canPull(pulls, "up"))) continue;
    auto f =
        finding(Severity::Caution, fmt::format("{} is pulled up by nothing", s.bench.called(t)),
                fmt::format("{} only pulls low; read by {} it needs a pull-up of about 10 kΩ, or the pin's own switched on by the program.",
                            s.bench.called(t), s.bench.called(pin)),
                {s.bench.address(t), s.bench.address(pin)});
    RepairDraft pull(s.bench);
    const auto fitted = pull.device("resistor-10k", "r");
    pull.wire({fitted, "A"}, s.bench.place(t), "YE").wire({fitted, "B"}, s.bench.place(group->rail), "RD");
    f.ways = {pull.way(fmt::format("Fit 10 kΩ from {} to the supply of {}, or switch the pull-up of {} on in the program.",
                                   s.bench.called(t), called(s.bench, s.bench.deviceOf(pin)), s.bench.called(pin)))};
    f.formula = "open drain, no way to a rail";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"open-drain-without-pull-up", "levels", "An open-drain output without pull-up", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::open_drain_without_pull_up
