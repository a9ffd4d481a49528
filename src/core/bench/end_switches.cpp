#include "core/bench/end_switches.h"

#include <algorithm>
#include <set>

#include "core/bench/peripheral_commands.h"
#include "core/bench/queries.h"

namespace bold::bench {

std::vector<EndSwitch> endSwitches(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors) {
  std::vector<EndSwitch> out;
  const auto movers = movedContacts(bench, nets);
  if (std::ranges::all_of(movers, [](const MovedContacts& m) { return m.switchedOff || m.relay; })) return out;
  const Nets fixed(bench, false);
  for (std::size_t k = 0; k < motors.size(); ++k) {
    const auto& m = motors[k];
    if (m.kind != MotorKind::TwoLead || m.windings.size() != 1) continue;
    std::set<int> lead;  // nets that belong to its leads, one switch after the other
    for (const auto& end : {windingOf(bench, m, 0).a, windingOf(bench, m, 0).b})
      if (const auto t = bench.terminal(m.device, end); t >= 0 && !fixed.rail(fixed.of(t))) lead.insert(fixed.of(t));
    std::set<int> known;  // devices
    for (bool more = true; more;) {
      more = false;
      for (const auto& mover : movers) {
        const int device = mover.contacts.front().first;
        if (mover.switchedOff || mover.relay || known.contains(device)) continue;
        for (const auto& [d, e] : mover.contacts) {
          const auto* c = std::get_if<parts::Contact>(&bench.devices[d].part->elements[e].body);
          if (!c || !c->closed || c->moved == parts::Moved::Slides || c->moved == parts::Moved::Thrown) continue;
          const auto a = at(bench, d, c->a), b = at(bench, d, c->b);
          if (a < 0 || b < 0 || (!lead.contains(fixed.of(a)) && !lead.contains(fixed.of(b)))) continue;
          for (const auto t : {a, b})
            if (!fixed.rail(fixed.of(t))) lead.insert(fixed.of(t));
          more = known.insert(device).second;
          out.push_back({static_cast<int>(k), device, mover.contacts});
          break;
        }
      }
    }
  }
  return out;
}

}  // namespace bold::bench
