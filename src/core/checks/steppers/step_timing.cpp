#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
// The step pulse of the plan against what the stage can follow.
Findings stepTiming(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (!m.intent || m.meant.device < 0) continue;
    const auto* c = circuit::chopperOf(s.bench, m.meant);
    const auto high = c ? c->stepHigh.greatest() : std::nullopt;
    const auto low = c ? c->stepLow.greatest() : std::nullopt;
    if (!high || !low) continue;
    const bool shortPulse = m.intent->pulse && m.intent->pulse->value < *high;
    const double fastest = 1 / (*high + *low);
    const bool fast = m.intent->rate && m.intent->rate->value > fastest;
    if (!shortPulse && !fast) continue;
    auto f = finding(Severity::Stop,
                     shortPulse ? fmt::format("The step pulse of {} is too short", called(s, m))
                                : fmt::format("{} cannot follow {}", called(s.bench, m.meant.device), show(*m.intent->rate)),
                     shortPulse ? fmt::format("The plan makes step pulses of {}; {} needs {}: it will miss some.", show(*m.intent->pulse),
                                              called(s.bench, m.meant.device), show(Seconds{*high}))
                                : fmt::format("{} pulses a second are planned; {} follows {} at most.", show(*m.intent->rate),
                                              called(s.bench, m.meant.device), show(Hertz{fastest})),
                     {idOf(s.bench, m.meant.device), idOf(s.bench, m.device)});
    f.formula = shortPulse ? fmt::format("{} < {}", show(*m.intent->pulse), show(Seconds{*high}))
                           : fmt::format("{} > 1 / ({} + {})", show(*m.intent->rate), show(Seconds{*high}), show(Seconds{*low}));
    f.sources = sourcesOf({&c->stepHigh});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
