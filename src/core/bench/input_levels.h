#pragma once

#include <optional>
#include <vector>

#include "core/bench/readings.h"

namespace bold::bench {

/// What an input needs for low and high, V.
struct Threshold {
  double low, high;
};
/// Nothing when the part's rail has no voltage, or nothing is said of its levels.
std::optional<Threshold> thresholdOf(const Readings& readings, TerminalIndex input);

/// What every input reads, by terminal (meaningless for others): Undefined where it floats. What the command puts there directly counts.
std::vector<parts::Level> inputLevels(const Readings& readings, const Command& command);

}  // namespace bold::bench
