#include "core/solver/cut_edges.h"

#include <algorithm>

namespace bold::solver {
namespace {

struct Edge {
  int to, id;
};

}  // namespace

// Depth first search with low links, by an explicit stack.
std::vector<bool> cutEdges(int nodes, const std::vector<std::pair<int, int>>& edges) {
  std::vector<std::vector<Edge>> around(nodes);
  for (std::size_t e = 0; e < edges.size(); ++e) {
    const auto [a, b] = edges[e];
    if (a == b) continue;
    around[a].push_back({b, static_cast<int>(e)});
    around[b].push_back({a, static_cast<int>(e)});
  }
  std::vector<bool> out(edges.size(), false);
  std::vector<int> found(nodes, -1);
  std::vector<int> low(nodes, 0);
  struct Frame {
    int node, by;
    std::size_t next;
  };
  std::vector<Frame> stack;
  int time = 0;
  for (int root = 0; root < nodes; ++root) {
    if (found[root] >= 0) continue;
    stack.push_back({root, -1, 0});
    found[root] = low[root] = time++;
    while (!stack.empty()) {
      auto& frame = stack.back();
      const auto here = static_cast<std::size_t>(frame.node);
      if (frame.next < around[here].size()) {
        const auto edge = around[here][frame.next++];
        const auto there = static_cast<std::size_t>(edge.to);
        if (edge.id == frame.by) continue;
        if (found[there] >= 0) {
          low[here] = std::min(low[here], found[there]);
        } else {
          found[there] = low[there] = time++;
          stack.push_back({edge.to, edge.id, 0});
        }
        continue;
      }
      const auto done = frame;
      stack.pop_back();
      if (stack.empty()) continue;
      const auto parent = static_cast<std::size_t>(stack.back().node);
      low[parent] = std::min(low[parent], low[here]);
      if (low[here] > found[parent]) out[done.by] = true;
    }
  }
  return out;
}

}  // namespace bold::solver
