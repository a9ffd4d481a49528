#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::stage_undersized {
namespace {

constexpr double kStopShare = 1.5;  // times what it carries at best

struct AtBest {
  Margin margin;
  const Motor* motor;
  Amps running;
  double bare, cooled, best;  // A
};

std::vector<AtBest> measure(const SolvedBench& s) {
  std::vector<AtBest> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    const auto* run = s.running(static_cast<int>(k), Corner::Full);
    if (!run || m.meant.device < 0 || !m.further.empty() || bench::chopperOf(s.bench, m.meant)) continue;
    const auto& channel = bench::channelOf(s.bench, m.meant);
    const auto bare = channel.continuous.typical();
    if (!bare) continue;  // running-current lists it as unknown
    const double cooled = std::max(*bare, channel.continuousSink.typical().value_or(0));
    const double best = channel.parallel.empty() ? cooled : 2 * cooled;
    const Amps amps = outputCurrent(s, *run, m.meant);
    Margin margin{
        .quantity = "running current, the stage at its best",
        .subjects = {s.bench.address(s.bench.terminal(m.meant.device, channel.out.front())), idOf(s.bench, m.device)},
        .unit = Unit::Amp,
        .value = amps.value,
        .limits = rising(atMost(LimitKind::Recommended, Severity::Stop, kStopShare * best, "1.5 x at best", channel.continuous.source)),
        .at = run};
    out.push_back({std::move(margin), &m, amps, *bare, cooled, best});
  }
  return out;
}

}  // namespace

// Not even the best this stage can be made into carries the motor: cooled, and paralleled where the part allows it.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const AtBest& m) {
    const auto stage = bench::called(s.bench, m.motor->meant);
    const auto& channel = bench::channelOf(s.bench, m.motor->meant);
    auto f = finding(
        fmt::format("{} is too small for {}", stage, called(s, *m.motor)),
        fmt::format(
            "{} draws {} running; {} carries {} at best{}. Nothing that can be done to it makes it fit: take a stage for at least {}.",
            called(s, *m.motor), show(m.running), stage, show(Amps{m.best}),
            m.best > m.cooled   ? " with both channels joined"
            : m.cooled > m.bare ? " with a heat sink"
                                : "",
            show(m.running)),
        m.margin.subjects);
    f.ways = {{fmt::format("Take a stage for {} or more for long.", show(m.running))}};
    f.formula = fmt::format("{} > 1.5 x {}", show(m.running), show(Amps{m.best}));
    f.args = {{"running", m.running}, {"best", Amps{m.best}}};
    f.bar = Bar{"running current", m.running, {}, Amps{m.best}, "at best"};
    f.sources = sourcesOf({&channel.continuous, &channel.continuousSink});
    return f;
  });
}

Check check() {
  return {"stage-undersized", "current", "The stage is too small for the motor", Harm::Damage, judge};
}

}  // namespace bold::checks::stage_undersized
