#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::coil_interrupted {
// A switch between a chopping stage and its coil: opened under current it kills the stage.
Findings judge(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Contact>(s.bench, [&](int d, int, const parts::Contact& c) {
    if (c.connector) return;
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    for (const auto& m : s.motors)
      for (const auto& ref : m.reached) {
        if (!bench::chopperOf(s.bench, ref)) continue;
        const auto& channel = bench::channelOf(s.bench, ref);
        const bool onCoil = std::ranges::any_of(channel.out, [&](const std::string& o) {
          const auto t = s.bench.terminal(ref.device, o);
          return s.nets.same(t, a) || s.nets.same(t, b);
        });
        if (!onCoil) continue;
        auto f = finding(Severity::Stop, fmt::format("{} can open a coil of {}", called(s.bench, d), called(s, m)),
                         fmt::format("{} lies between {} and a coil of {}: opened under current it sends the coil's energy into the stage.",
                                     called(s.bench, d), called(s.bench, ref.device), called(s, m)),
                         {idOf(s.bench, d), idOf(s.bench, m.device)});
        f.ways = {{fmt::format("Take {} out of the coil's lead; switch the supply of the stage instead.", called(s.bench, d))}};
        f.formula = "a switch in a coil's lead";
        out.push_back(std::move(f));
        return;
      }
  });
  return out;
}

Check check() {
  return {"coil-interrupted", "steppers", "A switch in a coil's lead", Harm::Damage, judge};
}

}  // namespace bold::checks::coil_interrupted
