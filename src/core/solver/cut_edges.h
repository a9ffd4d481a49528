#pragma once

#include <utility>
#include <vector>

namespace bold::solver {

/// Which edges of a graph are cut edges: without one of them its two ends no longer hang together. Parallel edges are none.
/// @param edges pairs of nodes, 0 to nodes - 1; an edge from a node to itself is none
std::vector<bool> cutEdges(int nodes, const std::vector<std::pair<int, int>>& edges);

}  // namespace bold::solver
