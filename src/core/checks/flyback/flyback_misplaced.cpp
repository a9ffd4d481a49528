#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"

namespace bold::checks::flyback_misplaced {

// Why a diode that is there does not clamp: it lies across the switch, where it never conducts.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& d : looseDiodes(s)) {
    for (std::size_t m = 0; m < s.motors.size(); ++m) {
      const auto& motor = s.motors[m];
      const auto* p = worstOpened(s, static_cast<int>(m));
      if (!p || p->arcShare(static_cast<int>(m)) < 0.05) continue;
      for (const auto& ref : motor.reached) {
        const auto& channel = bench::channelOf(s.bench, ref);
        if (!channel.lowSide || channel.returnTerminal.empty()) continue;
        const auto back = s.bench.terminal(ref.device, channel.returnTerminal);
        const bool across = std::ranges::any_of(channel.out, [&](const std::string& o) {
          const auto t = s.bench.terminal(ref.device, o);
          return (s.nets.same(d.anode, t) && s.nets.same(d.cathode, back)) || (s.nets.same(d.cathode, t) && s.nets.same(d.anode, back));
        });
        if (!across) continue;
        auto f = finding(Severity::Note, fmt::format("{} lies across the switch", called(s.bench, d.device)),
                         fmt::format("{} lies across {}, not across {}: there it clamps nothing.", called(s.bench, d.device),
                                     bench::called(s.bench, ref), called(s, motor)),
                         {idOf(s.bench, d.device), idOf(s.bench, motor.device)});
        f.ways = {
            {fmt::format("Put {} across {}: its band to the end that is at the supply.", called(s.bench, d.device), called(s, motor))}};
        f.formula = "the current of the winding must flow round through the diode and back into the winding";
        out.push_back(std::move(f));
      }
    }
  }
  return out;
}

Check check() {
  return {"flyback-misplaced", "flyback", "A diode where it clamps nothing", Harm::Damage, judge};
}

}  // namespace bold::checks::flyback_misplaced
