#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::running_current {
namespace {

constexpr double kStopShare = 1.5;  // times the continuous rating

struct Running {
  Margin margin;
  ChannelRef ref;
  std::string who;
  Amps amps, rating;
};

// The output that carries most, and what runs then.
Running measure(const SolvedBench& s, ChannelRef ref) {
  const auto& channel = bench::channelOf(s.bench, ref);
  const auto& rating = continuousOf(s.bench, ref);
  Running m{{.quantity = "running current", .unit = Unit::Amp}, ref, {}, {}, Amps{rating.typical().value_or(0)}};
  TerminalIndex at = s.bench.terminal(ref.device, channel.out.front());
  const auto look = [&](const OperatingPoint* p, const std::string& name) {
    if (!p) return;
    if (!m.margin.value) m.margin.value = 0;
    for (const auto& o : channel.out) {
      const auto t = s.bench.terminal(ref.device, o);
      const Amps i{std::abs(leaving(s, *p, t).value)};
      if (i <= m.amps) continue;
      m.amps = i;
      m.margin.value = i.value;
      m.margin.at = p;
      m.who = name;
      at = t;
    }
  };
  const auto loads = loadsOf(s, ref);
  for (const auto* motor : loads) look(s.running(indexOf(s, *motor), Corner::Full), called(s, *motor));
  if (loads.size() > 1) look(s.point(Action::AllRunning, Corner::Full), "all its motors");
  m.margin.subjects = {s.bench.address(at)};
  m.margin.limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rating.typical(), "continuous", rating.source));
  if (rating.typical())
    m.margin.limits.push_back(
        atMost(LimitKind::Recommended, Severity::Stop, kStopShare * m.rating.value, "1.5 x continuous", rating.source));
  return m;
}

std::vector<Running> measure(const SolvedBench& s) {
  std::vector<Running> out;
  for (const auto& ref : loadedChannels(s))
    if (!bench::chopperOf(s.bench, ref)) out.push_back(measure(s, ref));  // of choppers see current-limit-setting
  return out;
}

}  // namespace

// Running current through each output against the continuous rating for the heat sink really fitted.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Running& m) {
    const auto stage = bench::called(s.bench, m.ref);
    auto f = finding(fmt::format("{} carries {} running", stage, show(m.amps)),
                     fmt::format("{} running draws {} through {}; it stands {} for long.", m.who, show(m.amps), stage, show(m.rating)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Take a stage for {} or more for long.", show(m.amps))}};
    if (s.bench.devices[m.ref.device].part->setting("heatSink"))
      f.ways.push_back({fmt::format("If a heat sink is fitted to {}, say so.", called(s.bench, m.ref.device)),
                        settingOf(s.bench, m.ref.device, "heatSink")});
    f.formula = fmt::format("{} > {}{}", show(m.amps), m.margin.stops() ? "1.5 x " : "", show(m.rating));
    f.args = {{"current", m.amps}, {"limit", m.rating}};
    f.bar = barOf(m.margin, m.rating.value, "continuous");
    f.sources = sourcesOf({&continuousOf(s.bench, m.ref)});
    return f;
  });
}

Check check() {
  return {"running-current", "current", "More running current than the stage stands", Harm::Damage, judge};
}

}  // namespace bold::checks::running_current
