#include "core/solver/block_solver.h"

#include <algorithm>
#include <cmath>

#include "core/solver/block_system.h"

namespace bold::solver {
namespace {

using Vector = BlockSystem::Vector;

constexpr double kVoltTolerance = 1e-6;
constexpr double kRoughly = 1e-3;  // of the voltages on the way
constexpr double kAmpTolerance = 1e-9;
constexpr int kMostFlips = 40;
constexpr int kTogether = 4;  // rounds

constexpr double kExact = 1e-12;         // A
constexpr int kPolishing = 6;            // passes
constexpr int kDrifting = 6;             // passes that nodes may take to where hardly anything holds them
constexpr double kLongest = 50;          // V a step
constexpr double kLongestStride = 1.95;  // of 2, which would end where the slope is nothing
constexpr int kQuick = 16;               // passes that a start close to the solution needs at most
constexpr int kHurried = 1;              // a stage on the way there need not come to rest
constexpr int kThorough = 80;
constexpr int kMostAstray = 3;    // of those that may come to no rest
constexpr int kSourceSteps = 24;  // of source stepping
constexpr int kStages = 20;       // of the homotopy, each this much of the one before
constexpr double kStage = 0.4;
constexpr double kFirstCurrent = 0.1;  // A: where the search for a collector current begins

enum class Rest { None, Rough, Drifting, Full };

double toleranceOf(double volts) {
  return kVoltTolerance * (1 + std::min(std::abs(volts), 100.0));
}

// Settled: no node wants to move, or what would move it is less current than anybody could measure. The second half is
// for nodes that only open semiconductors hold; drifting, while it is more than rounding makes.
Rest restOf(const Vector& step, const Vector& residual, const Vector& x) {
  auto rest = Rest::Full;
  for (std::size_t i = 0; i < step.size(); ++i) {
    const double tolerance = toleranceOf(x[i]);
    if (std::abs(step[i]) <= tolerance || std::abs(residual[i]) <= kExact) continue;
    if (std::abs(residual[i]) <= kAmpTolerance) {
      rest = std::min(rest, Rest::Drifting);
      continue;
    }
    rest = Rest::Rough;
    if (!(std::abs(step[i]) <= kRoughly / kVoltTolerance * tolerance)) return Rest::None;
  }
  return rest;
}

double greatest(const Vector& v) {
  double most = 0;
  for (const double x : v) most = std::max(most, std::abs(x));
  return most;
}

// Where the equations as last stamped would be met; nothing when they have no solution.
std::optional<Vector> newtonStep(BlockSystem& system) {
  if (!system.factor()) return std::nullopt;
  Vector step = system.residual();
  system.solve(step);
  for (auto& s : step) {
    s = -s;
    if (!std::isfinite(s)) return std::nullopt;
  }
  return step;
}

// Last small steps, exact to rounding: results must not depend on where the search began. Nodes that hardly anything holds
// stay where they are, and the others go where they belong with those there: one that drifts onto a diode or a gate's threshold
// would not come to rest. False when no such place is found.
bool polish(BlockSystem& system, Vector& x) {
  system.stamp(x, 0);
  std::vector<char> held(x.size(), 0);
  double residual = greatest(system.residual());
  for (int k = 0; k < kPolishing && residual >= kExact; ++k) {
    auto step = newtonStep(system);
    if (!step) return false;
    for (std::size_t i = 0; i < x.size(); ++i)
      if (std::abs((*step)[i]) > toleranceOf(x[i]) && std::abs(system.residual()[i]) <= kAmpTolerance) held[i] = 1;
    if (std::ranges::count(held, 1) > 0) {
      system.hold(held);
      step = newtonStep(system);
      if (!step) return false;
    }
    const auto before = x;
    for (std::size_t i = 0; i < x.size(); ++i) x[i] += (*step)[i];
    system.stamp(x, 0);
    double now = 0;
    for (std::size_t i = 0; i < x.size(); ++i)
      if (held[i] == 0) now = std::max(now, std::abs(system.residual()[i]));
    if (now < residual) {
      residual = now;
      continue;
    }
    // At the corner of a knee the slope tells nothing.
    x = before;
    system.stamp(x, 0);
    break;
  }
  return greatest(system.residual()) <= kAmpTolerance;
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
Rest iterate(BlockSystem& system, Vector& x, double homotopy, int most, Rest wanted, int& passes) {
  double trust = kLongest;
  bool plain = false;  // the last step was Newton's own
  int drifts = 0;
  Vector step;
  Vector last;
  for (int pass = 0; pass < most; ++pass) {
    ++passes;
    system.stamp(x, homotopy);
    auto found = newtonStep(system);
    if (!found) return Rest::None;
    step = std::move(*found);
    const double largest = greatest(step);
    double along = 0;  // with the last step, or against it
    for (std::size_t i = 0; i < last.size(); ++i) along += step[i] * last[i];
    auto rest = restOf(step, system.residual(), x);
    if (rest == Rest::Drifting && ++drifts > kDrifting) rest = Rest::Full;
    if (rest == Rest::Full && !system.sound()) continue;  // with fresh pivots from here
    if (rest == Rest::Full) {
      for (std::size_t i = 0; i < step.size(); ++i)
        if (std::abs(step[i]) <= toleranceOf(x[i])) x[i] += step[i];
      return rest;
    }
    // Two flat stretches with a narrow slope between them (a supply between idle and its limit) make the steps swing
    // from one to the other: whenever the direction turns, the next step is held shorter.
    trust = along < 0 ? 0.4 * greatest(last) : std::min(kLongest, 1.5 * trust);
    double share = largest > trust ? trust / largest : 1;
    if (plain && share == 1 && largest < kKneeWidth) share = stride(step, last);
    plain = share == 1;
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

void begin(BlockSystem& system, BlockSolution& s) {
  s.volts.assign(s.circuit.nodes, 0);
  for (const auto& b : s.circuit.branches)
    if (b.kind == Branch::Kind::Collector) s.volts[b.a] = kFirstCurrent;
  system.resetModes();
}

// Source stepping: from no supply at all to all of it, where the homotopy leads astray: transistors that starve bend the way from there.
bool sourceStepping(BlockSystem& system, BlockSolution& s) {
  begin(system, s);
  int astray = 0;
  for (int step = 0; astray < kMostAstray && step < kSourceSteps; ++step) {
    system.setSourceShare(static_cast<double>(step) / kSourceSteps);
    astray += !settle(system, s.volts, kThorough, 0, s.passes);
  }
  system.setSourceShare(1);
  return astray < kMostAstray && settle(system, s.volts, kThorough, 0, s.passes) && polish(system, s.volts);
}

// The homotopy once more in small stages, the supplies set right at each: where several of them push against each other on short ways.
bool slowly(BlockSystem& system, BlockSolution& s) {
  begin(system, s);
  double homotopy = 1;
  for (int stage = 0; stage < kStages; ++stage) {
    iterate(system, s.volts, homotopy, kThorough, Rest::Rough, s.passes);
    system.flipModes(s.volts, false);
    homotopy *= kStage;
  }
  return settle(system, s.volts, kThorough, 0, s.passes) && polish(system, s.volts);
}

}  // namespace

std::optional<double> BlockSolution::resistance(int a, int b) const {
  if (!converged) return std::nullopt;
  Vector push(volts.size(), 0.0);
  push[a] += 1;
  push[b] -= 1;
  factors.solve(push);
  return push[a] - push[b];
}

void solveBlock(BlockSolution& s) {
  s.passes = 0;
  BlockSystem system(s);
  const bool warm = static_cast<int>(s.volts.size()) == s.circuit.nodes;
  auto& x = s.volts;
  s.converged = warm && settle(system, x, kQuick, kTogether, s.passes) && polish(system, x);
  // Homotopy from a bench of plain resistances to the real one, little by little: first in a hurry, then with patience.
  for (const int stage : {kHurried, kThorough}) {
    if (s.converged) break;
    begin(system, s);
    for (const double homotopy : {1.0, 0.1, 0.01, 1e-3, 1e-4}) iterate(system, x, homotopy, stage, Rest::Rough, s.passes);
    s.converged = settle(system, x, kThorough, stage == kHurried ? kTogether : 0, s.passes) && polish(system, x);
  }
  if (!s.converged) s.converged = sourceStepping(system, s);
  if (!s.converged) s.converged = slowly(system, s);
  if (s.converged && (!system.factor() || (!system.sound() && !system.factor()))) s.converged = false;
  system.leave(s);
}

}  // namespace bold::solver
