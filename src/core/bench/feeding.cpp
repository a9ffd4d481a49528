#include "core/bench/feeding.h"

#include <set>

#include "core/bench/queries.h"

namespace bold::bench {

TerminalIndex dryEnd(const SolvedBench& s, TerminalIndex t) {
  std::set<TerminalIndex> seen{t};
  for (bool further = true; further;) {
    further = false;
    TerminalIndex next = -1;
    eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
      const auto out = at(s.bench, d, r.out);
      const auto in = at(s.bench, d, r.in);
      if (out >= 0 && in >= 0 && s.nets.same(out, t) && !seen.contains(in)) next = in;
    });
    if (next < 0 || sourceAt(s, t, true)) continue;
    seen.insert(next);
    t = next;
    further = true;
  }
  return t;
}

}  // namespace bold::bench
