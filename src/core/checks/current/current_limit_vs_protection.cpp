#include <fmt/core.h>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks {
// A start above the level at which the stage lets go: it stops and starts again.
Findings currentLimitVsProtection(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    const auto* p = s.point(static_cast<int>(k), Action::Forward, Moment::Stalled, Charge::Full);
    if (!p) continue;
    for (const auto& ref : m.reached) {
      const auto& channel = circuit::channelOf(s.bench, ref);
      const auto trip = channel.trip.least();
      if (!trip || channel.protection != parts::Protection::OverCurrent) continue;
      const Amps amps = outputCurrent(s, *p, ref);
      if (amps.value <= *trip) continue;
      auto f = finding(
          Severity::Note,
          fmt::format("{} lets go at {}, {} starts with {}", circuit::called(s.bench, ref), show(Amps{*trip}), called(s, m), show(amps)),
          fmt::format("{} lets go from {} on; {} starts with {}: it will chatter until the motor turns.", circuit::called(s.bench, ref),
                      show(Amps{*trip}), called(s, m), show(amps)),
          {s.bench.address(s.bench.terminal(ref.device, channel.out.front())), idOf(s.bench, m.device)});
      f.formula = fmt::format("{} > {}", show(amps), show(Amps{*trip}));
      f.args = {{"start", amps}, {"trip", Amps{*trip}}};
      f.bar = Bar{"start current", amps, {}, Amps{*trip}, "trip level"};
      f.sources = sourcesOf({&channel.trip});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
