#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::brake_current {
namespace {

std::vector<Pulse> measure(const SolvedBench& s) {
  std::vector<Pulse> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.intent && m.intent->ramp) continue;
    const auto* p = s.point(static_cast<int>(k), Action::Brake, Moment::Running, Corner::Nominal);
    const auto* run = s.running(static_cast<int>(k), Corner::Full);
    if (!p || !run || p->doing(static_cast<int>(k)) != bench::Doing::Brake) continue;
    for (const auto& ref : m.reached)
      if (auto pulse = pulseThrough(s, m, ref, Amps{std::abs(p->element(m.device, m.windings[0]).value)}, outputCurrent(s, *run, ref),
                                    "brake current", *p))
        out.push_back(std::move(*pulse));
  }
  return out;
}

}  // namespace

// Braked at full speed: the motor drives its own voltage through its winding and the stage.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Pulse& b) {
    const Amps amps{b.load.amps};
    const Amps peak{b.load.peak};
    auto f = finding(fmt::format("{} brakes with {}", called(s, *b.motor), show(amps)),
                     fmt::format("Braked at full speed {} drives {} round through {}, which stands {} for a moment and has {}.",
                                 called(s, *b.motor), show(amps), bench::called(s.bench, b.ref), show(peak), word(b.load.protection)),
                     b.margin.subjects);
    f.ways = {{fmt::format("If the program lets {} coast before it stops, state that it does.", called(s, *b.motor)),
               fieldOf(s, *b.motor, "starting")},
              {fmt::format("Or take a stage that stands {} for a moment.", show(amps))}};
    f.formula = fmt::format("E / R = {} against {} peak", show(amps), show(peak));
    f.args = {{"current", amps}, {"peak", peak}};
    f.bar = barOf(b.margin, b.load.peak, "peak", Amps{b.load.running});
    f.sources = sourcesOf({&bench::channelOf(s.bench, b.ref).peak});
    return f;
  });
}

Check check() {
  return {"brake-current", "current", "The current of a sudden brake", Harm::Damage, judge};
}

}  // namespace bold::checks::brake_current
