#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::reversal_current {
namespace {

std::vector<Pulse> measure(const SolvedBench& s) {
  std::vector<Pulse> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.intent && m.intent->ramp) continue;
    const auto* p = s.point(static_cast<int>(k), Action::Reverse, Moment::Reversing, Corner::Full);
    const auto* run = s.running(static_cast<int>(k), Corner::Full);
    if (!p || !run) continue;
    for (const auto& ref : m.reached)
      if (auto pulse = pulseThrough(s, m, ref, outputCurrent(s, *p, ref), outputCurrent(s, *run, ref), "reversal current", *p))
        out.push_back(std::move(*pulse));
  }
  return out;
}

}  // namespace

// Turned round while still turning: the motor's own voltage adds to the supply's.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Pulse& r) {
    const Amps amps{r.load.amps};
    const Amps peak{r.load.peak};
    auto f =
        finding(fmt::format("{} turns round with {}", called(s, *r.motor), show(amps)),
                fmt::format("Sent backwards while it still turns, {} draws {}: its own voltage adds to the supply's. {} stands {} for a "
                            "moment and has {}.",
                            called(s, *r.motor), show(amps), bench::called(s.bench, r.ref), show(peak), word(r.load.protection)),
                r.margin.subjects);
    f.ways = {{fmt::format("If the program lets {} stop before it turns it round, state that it does.", called(s, *r.motor)),
               fieldOf(s, *r.motor, "starting")},
              {fmt::format("Or take a stage that stands {} for a moment.", show(amps))}};
    f.formula = fmt::format("(V + E) / R = {} against {} peak", show(amps), show(peak));
    f.args = {{"current", amps}, {"peak", peak}};
    f.bar = barOf(r.margin, r.load.peak, "peak", Amps{r.load.running});
    f.sources = sourcesOf({&bench::channelOf(s.bench, r.ref).peak, &bench::windingOf(s.bench, *r.motor, 0).resistance});
    return f;
  });
}

Check check() {
  return {"reversal-current", "current", "The current of a sudden reversal", Harm::Damage, judge};
}

}  // namespace bold::checks::reversal_current
