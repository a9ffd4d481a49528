#pragma once

#include <vector>

#include "core/bench/solved_bench.h"

namespace bold::bench {

/// A controller pin that stands on what a button, switch, slider or sensor moves, or on an input of it: by copper, resistors and
/// transistors, past no supply and not through its own contacts.
struct SensedPin {
  int device;   ///< the sensor
  int element;  ///< its contact; -1: the end is an input
  TerminalIndex end;
  TerminalIndex pin;
};

/// In bench order; none twice for one end.
std::vector<SensedPin> sensedPins(const SolvedBench& s);

}  // namespace bold::bench
