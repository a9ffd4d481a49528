#include "core/bench/input_levels.h"

#include "core/base/groups.h"
#include "core/bench/stand_ins.h"

namespace bold::bench {
namespace {

using parts::Level;
using Kind = solver::Branch::Kind;

constexpr Ohms kFloating{1e6};    // an input held by more than this floats
constexpr double kTies = 1e-5;    // S: ten in a row are still less than kFloating
constexpr double kLeastRail = 1;  // V

// What plain conductors and driven pins tie together needs no figure; for the others a resistance is worked out.
Groups tiedNodes(const Readings& r) {
  Groups tied(r.solution.volts.size());
  const auto& branches = r.netlist.circuit.branches;
  for (std::size_t k = 0; k < branches.size(); ++k) {
    const auto& b = branches[k];
    const bool ties = (b.kind == Kind::Conductance && b.g >= kTies) || (b.kind == Kind::Saturating && 1 / b.r >= kTies) ||
                      (b.kind == Kind::Source && r.solution.giving(k));
    if (ties) tied.join(b.a, b.b);
  }
  return tied;
}

Level levelAt(const Readings& r, TerminalIndex t, Groups& tied) {
  const auto ground = r.bench.terminal(r.bench.deviceOf(t), r.bench.facts(t).input->ground);
  const auto v = r.across(t, ground);
  if (r.node(t) < 0 || !v) return Level::Undefined;
  if (tied.find(r.node(t)) != tied.find(r.node(ground))) {
    const auto ohms = r.resistance(t, ground);
    if (!ohms || *ohms > kFloating) return Level::Undefined;
  }
  const auto threshold = thresholdOf(r, t);
  if (!threshold) return Level::Low;  // no supply: it reads nothing as high
  return v->value > (threshold->low + threshold->high) / 2 ? Level::High : Level::Low;
}

}  // namespace

std::optional<Threshold> thresholdOf(const Readings& r, TerminalIndex t) {
  const int device = r.bench.deviceOf(t);
  const auto& input = *r.bench.facts(t).input;
  const auto& levels = r.bench.devices[device].part->levels;
  const auto it = levels.find(input.levels);
  if (it == levels.end()) return std::nullopt;
  const auto& set = it->second;
  if (set.rail.empty()) return Threshold{valueOf(set.low.typical(), kLogicLow), valueOf(set.high.typical(), kLogicHigh)};
  const auto rail = r.across(r.bench.terminal(device, set.rail), r.bench.terminal(device, input.ground));
  if (!rail || rail->value < kLeastRail) return std::nullopt;
  return Threshold{set.lowShare * rail->value, set.highShare * rail->value};
}

std::vector<Level> inputLevels(const Readings& r, const Command& command) {
  std::vector<Level> out(r.bench.terminalCount(), Level::Undefined);
  auto tied = tiedNodes(r);
  for (const auto t : r.bench.inputs()) out[t] = levelAt(r, t, tied);
  for (const auto& [t, level] : command.forced) out[t] = level;
  return out;
}

}  // namespace bold::bench
