#pragma once

#include <Eigen/Core>
#include <array>
#include <memory>
#include <optional>
#include <vector>

/// Sparse linear systems of a fixed pattern, factored by KLU (SuiteSparse), which is made for circuit matrices.
namespace bold::circuit {

/// Which entries a matrix has, and the order in which they are eliminated. Depends only on what is joined to what, so
/// it is kept from one command to the next.
class SparsePattern {
 public:
  /// The nodes one branch couples: a, b, c and d (-1: fewer).
  using Ends = std::array<int, 4>;

  SparsePattern(int nodes, const std::vector<Ends>& ends);
  ~SparsePattern();
  SparsePattern(const SparsePattern&) = delete;
  SparsePattern& operator=(const SparsePattern&) = delete;

  int nodes() const { return m_nodes; }
  std::size_t entries() const { return m_rows.size(); }
  int diagonal(int node) const { return m_diagonal[static_cast<std::size_t>(node)]; }

  /// Positions of a branch's entries: rows a and b, each with columns a, b, c and d (-1 where there is none).
  using Slots = std::array<int, 8>;
  /// Nothing when the pattern lacks an entry that a branch needs; entries too many do no harm.
  std::optional<std::vector<Slots>> slots(int nodes, const std::vector<Ends>& ends) const;

 private:
  friend class SparseFactors;
  int slot(int row, int column) const;
  int m_nodes;
  std::vector<int> m_columns, m_rows;  // compressed columns
  std::vector<int> m_diagonal;
  struct Symbolic;
  std::unique_ptr<Symbolic> m_symbolic;
};

/// Where the branches of one circuit are in a pattern.
struct BranchSlots {
  std::vector<SparsePattern::Ends> ends;
  std::vector<SparsePattern::Slots> slots;
};

/// A factored matrix. Safe to share between threads.
class SparseFactors {
 public:
  /// Whether the order of elimination loses no digits with these values.
  bool sound() const;

  /// nullptr when the matrix is singular. Whether an old order still serves is asked for with sound().
  /// @param old factors that nobody else needs any more: their order of elimination and memory are used again
  static std::shared_ptr<SparseFactors> of(std::shared_ptr<const SparsePattern> pattern, const std::vector<double>& values,
                                           std::shared_ptr<SparseFactors> old = nullptr);
  ~SparseFactors();
  SparseFactors(const SparseFactors&) = delete;
  SparseFactors& operator=(const SparseFactors&) = delete;

  Eigen::VectorXd solve(const Eigen::VectorXd& right) const;

 private:
  SparseFactors() = default;
  std::shared_ptr<const SparsePattern> m_pattern;  // shared with every system of this shape
  std::vector<double> m_values;                    // as last factored in an order found for others; empty: in an order of their own
  struct Numeric;
  std::unique_ptr<Numeric> m_numeric;
};

}  // namespace bold::circuit
