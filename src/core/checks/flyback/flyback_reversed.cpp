#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::flyback_reversed {
namespace {
constexpr Amps kConducts{0.02};
}

// A diode beside a motor that conducts while the switch is on: it shorts the motor instead of clamping it.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& d : looseDiodes(s)) {
    for (std::size_t m = 0; m < s.motors.size(); ++m) {
      const auto& motor = s.motors[m];
      const auto* p = s.running(static_cast<int>(m), Corner::Full);
      if (!p || motor.windings.size() != 1) continue;
      const auto& w = bench::windingOf(s.bench, motor, 0);
      const auto a = s.bench.terminal(motor.device, w.a);
      const auto b = s.bench.terminal(motor.device, w.b);
      const bool beside = (s.nets.same(d.anode, a) && s.nets.same(d.cathode, b)) || (s.nets.same(d.anode, b) && s.nets.same(d.cathode, a));
      const auto i = p->element(d.device, d.element);
      if (!beside || i < kConducts) continue;
      auto f = finding(Severity::Stop, fmt::format("{} is the wrong way round", called(s.bench, d.device)),
                       fmt::format("While {} is on, {} flow through {} instead of through the motor.", called(s, motor), show(i),
                                   called(s.bench, d.device)),
                       {idOf(s.bench, d.device), idOf(s.bench, motor.device)});
      f.formula = fmt::format("{} forward while the switch is closed", show(i));
      f.args = {{"current", i}};
      // Its band at the lead that is said to be positive: then it may be the supply that is the wrong way round.
      const auto& forward = motor.intent ? motor.intent->forwardLead : std::string();
      const bool asStated = !forward.empty() && s.nets.same(d.cathode, s.bench.terminal(motor.device, forward));
      if (asStated)
        f.ways = {{fmt::format("Hold the supply of {} against its marks: {} stands right beside the lead that is said to be positive.",
                               called(s, motor), called(s.bench, d.device))},
                  {fmt::format("Or turn {} round, if it is the lead that is stated wrongly.", called(s.bench, d.device))}};
      else
        f.repair = RepairDraft(s.bench)
                       .exchange(d.anode, d.cathode)
                       .repair(fmt::format("Turn {} round: its band to {}.", called(s.bench, d.device),
                                           s.bench.called(s.nets.same(d.anode, a) ? a : b)));
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"flyback-reversed", "flyback", "A clamp diode the wrong way round", Harm::Damage, judge};
}

}  // namespace bold::checks::flyback_reversed
