#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::current_limit_vs_protection {
namespace {

struct Start {
  Margin margin;
  const Motor* motor;
  ChannelRef ref;
  Amps amps, trip;
};

std::vector<Start> measure(const SolvedBench& s) {
  std::vector<Start> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    const auto* p = s.point(static_cast<int>(k), Action::Forward, Moment::Stalled, Corner::Full);
    if (!p) continue;
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      const auto trip = channel.trip.least();
      if (!trip || channel.protection != parts::Protection::OverCurrent) continue;
      const Amps amps = outputCurrent(s, *p, ref);
      out.push_back({{.quantity = "start current",
                      .subjects = {s.bench.address(s.bench.terminal(ref.device, channel.out.front())), idOf(s.bench, m.device)},
                      .unit = Unit::Amp,
                      .value = amps.value,
                      .limits = rising(atMost(LimitKind::Promised, Severity::Note, trip, "trip level", channel.trip.source)),
                      .at = p},
                     &m,
                     ref,
                     amps,
                     Amps{*trip}});
    }
  }
  return out;
}

}  // namespace

// A start above the level at which the stage lets go: it stops and starts again.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Start& m) {
    const auto stage = bench::called(s.bench, m.ref);
    auto f = finding(fmt::format("{} lets go at {}, {} starts with {}", stage, show(m.trip), called(s, *m.motor), show(m.amps)),
                     fmt::format("{} lets go from {} on; {} starts with {}: it will chatter until the motor turns.", stage, show(m.trip),
                                 called(s, *m.motor), show(m.amps)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Take a stage that lets go above {}, or let the program start {} gently.", show(m.amps), called(s, *m.motor)),
               fieldOf(s, *m.motor, "starting")}};
    f.formula = against(m.amps, ">", m.trip);
    f.args = {{"start", m.amps}, {"trip", m.trip}};
    f.bar = barOf(m.margin, m.trip.value, "trip level");
    f.sources = sourcesOf({&bench::channelOf(s.bench, m.ref).trip});
    return f;
  });
}

Check check() {
  return {"current-limit-vs-protection", "current", "A start above the trip level", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::current_limit_vs_protection
