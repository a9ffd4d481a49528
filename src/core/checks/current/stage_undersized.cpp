#include <fmt/core.h>

#include <algorithm>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Not even the best this stage can be made into carries the motor: cooled, and paralleled where the part allows it.
Findings stageUndersized(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    const auto* run = s.running(static_cast<int>(k), Charge::Full);
    if (!run || m.meant.device < 0 || !m.further.empty()) continue;
    const auto& channel = circuit::channelOf(s.bench, m.meant);
    const auto bare = channel.continuous.typical();
    if (!bare || circuit::chopperOf(s.bench, m.meant)) continue;
    const double cooled = std::max(*bare, channel.continuousSink.typical().value_or(0));
    const double best = channel.parallel.empty() ? cooled : 2 * cooled;
    const Amps amps = outputCurrent(s, *run, m.meant);
    if (amps.value <= 1.5 * best) continue;
    auto f = finding(
        Severity::Stop, fmt::format("{} is too small for {}", circuit::called(s.bench, m.meant), called(s, m)),
        fmt::format(
            "{} draws {} running; {} carries {} at best{}. Nothing that can be done to it makes it fit: take a stage for at least {}.",
            called(s, m), show(amps), circuit::called(s.bench, m.meant), show(Amps{best}),
            best > cooled    ? " with both channels joined"
            : cooled > *bare ? " with a heat sink"
                             : "",
            show(amps)),
        {s.bench.address(s.bench.terminal(m.meant.device, channel.out.front())), idOf(s.bench, m.device)});
    f.formula = fmt::format("{} > 1.5 x {}", show(amps), show(Amps{best}));
    f.args = {{"running", amps}, {"best", Amps{best}}};
    f.bar = Bar{"running current", amps, {}, Amps{best}, "at best"};
    f.sources = sourcesOf({&channel.continuous, &channel.continuousSink});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
