#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"
#include "core/circuit/coils.h"

namespace bold::checks {
// A stepper on plain switches: its coils take supply over resistance.
Findings phaseCurrentUnlimited(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::BipolarStepper && m.kind != MotorKind::UnipolarStepper) continue;
    if (std::ranges::any_of(m.reached, [&](ChannelRef r) { return circuit::chopperOf(s.bench, r) != nullptr; })) continue;
    const auto* p = s.running(static_cast<int>(k), Charge::Full);
    if (!p) continue;
    const auto& w = circuit::windingOf(s.bench, m, 0);
    const auto rated = circuit::ratedCurrent(s.bench, m);
    double amps = 0;
    for (const int e : m.windings) amps = std::max(amps, std::abs(p->element(m.device, e).value));
    if (!rated || amps <= 1.1 * *rated) continue;
    // More than the stage stands is worse than more than the motor likes.
    Weight byStage = Weight::Caution;
    for (const auto& ref : m.reached)
      if (const auto load = shortLoad(s.bench, ref, Amps{amps}, Amps{amps})) byStage = std::max(byStage, weigh(*load));
    auto f =
        finding(severityOf(byStage), fmt::format("A coil of {} takes {}", called(s, m), show(Amps{amps})),
                fmt::format("Nothing limits the current of {}: a coil takes {} where it is made for {}{}.", called(s, m), show(Amps{amps}),
                            show(Amps{*rated}), byStage == Weight::Stop ? ", and that is more than the stage stands" : ""),
                {idOf(s.bench, m.device)});
    f.formula = fmt::format("V / R = {} > 1.1 x {}", show(Amps{amps}), show(Amps{*rated}));
    f.args = {{"current", Amps{amps}}, {"rated", Amps{*rated}}};
    f.bar = Bar{"coil current", Amps{amps}, {}, Amps{*rated}, "rated"};
    f.sources = sourcesOf({&w.phase, &w.resistance});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
