#pragma once

#include <vector>

#include "core/solver/solve.h"

/// A second solver with nothing in common with the first but the laws of the branches: dense Gaussian elimination,
/// slopes by differences, and a capacitor at every node that is charged until nothing moves (pseudo-transient). Slow and
/// plain, for tests.
namespace bold::test {

struct ReferenceSolution {
  bool settled = false;
  std::vector<double> volts;  ///< against the reference of the island, as Solution
};

ReferenceSolution solveByCharging(const solver::Circuit& circuit);

}  // namespace bold::test
