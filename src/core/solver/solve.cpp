#include "core/solver/solve.h"

#include <algorithm>

#include "core/base/groups.h"

namespace bold::solver {
namespace {

using Kind = Branch::Kind;

constexpr double kConducts = 1e-6;  // S: below 1 Mohm two nodes have a voltage between them

// Conductance between the two ends at these voltages, to tell which nodes belong together.
double conductance(const Branch& b, const std::vector<double>& x) {
  const auto at = [&](int n) { return x[n]; };
  switch (b.kind) {
    case Kind::Conductance:
      return b.g;
    case Kind::Knee:
      return rampSlope(at(b.a) - at(b.b) - b.v0, kKneeWidth) / b.r;
    case Kind::Saturating:
      return 1 / b.r;
    case Kind::Current:
      return b.i != 0 ? 1 : 0;
    case Kind::Source:
    case Kind::Regulator:
    case Kind::Coil:
    case Kind::Given:
      return 1;
    case Kind::Collector:
    case Kind::Converter:
    case Kind::Lit:
      return 0;
    case Kind::PowerDraw:
    case Kind::Draw:
      return at(b.a) - at(b.b) > 0.5 ? 1 : 0;
    case Kind::Bipolar:
      return b.gain * ramp(b.sign * (at(b.c) - at(b.b)) - b.v0, kKneeWidth) / b.r > 1e-5 ? 1 : 0;
    case Kind::Mosfet:
      return ramp(b.sign * (at(b.c) - (b.sign > 0 ? std::min(at(b.a), at(b.b)) : std::max(at(b.a), at(b.b)))) - b.v0, kKneeWidth) > 0.03
                 ? 1
                 : 0;
  }
  return 0;
}

std::vector<int> islands(const Circuit& c, const std::vector<double>& x) {
  Groups groups(c.nodes);
  for (const auto& b : c.branches) {
    if (conductance(b, x) > kConducts) groups.join(b.a, b.b);
    if (b.kind == Kind::Regulator) groups.join(b.a, b.c);
  }
  std::vector<int> out(c.nodes);
  for (int i = 0; i < c.nodes; ++i) out[i] = groups.find(i);
  return out;
}

Circuit partOf(const Circuit& whole, const Blocks& blocks, const Blocks::Block& block) {
  Circuit out;
  out.nodes = static_cast<int>(block.nodes.size());
  out.branches.reserve(block.branches.size());
  for (const int k : block.branches) {
    auto& b = out.branches.emplace_back(whole.branches[k]);
    for (int* node : {&b.a, &b.b, &b.c, &b.d})
      if (*node >= 0) *node = blocks.local[*node];
  }
  return out;
}

// Takes the block of the same nodes out of another solution; nullptr when there is none.
std::shared_ptr<BlockSolution> counterpart(Solution& start, const Blocks::Block& block) {
  if (!start.blocks) return nullptr;
  const auto at = static_cast<std::size_t>(start.blocks->blockOf[block.nodes.front()]);
  const bool same = start.parts[at] && start.blocks->blocks[at].nodes == block.nodes;
  return same ? std::move(start.parts[at]) : nullptr;
}

// @param start the block of a solution like this one, which is written over when nobody else holds it; may be nullptr
std::shared_ptr<BlockSolution> solveOne(const Circuit& whole, const Blocks& blocks, const Blocks::Block& block,
                                        std::shared_ptr<BlockSolution> start, int& passes) {
  auto part = partOf(whole, blocks, block);
  if (start && start->converged && start->circuit == part) return start;
  const bool ours = start && start.use_count() == 1;
  auto out = ours ? start : std::make_shared<BlockSolution>();
  if (start && !ours) static_cast<BlockStart&>(*out) = *start;
  out->circuit = std::move(part);
  solveBlock(*out);
  passes += out->passes;
  return out;
}

// Resistance of a branch through which no current flows.
double ohmsAtRest(const Branch& b) {
  switch (b.kind) {
    case Kind::Conductance:
      return 1 / b.g;
    case Kind::Knee:
      return 1 / (rampSlope(-b.v0, kKneeWidth) / b.r + kGmin);
    default:
      return b.r;
  }
}

// Puts the blocks' voltages together: no current over a cut edge, no voltage across it.
void assemble(const Circuit& circuit, Solution& s) {
  const auto& blocks = *s.blocks;
  s.volts.assign(circuit.nodes, 0);
  s.amps.assign(circuit.branches.size(), 0);
  s.modes.assign(circuit.branches.size(), 0);
  for (const auto& anchor : blocks.order) {
    const auto& block = blocks.blocks[anchor.block];
    const auto* part = s.parts[anchor.block].get();
    s.cutOhms.push_back(anchor.cut < 0 ? 0 : ohmsAtRest(circuit.branches[anchor.cut]));
    const auto inside = [&](int node) { return part ? part->volts[blocks.local[node]] : 0; };
    const double lift = anchor.cut < 0 ? 0 : s.volts[anchor.outer] - inside(anchor.inner);
    for (const int n : block.nodes) s.volts[n] = inside(n) + lift;
    if (!part) continue;
    for (std::size_t k = 0; k < block.branches.size(); ++k) {
      s.amps[block.branches[k]] = part->amps[k];
      s.modes[block.branches[k]] = part->modes[k];
    }
  }
}

}  // namespace

std::optional<double> Solution::resistance(int a, int b) const {
  if (island[a] != island[b]) return std::nullopt;
  double sum = 0;
  const auto inside = [&](int block, int from, int to) {
    if (from == to) return true;
    const auto& part = parts[block];
    const auto r = part->resistance(blocks->local[from], blocks->local[to]);
    sum += r.value_or(0);
    return r.has_value();
  };
  // From both ends over the cut edges to the block where they meet; the later anchor hangs on the earlier.
  while (true) {
    const int blockA = blocks->blockOf[a];
    const int blockB = blocks->blockOf[b];
    if (blockA == blockB) return inside(blockA, a, b) ? std::optional(sum) : std::nullopt;
    const int placeA = blocks->placeOf[blockA];
    const int placeB = blocks->placeOf[blockB];
    int& end = placeA > placeB ? a : b;
    const auto at = static_cast<std::size_t>(std::max(placeA, placeB));
    const auto& anchor = blocks->order[at];
    if (!inside(anchor.block, end, anchor.inner)) return std::nullopt;
    sum += cutOhms[at];
    end = anchor.outer;
  }
}

Solution solve(const Circuit& circuit, Solution start) {
  Solution s;
  if (start.blocks && start.blocks->nodes != circuit.nodes) start = {};
  s.blocks = start.blocks && start.blocks->fit(circuit) ? start.blocks : std::make_shared<const Blocks>(blocksOf(circuit));
  s.converged = true;
  for (const auto& block : s.blocks->blocks) {
    if (block.nodes.size() < 2) {
      s.parts.push_back(nullptr);
      continue;
    }
    s.parts.push_back(solveOne(circuit, *s.blocks, block, counterpart(start, block), s.passes));
    const auto& part = *s.parts.back();
    s.converged = s.converged && part.converged;
  }
  assemble(circuit, s);
  s.island = islands(circuit, s.volts);
  return s;
}

}  // namespace bold::solver
