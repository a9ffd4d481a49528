#pragma once

#include "core/bench/readings.h"

namespace bold::bench {

/// What a motor does at solved currents: told by the current of its windings, and for one that is let go by what its own voltage drives.
/// Undecided switches of its stage are for the caller to see to.
Doing doingOf(const Readings& readings, const std::vector<Motor>& motors, const Command& command, int motor);

}  // namespace bold::bench
