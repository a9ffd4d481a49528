#include "core/solver/blocks.h"

#include <algorithm>

#include "core/base/groups.h"
#include "core/solver/cut_edges.h"

namespace bold::solver {

namespace {

std::array<int, 4> endsOf(const Branch& b) {
  return {b.a, b.b, b.c, b.d};
}

// Without current these have no voltage either; supplies keep theirs.
bool isPlain(const Branch& b) {
  using Kind = Branch::Kind;
  return (b.kind == Kind::Conductance || b.kind == Kind::Knee || b.kind == Kind::Saturating) && b.c < 0 && b.d < 0;
}

}  // namespace

bool Blocks::fit(const Circuit& circuit) const {
  if (circuit.nodes != nodes || circuit.branches.size() != ends.size()) return false;
  for (std::size_t k = 0; k < ends.size(); ++k) {
    const auto& b = circuit.branches[k];
    if (endsOf(b) != ends[k] || (cut[k] && !isPlain(b))) return false;
  }
  return true;
}

Blocks blocksOf(const Circuit& circuit) {
  const int nodes = circuit.nodes;
  Blocks out;
  out.nodes = nodes;
  for (const auto& b : circuit.branches) out.ends.push_back(endsOf(b));
  std::vector<std::pair<int, int>> edges;
  for (const auto& [a, b, c, d] : out.ends) edges.emplace_back(a, b);
  for (const auto& [a, b, c, d] : out.ends)
    for (const int more : {c, d})
      if (more >= 0) edges.emplace_back(more, b);
  auto cut = cutEdges(nodes, edges);
  Groups groups(nodes);
  cut.resize(out.ends.size());
  for (std::size_t k = 0; k < out.ends.size(); ++k) {
    const auto& [a, b, c, d] = out.ends[k];
    cut[k] = cut[k] && isPlain(circuit.branches[k]);
    if (!cut[k]) groups.join(a, b);
    for (const int more : {c, d})
      if (more >= 0) groups.join(more, b);
  }
  // Blocks are numbered by their least node.
  out.blockOf.assign(nodes, -1);
  out.local.assign(nodes, 0);
  for (int n = 0; n < nodes; ++n) {
    auto& mine = out.blockOf[n];
    const int root = groups.find(n);
    if (root == n) {
      mine = static_cast<int>(out.blocks.size());
      out.blocks.emplace_back();
    } else {
      mine = out.blockOf[root];
    }
    auto& block = out.blocks[mine];
    out.local[n] = static_cast<int>(block.nodes.size());
    block.nodes.push_back(n);
  }
  std::vector<std::vector<int>> hanging(out.blocks.size());  // cut edges at each block
  for (std::size_t k = 0; k < out.ends.size(); ++k) {
    const auto a = static_cast<std::size_t>(out.blockOf[out.ends[k][0]]);
    const auto b = static_cast<std::size_t>(out.blockOf[out.ends[k][1]]);
    if (a == b) {
      out.blocks[a].branches.push_back(static_cast<int>(k));
      continue;
    }
    hanging[a].push_back(static_cast<int>(k));
    hanging[b].push_back(static_cast<int>(k));
  }
  out.placeOf.assign(out.blocks.size(), -1);
  for (std::size_t root = 0; root < out.blocks.size(); ++root) {
    if (out.placeOf[root] >= 0) continue;
    const auto first = out.order.size();
    out.placeOf[root] = static_cast<int>(first);
    out.order.push_back({static_cast<int>(root)});
    for (auto at = first; at < out.order.size(); ++at)
      for (const int k : hanging[out.order[at].block]) {
        auto outer = out.ends[k][0];
        auto inner = out.ends[k][1];
        if (out.blockOf[outer] != out.order[at].block) std::swap(outer, inner);
        const int next = out.blockOf[inner];
        if (out.placeOf[next] >= 0) continue;
        out.placeOf[next] = static_cast<int>(out.order.size());
        out.order.push_back({next, k, outer, inner, static_cast<int>(at)});
      }
  }
  out.cut = std::move(cut);
  return out;
}

}  // namespace bold::solver
