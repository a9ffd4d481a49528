#pragma once

#include <array>
#include <vector>

#include "core/circuit/circuit.h"

namespace bold::circuit {

/// The blocks of a circuit: they exchange no current, because each hangs on the next by a single two-ended branch (a
/// bridge), over which nothing can flow that does not come back. A wire to a lone input is one, and so is the one ground
/// wire between two benches. Depends only on what is joined to what.
struct Blocks {
  struct Block {
    std::vector<int> nodes, branches;  ///< ascending
  };
  /// How a block hangs on one that comes before it.
  struct Step {
    int block = 0;
    int bridge = -1;             ///< branch; -1: on nothing
    int outer = -1, inner = -1;  ///< nodes: on the block before, on this one
    int before = -1;             ///< step of the block before
  };
  std::vector<Block> blocks;
  std::vector<int> blockOf, local;  ///< per node: its block, and its index there
  std::vector<Step> order;          ///< every block once, after the one it hangs on
  std::vector<int> stepOf;          ///< per block

  /// Of what it was made: the ends of every branch, and which of them are bridges.
  using Ends = std::vector<std::array<int, 4>>;
  int nodes = 0;
  Ends ends;
  std::vector<bool> bridge;

  /// Whether these are blocks of the circuit too: it joins the same nodes, and a bridge still has no voltage of its own.
  bool fit(const Circuit& circuit) const;
};

Blocks blocksOf(const Circuit& circuit);

}  // namespace bold::circuit
