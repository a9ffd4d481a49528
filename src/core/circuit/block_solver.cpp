#include "core/circuit/block_solver.h"

#include <algorithm>
#include <cmath>

#include "core/circuit/block_system.h"

namespace bold::circuit {
namespace {

using Vector = BlockSystem::Vector;

constexpr double kVoltTolerance = 1e-6;
constexpr double kRoughly = 1e-3;  // of the voltages on the way
constexpr double kAmpTolerance = 1e-9;
constexpr int kMostFlips = 40;
constexpr int kTogether = 4;  // rounds

constexpr int kPolishing = 3;
constexpr double kLastStep = 1e-5;       // V
constexpr double kExact = 1e-12;         // A
constexpr double kLongest = 50;          // V a step
constexpr double kLongestStride = 1.95;  // of 2, which would end where the slope is nothing
constexpr int kQuick = 16;               // passes that a start close to the solution needs at most
constexpr int kHurried = 1;              // a stage on the way there need not come to rest
constexpr int kThorough = 80;
constexpr double kFirstCurrent = 0.1;  // A: where the search for a collector current begins

enum class Rest { None, Rough, Full };

// Settled: no node wants to move, or what would move it is less current than anybody could measure. The second half is
// for nodes that only open semiconductors hold: rounding alone moves those by millivolts.
Rest restOf(const Vector& step, const Vector& residual, const Vector& x) {
  bool full = true;
  for (std::size_t i = 0; i < step.size(); ++i) {
    const double size = 1 + std::min(std::abs(x[i]), 100.0);
    if (std::abs(step[i]) <= kVoltTolerance * size || std::abs(residual[i]) <= kAmpTolerance) continue;
    full = false;
    if (!(std::abs(step[i]) <= kRoughly * size)) return Rest::None;
  }
  return full ? Rest::Full : Rest::Rough;
}

double greatest(const Vector& v) {
  double most = 0;
  for (const double x : v) most = std::max(most, std::abs(x));
  return most;
}

// Last small steps, exact to rounding: results must not depend on where the search began. Nodes that hardly anything
// holds may want to move far; they are held back so that they cannot spoil the others, and a step that makes things
// worse (at the corner of a knee the slope tells nothing) is taken back.
void polish(BlockSystem& system, Vector& x) {
  system.stamp(x, 0);
  Vector step;
  for (int k = 0; k < kPolishing; ++k) {
    const double before = system.greatestResidual();
    if (before < kExact || !system.factor()) return;
    step = system.residual();
    system.solve(step);
    for (auto& s : step) {
      if (!std::isfinite(s)) return;
      s = std::clamp(s, -kLastStep, kLastStep);
    }
    for (std::size_t i = 0; i < x.size(); ++i) x[i] -= step[i];
    system.stamp(x, 0);
    if (system.greatestResidual() <= before) continue;
    for (std::size_t i = 0; i < x.size(); ++i) x[i] += step[i];
    system.stamp(x, 0);
    return;
  }
}

// How many times the step to go at the foot of a knee's rounded corner. The current there is a parabola whose root is nearly
// double, and each of Newton's steps is half the last one. From two of them the parabola and its root are known.
double stride(const Vector& step, const Vector& last) {
  double along = 0;
  double now = 0;
  double before = 0;
  for (std::size_t i = 0; i < step.size(); ++i) {
    along += step[i] * last[i];
    now += step[i] * step[i];
    before += last[i] * last[i];
  }
  const double ratio = std::min(along / before, 0.5);
  const bool straight = ratio > 0.2 && along * along > 0.98 * now * before;
  return straight ? std::min((1 - std::sqrt(1 - 4 * ratio * ratio)) / (2 * ratio * ratio), kLongestStride) : 1;
}

// Newton's method from x, until it is as settled as wanted (or more).
Rest iterate(BlockSystem& system, Vector& x, double soft, int most, Rest wanted, int& passes) {
  double trust = kLongest;
  bool plain = false;  // the last step was Newton's own
  Vector step;
  Vector last;
  for (int pass = 0; pass < most; ++pass) {
    ++passes;
    system.stamp(x, soft);
    if (!system.factor()) return Rest::None;
    step = system.residual();
    system.solve(step);
    double largest = 0;
    double along = 0;  // with the last step, or against it
    for (std::size_t i = 0; i < step.size(); ++i) {
      step[i] = -step[i];
      if (!std::isfinite(step[i])) return Rest::None;
      largest = std::max(largest, std::abs(step[i]));
      if (!last.empty()) along += step[i] * last[i];
    }
    const auto rest = restOf(step, system.residual(), x);
    if (rest == Rest::Full && !system.sound()) continue;  // with fresh pivots from here
    // Two flat stretches with a narrow slope between them (a supply between idle and its limit) make the steps swing
    // from one to the other: whenever the direction turns, the next step is held shorter.
    trust = along < 0 ? 0.4 * greatest(last) : std::min(kLongest, 1.5 * trust);
    double share = largest > trust ? trust / largest : 1;
    if (plain && share == 1 && largest < kKneeWidth) share = stride(step, last);
    plain = share == 1;
    if (rest == Rest::Full) {
      // Nodes that hardly anything holds stay: where they want to go, something may open.
      for (std::size_t i = 0; i < step.size(); ++i) x[i] += std::clamp(step[i], -kLastStep, kLastStep);
      return rest;
    }
    for (std::size_t i = 0; i < step.size(); ++i) x[i] += step[i] *= share;
    if (rest >= wanted) return rest;
    std::swap(last, step);
  }
  return Rest::None;
}

// Newton's method for one set of modes after the other, until every supply stands right. Where one stands shows long before
// the last microvolt.
// @param together for so many rounds all go at once where they want to; then one at a time, so that two cannot chase each other
bool settle(BlockSystem& system, Vector& x, int most, int together, int& passes) {
  Rest wanted = Rest::Rough;
  for (int flips = 0; flips < kMostFlips;) {
    const auto rest = iterate(system, x, 0, most, wanted, passes);
    if (rest == Rest::None) return false;
    if (system.flipModes(x, flips < together)) {
      ++flips;
      wanted = Rest::Rough;
    } else if (rest == Rest::Full) {
      return true;
    } else {
      wanted = Rest::Full;
    }
  }
  return false;
}

}  // namespace

std::optional<double> BlockSolution::resistance(int a, int b) const {
  if (!converged) return std::nullopt;
  Vector push(volts.size(), 0.0);
  push[static_cast<std::size_t>(a)] += 1;
  push[static_cast<std::size_t>(b)] -= 1;
  factors.solve(push);
  return push[static_cast<std::size_t>(a)] - push[static_cast<std::size_t>(b)];
}

void solveBlock(BlockSolution& s) {
  s.passes = 0;
  BlockSystem system(s);
  const bool warm = static_cast<int>(s.volts.size()) == s.circuit.nodes;
  auto& x = s.volts;
  s.converged = warm && settle(system, x, kQuick, kTogether, s.passes);
  // From a bench of plain resistances to the real one, little by little: first in a hurry, then with patience.
  for (const int stage : {kHurried, kThorough}) {
    if (s.converged) break;
    x.assign(static_cast<std::size_t>(s.circuit.nodes), 0);
    for (const auto& b : s.circuit.branches)
      if (b.kind == Branch::Kind::Collector) x[static_cast<std::size_t>(b.a)] = kFirstCurrent;
    system.resetModes();
    for (const double soft : {1.0, 0.1, 0.01, 1e-3, 1e-4}) iterate(system, x, soft, stage, Rest::Rough, s.passes);
    s.converged = settle(system, x, kThorough, stage == kHurried ? kTogether : 0, s.passes);
  }
  if (s.converged) {
    // Where that is not exact yet, first once more as before: polishing only takes steps of microvolts.
    system.stamp(x, 0);
    if (system.greatestResidual() >= kExact) {
      s.converged = settle(system, x, kQuick, 0, s.passes);
      polish(system, x);
    }
    if (!system.factor() || (!system.sound() && !system.factor())) s.converged = false;
  }
  system.leave(s);
}

}  // namespace bold::circuit
