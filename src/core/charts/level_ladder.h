#pragma once

#include "core/bench/solved_bench.h"

namespace bold::charts {

/// One signal between a pin and an input: what the pin gives and what the input needs, in volts against the input's own
/// ground.
struct Rung {
  bench::TerminalIndex pin = -1, input = -1;
  std::string from, to;               ///< names
  std::optional<Volts> high, low;     ///< what arrives when the pin is written high / low; nothing: never written so
  Volts needsHigh{0}, needsLow{0};    ///< promised high from here up, low from here down
  std::string highLevels, lowLevels;  ///< "0.7 x 5 V"
};

/// Every wired signal whose input states levels, in document order; the worst of all everyday commands.
std::vector<Rung> levelLadder(const bench::SolvedBench& solved);

}  // namespace bold::charts
