#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Several motors on one channel: what they draw together when all are held.
Findings sharedChannel(const SolvedBench& s) {
  Findings out;
  for (const auto& ref : loadedChannels(s)) {
    const auto loads = loadsOf(s, ref);
    if (loads.size() < 2 || circuit::chopperOf(s.bench, ref)) continue;
    if (std::ranges::any_of(loads, [](const Motor* m) { return m->windings.size() != 1; })) continue;
    const auto half = [](const Motor* m) { return m->half ? static_cast<int>(m->half->output) : -1; };
    if (loads.size() == 2 && half(loads[0]) >= 0 && half(loads[1]) >= 0 && half(loads[0]) != half(loads[1])) continue;  // an output each
    // Each one's own stall, added: they are held by the same thing often enough (a jammed shaft, a start).
    double sum = 0;
    double running = 0;
    std::vector<std::string> subjects{s.bench.address(s.bench.terminal(ref.device, circuit::channelOf(s.bench, ref).out.front()))};
    std::string names;
    for (const auto* m : loads) {
      const auto* p = s.point(indexOf(s, *m), Action::Forward, Moment::Stalled, Charge::Full);
      const auto* run = s.running(indexOf(s, *m), Charge::Full);
      if (p) sum += std::abs(p->element(m->device, m->windings[0]).value);
      if (run) running += std::abs(run->element(m->device, m->windings[0]).value);
      subjects.push_back(idOf(s.bench, m->device));
      names += (names.empty() ? "" : " and ") + called(s, *m);
    }
    const auto load = shortLoad(s.bench, ref, Amps{sum}, Amps{running});
    if (!load || sum < 1e-3) continue;
    const auto w = std::max(weigh(*load), running > 1.5 * load->continuous ? Weight::Stop
                                          : running > load->continuous     ? Weight::Caution
                                                                           : Weight::Note);
    auto f = finding(severityOf(w), fmt::format("{} carries {} motors", circuit::called(s.bench, ref), loads.size()),
                     fmt::format("{} share {}: {} running and {} when all are held; it stands {} for long, {} for a moment.", names,
                                 circuit::called(s.bench, ref), show(Amps{running}), show(Amps{sum}), show(Amps{load->continuous}),
                                 show(Amps{load->peak})),
                     subjects);
    f.formula = fmt::format("{} held together against {} peak", show(Amps{sum}), show(Amps{load->peak}));
    f.args = {{"stall", Amps{sum}}, {"running", Amps{running}}};
    f.bar = Bar{"held together", Amps{sum}, AnyQuantity(Amps{running}), Amps{load->peak}, "peak"};
    f.sources = sourcesOf({&circuit::channelOf(s.bench, ref).peak});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
