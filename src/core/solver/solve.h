#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/solver/block_solver.h"
#include "core/solver/blocks.h"
#include "core/solver/circuit.h"

/// Nodal analysis over branches, block by block: what no current joins to a change is not worked out again.
namespace bold::solver {

struct Solution {
  bool converged = false;
  int passes = 0;             ///< of those blocks that were worked out anew
  std::vector<double> volts;  ///< per node, against its island's reference
  std::vector<double> amps;   ///< per branch, a to b
  std::vector<char> modes;    ///< per branch: where supplies stand
  std::vector<int> island;    ///< per node: nodes that share no conducting branch have no voltage between them

  /// Whether a supply gives what its resistance lets through: neither idle nor in its limit.
  bool giving(std::size_t branch) const { return modes[branch] == 0; }

  /// Driving-point resistance between two nodes at the solved point; nothing when they share no island.
  std::optional<double> resistance(int a, int b) const;

  std::shared_ptr<const Blocks> blocks;
  std::vector<std::shared_ptr<BlockSolution>> parts;  ///< per block, shared with other solutions; nullptr: a single node
  std::vector<double> cutOhms;                        ///< per anchor of Blocks::order
};

/// @param start a solution to begin from, of this circuit or one like it; blocks that are the same are taken over
/// Not converged is a result, never a guess: voltages are then those of the last pass and must not be used.
Solution solve(const Circuit& circuit, Solution start = {});

}  // namespace bold::solver
