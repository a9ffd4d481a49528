#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/solver/circuit.h"
#include "core/solver/sparse_system.h"

/// Newton's method over one block of a circuit. Inner loop: doubles in SI.
namespace bold::solver {

/// What the search for a block like this one begins with.
struct BlockStart {
  std::vector<double> volts;  ///< per node, against the first
  std::vector<char> modes;    ///< per branch: where supplies stand, see Solution::giving

  SparseFactors factors;                         ///< of the last Jacobian
  std::shared_ptr<const SparsePattern> pattern;  ///< a circuit of the same shape begins with it
  std::shared_ptr<const BranchSlots> slots;      ///< where its branches are in the pattern
};

/// A block and how it came out. Never changed while somebody else holds it.
struct BlockSolution : BlockStart {
  Circuit circuit;
  bool converged = false;
  int passes = 0;
  std::vector<double> amps;  ///< per branch, a to b

  /// Driving-point resistance between two nodes at the solved point.
  std::optional<double> resistance(int a, int b) const;
};

/// Works a block out, exact to rounding, so that the result does not depend on where the search began.
/// @param s its circuit, which hangs together and has at least two nodes, and where to begin: what came out for one like it, or
/// nothing
/// Not converged is a result, never a guess: voltages are then those of the last pass and must not be used.
void solveBlock(BlockSolution& s);

}  // namespace bold::solver
