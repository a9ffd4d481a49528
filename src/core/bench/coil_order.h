#pragma once

#include "core/bench/solved_bench.h"

namespace bold::bench {

/// What a coil does in one step: +1 and -1 for the two directions, 0 for none.
using CoilRow = std::vector<int>;

/// The coils of a stepper over the steps of its sequence, as the intent means them and as the wires give them.
struct CoilOrder {
  std::vector<std::string> coils;  ///< names
  std::vector<CoilRow> intended;   ///< one a step
  std::vector<CoilRow> wired;
  bool turns = false;      ///< the wired field goes round
  bool backwards = false;  ///< and the other way than intended
};

/// Nothing for other motors, or when its steps were not solved.
std::optional<CoilOrder> coilOrder(const SolvedBench& solved, int motor);

}  // namespace bold::bench
