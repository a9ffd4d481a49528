#pragma once

#include <array>
#include <memory>
#include <optional>
#include <vector>

/// Sparse linear systems of a fixed pattern. KLU (SuiteSparse), which is made for circuit matrices, finds the order of
/// elimination; from then on only the columns that a change reaches are worked out again. Inner loop: doubles in SI.
namespace bold::solver {

/// Which entries a matrix has. Depends only on what is joined to what, so it is kept from one command to the next.
class SparsePattern {
 public:
  /// The nodes one branch couples: a, b, c and d (-1: fewer).
  using Ends = std::array<int, 4>;

  SparsePattern(int nodes, const std::vector<Ends>& ends);

  int nodes() const { return m_nodes; }
  std::size_t entries() const { return m_rows.size(); }
  int row(std::size_t entry) const { return m_rows[entry]; }
  int diagonal(int node) const { return m_diagonal[node]; }

  /// Positions of a branch's entries: rows a and b, each with columns a, b, c and d (-1 where there is none).
  using Slots = std::array<int, 8>;
  /// Nothing when the pattern lacks an entry that a branch needs; entries too many do no harm.
  std::optional<std::vector<Slots>> slots(int nodes, const std::vector<Ends>& ends) const;

 private:
  friend struct Elimination;
  int slot(int row, int column) const;
  int m_nodes;
  std::vector<int> m_columns, m_rows;  // compressed columns
  std::vector<int> m_diagonal;
};

/// Where the branches of one circuit are in a pattern.
struct BranchSlots {
  std::vector<SparsePattern::Ends> ends;
  std::vector<SparsePattern::Slots> slots;
};

/// An order of pivots and the entries that fill in with it. Shared by all factors that use it.
struct Elimination {
  struct Entry {
    int at, row;  ///< position in the matrix, row in the order of pivots
  };
  int nodes = 0;
  std::vector<int> rowOf, columnOf;  ///< per pivot: row and column of the matrix
  std::vector<int> first;            ///< per pivot: where its column's entries begin; one more at the end
  std::vector<Entry> entries;        ///< of the matrix, column by column of the order
  std::vector<int> pivotOf;          ///< per entry of the matrix: the pivot whose column it is in
  std::vector<int> firstL, firstU;   ///< as first, of the factors
  std::vector<int> rowsL, rowsU;     ///< below and above the diagonal, ascending

  /// Found with pivots that suit these values; nothing when the matrix is singular.
  static std::shared_ptr<const Elimination> of(const SparsePattern& pattern, const std::vector<double>& values);
};

/// A factored matrix. A value: a copy is the way to begin from another system's factors.
class SparseFactors {
 public:
  /// Brings the factors in line with the matrix; false when it is singular, and they must not be used.
  /// Keeps the order of pivots while there is one and no pivot vanishes, and every column that no change reaches.
  bool factor(const std::shared_ptr<const SparsePattern>& pattern, const std::vector<double>& values);
  /// Whether the order of elimination, found for other values, loses no digits with these.
  bool sound() const;
  /// The next call of factor() looks for pivots anew.
  void forgetOrder() { m_order = nullptr; }

  /// Solves in place.
  void solve(std::vector<double>& right) const;

 private:
  bool renew(const std::vector<double>& values, bool everything);

  std::shared_ptr<const SparsePattern> m_pattern;  // what the order is for
  std::shared_ptr<const Elimination> m_order;
  bool m_fresh = false;          // the order was found for these values
  std::vector<double> m_values;  // of the matrix
  std::vector<double> m_lower, m_upper, m_pivots;
  std::vector<double> m_growth;  // per pivot: greatest entry of its column against what elimination made of it
  std::vector<double> m_work;    // of renew(): zero in between
  std::vector<char> m_stale;     // per pivot, of renew(): its column is worked out anew
};

}  // namespace bold::solver
