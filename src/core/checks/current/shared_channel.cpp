#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::shared_channel {
namespace {

struct Shared {
  Margins margins;  // held together, running together
  ChannelRef ref;
  std::size_t motors;
  std::string names;
  ShortLoad load;
  std::optional<Severity> besides = Severity::Note;
};

bool anOutputEach(const std::vector<const Motor*>& loads) {
  const auto half = [](const Motor* m) { return m->half ? static_cast<int>(m->half->output) : -1; };
  return loads.size() == 2 && half(loads[0]) >= 0 && half(loads[1]) >= 0 && half(loads[0]) != half(loads[1]);
}

// Each one's own stall, added: they are held by the same thing often enough (a jammed shaft, a start).
std::vector<Shared> measure(const SolvedBench& s) {
  std::vector<Shared> out;
  for (const auto& ref : loadedChannels(s)) {
    const auto loads = loadsOf(s, ref);
    if (loads.size() < 2 || bench::chopperOf(s.bench, ref) || anOutputEach(loads)) continue;
    if (std::ranges::any_of(loads, [](const Motor* m) { return m->windings.size() != 1; })) continue;
    double sum = 0;
    double running = 0;
    std::vector<std::string> subjects{s.bench.address(s.bench.terminal(ref.device, bench::channelOf(s.bench, ref).out.front()))};
    std::string names;
    for (const auto* m : loads) {
      const auto* p = s.point(indexOf(s, *m), Action::Forward, Moment::Stalled, Corner::Full);
      const auto* run = s.running(indexOf(s, *m), Corner::Full);
      if (p) sum += std::abs(p->element(m->device, m->windings[0]).value);
      if (run) running += std::abs(run->element(m->device, m->windings[0]).value);
      subjects.push_back(idOf(s.bench, m->device));
      names += (names.empty() ? "" : " and ") + called(s, *m);
    }
    const auto load = shortLoad(s.bench, ref, Amps{sum}, Amps{running});
    if (!load || sum < 1e-3) continue;
    auto held = shortMargin(*load, "held together", subjects, nullptr);
    Margin together{.quantity = "running together",
                    .subjects = subjects,
                    .unit = Unit::Amp,
                    .value = running,
                    .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, load->continuous, "continuous"),
                                     atMost(LimitKind::Recommended, Severity::Stop, 1.5 * load->continuous, "1.5 x continuous"))};
    out.push_back({{std::move(held), std::move(together)}, ref, loads.size(), names, *load});
  }
  return out;
}

}  // namespace

// Several motors on one channel: what they draw together when all are held.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Shared& m) {
    const auto stage = bench::called(s.bench, m.ref);
    const Amps sum{m.load.amps};
    const Amps running{m.load.running};
    const Amps peak{m.load.peak};
    auto f = finding(fmt::format("{} carries {} motors", stage, m.motors),
                     fmt::format("{} share {}: {} running and {} when all are held; it stands {} for long, {} for a moment.", m.names,
                                 stage, show(running), show(sum), show(Amps{m.load.continuous}), show(peak)),
                     m.margins[0].subjects);
    f.ways = {{fmt::format("Give each motor a channel of its own, or take a stage that stands {} for a moment.", show(sum))}};
    f.formula = fmt::format("{} held together against {} peak", show(sum), show(peak));
    f.args = {{"stall", sum}, {"running", running}};
    f.bar = barOf(m.margins[0], peak.value, "peak", running);
    f.sources = sourcesOf({&bench::channelOf(s.bench, m.ref).peak});
    return f;
  });
}

Check check() {
  return {"shared-channel", "current", "Several motors on one channel", Harm::Damage, judge};
}

}  // namespace bold::checks::shared_channel
