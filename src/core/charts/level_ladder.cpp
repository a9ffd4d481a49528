#include "core/charts/level_ladder.h"

#include <algorithm>
#include <map>

#include "core/checks/levels/reading.h"

namespace bold::charts {

std::vector<Rung> levelLadder(const bench::SolvedBench& s) {
  std::map<bench::TerminalIndex, Rung> rungs;
  for (const auto& p : s.points) {
    if (!bench::everyday(*p)) continue;
    for (const auto& [pin, state] : p->command().pins) {
      if (state == bench::PinState::Float) continue;
      for (const auto t : bench::signalReach(s, pin)) {
        if (!s.bench.facts(t).input || s.bench.deviceOf(t) == s.bench.deviceOf(pin)) continue;
        const auto r = checks::readingAt(s, *p, t);
        if (!r) continue;
        auto& rung = rungs[t];
        if (rung.input < 0) {
          rung.pin = pin;
          rung.input = t;
          rung.from = s.bench.called(pin);
          rung.to = s.bench.called(t);
          rung.needsHigh = r->high;
          rung.needsLow = r->low;
          rung.highLevels = r->highLevels();
          rung.lowLevels = r->lowLevels();
        }
        auto& slot = state == bench::PinState::High ? rung.high : rung.low;
        // The worst: the lowest high, the highest low.
        if (!slot || (state == bench::PinState::High ? r->volts < *slot : r->volts > *slot)) slot = r->volts;
      }
    }
  }
  std::vector<Rung> out;
  for (auto& [t, rung] : rungs) out.push_back(std::move(rung));
  return out;
}

}  // namespace bold::charts
