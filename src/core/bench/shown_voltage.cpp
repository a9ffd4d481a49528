#include "core/bench/shown_voltage.h"

namespace bold::bench {

std::optional<Volts> shownVoltage(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  for (const auto& pole : s.nets.sources())
    if (const auto v = p.across(t, pole.negative)) return v;
  return std::nullopt;
}

}  // namespace bold::bench
