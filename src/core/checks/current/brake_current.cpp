#include <fmt/core.h>

#include <cmath>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Braked at full speed: the motor drives its own voltage through its winding and the stage.
Findings brakeCurrent(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.intent && m.intent->ramp) continue;
    const auto* p = s.point(static_cast<int>(k), Action::Brake, Moment::Running, Charge::Nominal);
    const auto* run = s.running(static_cast<int>(k), Charge::Full);
    if (!p || !run || p->doing(static_cast<int>(k)) != circuit::Doing::Brake) continue;
    for (const auto& ref : m.reached) {
      const Amps amps{std::abs(p->element(m.device, m.windings[0]).value)};
      const auto load = shortLoad(s.bench, ref, amps, outputCurrent(s, *run, ref));
      if (!load || circuit::chopperOf(s.bench, ref)) continue;
      const auto w = weigh(*load);
      if (w < Weight::Caution) continue;
      auto f =
          finding(severityOf(w), fmt::format("{} brakes with {}", called(s, m), show(amps)),
                  fmt::format("Braked at full speed {} drives {} round through {}, which stands {} for a moment and has {}.", called(s, m),
                              show(amps), circuit::called(s.bench, ref), show(Amps{load->peak}), word(load->protection)),
                  {idOf(s.bench, m.device), s.bench.address(s.bench.terminal(ref.device, circuit::channelOf(s.bench, ref).out.front()))});
      f.formula = fmt::format("E / R = {} against {} peak", show(amps), show(Amps{load->peak}));
      f.args = {{"current", amps}, {"peak", Amps{load->peak}}};
      f.bar = Bar{"brake current", amps, AnyQuantity(Amps{load->running}), Amps{load->peak}, "peak"};
      f.sources = sourcesOf({&circuit::channelOf(s.bench, ref).peak});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
