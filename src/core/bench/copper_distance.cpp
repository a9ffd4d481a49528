#include "core/bench/copper_distance.h"

#include <map>
#include <set>

#include "core/bench/wire_size.h"

namespace bold::bench {

std::optional<Metres> copperDistance(const Bench& bench, const Nets& nets, TerminalIndex from, TerminalIndex to, Metres most) {
  if (!nets.same(from, to)) return std::nullopt;
  // Nets are small: settle the nearest terminal again and again.
  const auto& members = nets.members(nets.of(from));
  std::map<TerminalIndex, double> distance{{from, 0}};
  std::set<TerminalIndex> done;
  while (true) {
    TerminalIndex next = -1;
    for (const auto& [t, d] : distance)
      if (!done.contains(t) && (next < 0 || d < distance[next])) next = t;
    if (next < 0) return Metres{0};  // joined inside a part only
    if (distance[next] > most.value) return std::nullopt;
    if (next == to) return Metres{distance[next]};
    done.insert(next);
    const double here = distance[next];
    const auto reach = [&](TerminalIndex t, double d) {
      const auto [it, fresh] = distance.emplace(t, d);
      if (!fresh) it->second = std::min(it->second, d);
    };
    for (const auto& l : bench.links) {
      if (l.a != next && l.b != next) continue;
      const bool wire = bench.connections[l.connection].kind == harness::ConnectionKind::Wire;
      reach(l.a == next ? l.b : l.a, here + (wire ? sizeOf(bench, l).length.value : 0));
    }
    for (const auto t : members)
      if (bench.deviceOf(t) == bench.deviceOf(next)) reach(t, here);
  }
}

}  // namespace bold::bench
