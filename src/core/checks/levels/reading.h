#pragma once

#include "core/checks/queries.h"

namespace bold::checks {

/// What an input sees and what it needs, in volts against its part's own ground.
struct Reading {
  Volts volts, low, high;
  std::string lowLevels, highLevels;  ///< how the limits come about: "0.7 x 5 V"
};

/// Nothing when the part states no levels, has no logic supply, or no path joins input and ground.
std::optional<Reading> readingAt(const SolvedBench& s, const OperatingPoint& p, TerminalIndex input);

}  // namespace bold::checks
