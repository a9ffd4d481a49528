#pragma once

#include <array>
#include <vector>

#include "core/solver/circuit.h"

namespace bold::solver {

/// The blocks of a circuit: they exchange no current, because each hangs on the next by a single two-ended branch (a
/// cut edge), over which nothing can flow that does not come back. A wire to a lone input is one, and so is the one ground
/// wire between two benches. Depends only on what is joined to what.
struct Blocks {
  struct Block {
    std::vector<int> nodes, branches;  ///< ascending
  };
  /// How a block hangs on one that comes before it.
  struct Anchor {
    int block = 0;
    int cut = -1;                ///< the branch that is a cut edge; -1: on nothing
    int outer = -1, inner = -1;  ///< nodes: on the block before, on this one
    int before = -1;             ///< anchor of the block before
  };
  std::vector<Block> blocks;
  std::vector<int> blockOf, local;  ///< per node: its block, and its index there
  std::vector<Anchor> order;        ///< every block once, after the one it hangs on
  std::vector<int> placeOf;         ///< per block

  /// Of what it was made: the ends of every branch, and which of them are cut edges.
  using Ends = std::vector<std::array<int, 4>>;
  int nodes = 0;
  Ends ends;
  std::vector<bool> cut;

  /// Whether these are blocks of the circuit too: it joins the same nodes, and a cut edge still has no voltage of its own.
  bool fit(const Circuit& circuit) const;
};

Blocks blocksOf(const Circuit& circuit);

}  // namespace bold::solver
