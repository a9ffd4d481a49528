#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "core/solver/block_solver.h"
#include "core/solver/sparse_system.h"

namespace bold::solver {

/// The equations of a block: what flows out of every node at given voltages, and how that changes with them. Inner loop:
/// doubles in SI.
class BlockSystem {
 public:
  using Vector = std::vector<double>;

  /// Where a supply, regulator or chopper's coil stands: giving what its resistance lets through, nothing, or its limit. Kept outside
  /// Newton's method, which finds no slope on the two flat stretches.
  enum class Mode : char { Giving, Idle, Limit };

  /// @param s whose circuit it is, and whose pattern and factors it takes where they fit
  explicit BlockSystem(BlockSolution& s);

  /// Supplies begin by giving, choppers in their limit, where they mostly are. A regulator begins idle: giving without anything
  /// that feeds it, it would have no solution.
  void resetModes();
  /// Puts supplies into the right mode: all at once, or only the one that is furthest from it; false when all stand right.
  bool flipModes(const Vector& x, bool all);

  /// Sources give this share of their voltage from here on.
  void setSourceShare(double share) { m_sourceShare = share; }

  /// Works out what flows at x. `homotopy` adds a share of its linear part to every element that can go flat (a supply in its
  /// limit, a running motor), so that Newton's method always sees a slope; it ends at zero.
  void stamp(const Vector& x, double homotopy);
  /// Out of every node, A; as last stamped.
  const Vector& residual() const { return m_residual; }
  /// Nodes for which the equations as last stamped are to leave the voltage as it is.
  void hold(const std::vector<char>& nodes);

  /// Of the Jacobian as last stamped; false when it is singular.
  bool factor() { return m_factors.factor(m_pattern, m_jacobian); }
  void solve(Vector& right) const { m_factors.solve(right); }
  /// False when the order of the last factors lost digits; the next ones get pivots of their own.
  bool sound();

  /// Leaves modes, currents, pattern and factors with the solution.
  void leave(BlockSolution& s);

 private:
  // A branch between two nodes, and where it is in the Jacobian: row a with columns a and b, row b likewise. Kept apart by
  // kind and side by side: most are of these kinds, and every pass walks through all.
  struct TwoEnded {
    int a, b;
    int aa, ab, ba, bb;
    int branch;
  };

  const Circuit& m_c;
  double m_sourceShare = 1;
  std::vector<Mode> m_modes;  // per branch; meaningless for others than supplies and regulators
  std::shared_ptr<const SparsePattern> m_pattern;
  std::shared_ptr<const BranchSlots> m_slots;
  std::vector<TwoEnded> m_straight, m_knees, m_saturating;
  std::vector<std::size_t> m_others, m_supplies;  // branches
  Vector m_fixed;                                 // what the straight ones add to the Jacobian
  Vector m_jacobian;                              // entries in the order of the pattern
  Vector m_residual, m_amps;
  SparseFactors m_factors;

  bool fits(const BranchSlots& known) const;
  double wanted(const Branch& b, const double* x) const;
  TwoEnded twoEnded(std::size_t k) const;
  const Branch& branchOf(const TwoEnded& t) const { return m_c.branches[t.branch]; }
  void add(const TwoEnded& t, double i, double g);
  using Slope = std::array<double, 4>;
  void addCurved(std::size_t k, double i, const Slope& by);
  void knee(const TwoEnded& t, const double* x, double homotopy);
  void saturating(const TwoEnded& t, const double* x, double homotopy);
  double other(std::size_t k, const double* x, double homotopy);
  double current(std::size_t k, const double* x, double homotopy);
  double source(std::size_t k, const double* x);
  double junction(std::size_t k, const double* x, double homotopy);
  double regulator(std::size_t k, const double* x);
  double transistor(std::size_t k, const double* x);
  double collector(std::size_t k, const double* x);
  double converter(std::size_t k, const double* x);
  double coil(std::size_t k, const double* x);
};

}  // namespace bold::solver
