#include "core/bench/coils.h"

#include <algorithm>
#include <set>

namespace bold::bench {

std::vector<TerminalIndex> tapsOf(const Bench& bench, const Motor& m) {
  std::set<TerminalIndex> seen;
  std::set<TerminalIndex> out;
  for (std::size_t i = 0; i < m.windings.size(); ++i)
    for (const auto& n : {windingOf(bench, m, i).a, windingOf(bench, m, i).b})
      if (const auto t = bench.terminal(m.device, n); !seen.insert(t).second) out.insert(t);
  return {out.begin(), out.end()};
}

bool tapsOpen(const Bench& bench, const Motor& m) {
  const auto taps = tapsOf(bench, m);
  return taps.size() > 1 && std::ranges::none_of(taps, [&](TerminalIndex t) { return bench.connected(t); });
}

std::vector<Coil> coilsOf(const Bench& bench, const Motor& m) {
  const auto taps = tapsOf(bench, m);
  std::vector<Coil> out;
  std::map<TerminalIndex, std::size_t> begun;  // by tap: the coil whose other half is still to come
  for (std::size_t i = 0; i < m.windings.size(); ++i) {
    const auto& w = windingOf(bench, m, i);
    const auto a = bench.terminal(m.device, w.a);
    const auto b = bench.terminal(m.device, w.b);
    const bool byB = std::ranges::count(taps, b) > 0;
    const auto tap = byB ? b : a;
    if (std::ranges::count(taps, tap) == 0) {
      out.push_back({w.name, a, b});
    } else if (const auto [it, fresh] = begun.try_emplace(tap, out.size()); fresh) {
      out.push_back({w.name, byB ? a : b, tap});
    } else {
      out[it->second].b = byB ? a : b;
    }
  }
  return out;
}

std::optional<double> ratedCurrent(const Bench& bench, const Motor& m) {
  constexpr double kHalves = 0.70710678118655;  // the same heat in two halves as in one at a time
  const auto phase = windingOf(bench, m, 0).phase.typical();
  if (!phase || m.kind != MotorKind::BipolarStepper || tapsOf(bench, m).empty()) return phase;
  return kHalves * *phase;
}

}  // namespace bold::bench
