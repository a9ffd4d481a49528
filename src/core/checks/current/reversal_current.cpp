#include <fmt/core.h>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks {
// Turned round while still turning: the motor's own voltage adds to the supply's.
Findings reversalCurrent(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.intent && m.intent->ramp) continue;
    const auto* p = s.point(static_cast<int>(k), Action::Reverse, Moment::Reversing, Charge::Full);
    const auto* run = s.running(static_cast<int>(k), Charge::Full);
    if (!p || !run) continue;
    for (const auto& ref : m.reached) {
      const Amps amps = outputCurrent(s, *p, ref);
      const auto load = shortLoad(s.bench, ref, amps, outputCurrent(s, *run, ref));
      if (!load || circuit::chopperOf(s.bench, ref)) continue;
      // The pulse lasts as long as a start does; what the table calls a note is told by the stall already.
      const auto w = weigh(*load);
      if (w < Weight::Caution) continue;
      auto f =
          finding(severityOf(w), fmt::format("{} turns round with {}", called(s, m), show(amps)),
                  fmt::format("Sent backwards while it still turns, {} draws {}: its own voltage adds to the supply's. {} stands {} for a "
                              "moment and has {}.",
                              called(s, m), show(amps), circuit::called(s.bench, ref), show(Amps{load->peak}), word(load->protection)),
                  {idOf(s.bench, m.device), s.bench.address(s.bench.terminal(ref.device, circuit::channelOf(s.bench, ref).out.front()))});
      f.formula = fmt::format("(V + E) / R = {} against {} peak", show(amps), show(Amps{load->peak}));
      f.args = {{"current", amps}, {"peak", Amps{load->peak}}};
      f.bar = Bar{"reversal current", amps, AnyQuantity(Amps{load->running}), Amps{load->peak}, "peak"};
      f.sources = sourcesOf({&circuit::channelOf(s.bench, ref).peak, &circuit::windingOf(s.bench, m, 0).resistance});
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
