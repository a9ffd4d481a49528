#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::diode_on_reversible_motor {
// A single diode across a motor that a bridge can turn round: a short in one direction.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& d : looseDiodes(s))
    for (const auto& m : s.motors) {
      if (m.windings.size() != 1) continue;
      const auto& w = bench::windingOf(s.bench, m, 0);
      const auto a = s.bench.terminal(m.device, w.a);
      const auto b = s.bench.terminal(m.device, w.b);
      const bool across = (s.nets.same(d.anode, a) && s.nets.same(d.cathode, b)) || (s.nets.same(d.anode, b) && s.nets.same(d.cathode, a));
      const bool reversible = std::ranges::any_of(m.reached, [&](ChannelRef r) {
        const auto& c = bench::channelOf(s.bench, r);
        return c.out.size() > 1 && !c.lowSide;
      });
      const auto* body = &std::get<parts::Diode>(s.bench.devices[d.device].part->elements[d.element].body);
      if (!across || !reversible || body->zener.known()) continue;
      auto f = finding(Severity::Stop, fmt::format("{} shorts the bridge one way round", called(s.bench, d.device)),
                       fmt::format("{} lies across {}, which a bridge can turn round: one way round it conducts straight through. A bridge "
                                   "clamps by its own diodes.",
                                   called(s.bench, d.device), called(s, m)),
                       {idOf(s.bench, d.device), idOf(s.bench, m.device)});
      f.ways = {{fmt::format("Take {} away from across {}.", called(s.bench, d.device), called(s, m))}};
      f.formula = "one diode across both outputs of a bridge";
      RepairDraft draft(s.bench);
      for (std::size_t i = 0; i < s.bench.connections.size(); ++i) {
        const auto& c = s.bench.connections[i];
        const auto& id = idOf(s.bench, d.device);
        if (c.a.device == id || c.b.device == id) draft.remove(static_cast<int>(i));
      }
      // It may be one of those that the bridge needs, gone astray.
      const bool needed = std::ranges::any_of(m.reached, [&](ChannelRef r) {
        const auto& c = bench::channelOf(s.bench, r);
        return !c.clampsInside || !c.clampsDoubtful.empty();
      });
      if (!needed) f.repair = draft.repair(fmt::format("Take {} away.", called(s.bench, d.device)));
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"diode-on-reversible-motor", "flyback", "A diode across a reversible motor", Harm::Damage, judge};
}

}  // namespace bold::checks::diode_on_reversible_motor
