#include "core/solver/sparse_system.h"

#include <suitesparse/klu.h>

#include <algorithm>
#include <cmath>
#include <cstring>

namespace bold::solver {
namespace {

constexpr double kLeastGrowth = 1e-6;  // reciprocal pivot growth below which pivots are looked for anew

std::size_t index(int i) {
  return static_cast<std::size_t>(i);
}

// KLU's handles, freed whatever happens.
struct Klu {
  klu_common common{};
  klu_symbolic* symbolic = nullptr;
  klu_numeric* numeric = nullptr;
  Klu() { klu_defaults(&common); }
  Klu(const Klu&) = delete;
  Klu& operator=(const Klu&) = delete;
  ~Klu() {
    klu_free_numeric(&numeric, &common);
    klu_free_symbolic(&symbolic, &common);
  }
};

// KLU counts the diagonal to both factors, and sorts neither; here it is apart, and rows ascend.
void dropDiagonal(int nodes, std::vector<int>& starts, std::vector<int>& rows) {
  std::vector<int> kept;
  kept.reserve(rows.size());
  for (int k = 0; k < nodes; ++k) {
    const auto begin = rows.begin() + starts[index(k)];
    const auto end = rows.begin() + starts[index(k) + 1];
    const auto from = kept.size();
    std::copy_if(begin, end, std::back_inserter(kept), [k](int row) { return row != k; });
    std::sort(kept.begin() + static_cast<std::ptrdiff_t>(from), kept.end());
    starts[index(k)] = static_cast<int>(from);
  }
  starts[index(nodes)] = static_cast<int>(kept.size());
  rows = std::move(kept);
}

}  // namespace

SparsePattern::SparsePattern(int nodes, const std::vector<Ends>& ends) : m_nodes(nodes) {
  std::vector<std::vector<int>> columns(index(nodes));
  for (int i = 0; i < nodes; ++i) columns[index(i)].push_back(i);
  for (const auto& ofOne : ends)
    for (const int row : {ofOne[0], ofOne[1]})
      for (const int column : ofOne)
        if (column >= 0) columns[index(column)].push_back(row);
  m_columns.push_back(0);
  for (auto& rows : columns) {
    std::ranges::sort(rows);
    rows.erase(std::unique(rows.begin(), rows.end()), rows.end());
    m_rows.insert(m_rows.end(), rows.begin(), rows.end());
    m_columns.push_back(static_cast<int>(m_rows.size()));
  }
  for (int i = 0; i < nodes; ++i) m_diagonal.push_back(slot(i, i));
}

int SparsePattern::slot(int row, int column) const {
  const auto first = m_rows.begin() + m_columns[index(column)];
  const auto last = m_rows.begin() + m_columns[index(column) + 1];
  const auto it = std::lower_bound(first, last, row);
  return it == last || *it != row ? -1 : static_cast<int>(it - m_rows.begin());
}

std::optional<std::vector<SparsePattern::Slots>> SparsePattern::slots(int nodes, const std::vector<Ends>& ends) const {
  if (nodes != m_nodes) return std::nullopt;
  std::vector<Slots> out;
  out.reserve(ends.size());
  for (const auto& ofOne : ends) {
    Slots s{};
    for (std::size_t k = 0; k < s.size(); ++k) {
      const int row = ofOne[k / ofOne.size()];
      const int column = ofOne[k % ofOne.size()];
      s[k] = column < 0 ? -1 : slot(row, column);
      if (column >= 0 && s[k] < 0) return std::nullopt;
    }
    out.push_back(s);
  }
  return out;
}

std::shared_ptr<const Elimination> Elimination::of(const SparsePattern& pattern, const std::vector<double>& values) {
  const int n = pattern.nodes();
  // KLU takes pointers to what it does not change.
  auto* const columns = const_cast<int*>(pattern.m_columns.data());
  auto* const rows = const_cast<int*>(pattern.m_rows.data());
  auto* const entries = const_cast<double*>(values.data());
  Klu klu;
  klu.common.scale = -1;  // rows are conductances, all of one kind; the pattern is known to be sound
  klu.common.btf = 0;     // a block hangs together
  klu.symbolic = klu_analyze(n, columns, rows, &klu.common);
  if (!klu.symbolic) return nullptr;
  klu.numeric = klu_factor(columns, rows, entries, klu.symbolic, &klu.common);
  if (!klu.numeric || klu.common.status != KLU_OK) return nullptr;

  auto out = std::make_shared<Elimination>();
  out->nodes = n;
  const auto size = index(n);
  out->rowOf.resize(size);
  out->columnOf.resize(size);
  out->firstL.resize(size + 1);
  out->firstU.resize(size + 1);
  out->rowsL.resize(index(klu.numeric->lnz));
  out->rowsU.resize(index(klu.numeric->unz));
  // It hands rows out only with values.
  std::vector<double> lower(out->rowsL.size());
  std::vector<double> upper(out->rowsU.size());
  if (!klu_extract(klu.numeric, klu.symbolic, out->firstL.data(), out->rowsL.data(), lower.data(), out->firstU.data(), out->rowsU.data(),
                   upper.data(), nullptr, nullptr, nullptr, out->rowOf.data(), out->columnOf.data(), nullptr, nullptr, &klu.common))
    return nullptr;
  dropDiagonal(n, out->firstL, out->rowsL);
  dropDiagonal(n, out->firstU, out->rowsU);
  std::vector<int> pivotOfRow(size);
  for (int k = 0; k < n; ++k) pivotOfRow[index(out->rowOf[index(k)])] = k;
  out->pivotOf.resize(values.size());
  for (int k = 0; k < n; ++k) {
    out->first.push_back(static_cast<int>(out->entries.size()));
    const auto column = index(out->columnOf[index(k)]);
    for (int p = pattern.m_columns[column]; p < pattern.m_columns[column + 1]; ++p) {
      out->entries.push_back({p, pivotOfRow[index(pattern.m_rows[index(p)])]});
      out->pivotOf[index(p)] = k;
    }
  }
  out->first.push_back(static_cast<int>(out->entries.size()));
  return out;
}

bool SparseFactors::factor(const std::shared_ptr<const SparsePattern>& pattern, const std::vector<double>& values) {
  if (m_order && m_pattern == pattern && renew(values, false)) return true;
  m_pattern = pattern;
  m_order = Elimination::of(*pattern, values);
  m_fresh = m_order && renew(values, true);
  if (!m_fresh) m_order = nullptr;
  return m_fresh;
}

// Left-looking elimination, column by column of the order.
bool SparseFactors::renew(const std::vector<double>& values, bool everything) {
  const auto& o = *m_order;
  const auto n = index(o.nodes);
  if (everything) {
    m_lower.assign(o.rowsL.size(), 0);
    m_upper.assign(o.rowsU.size(), 0);
    m_pivots.assign(n, 0);
    m_growth.assign(n, 1);
    m_values.assign(values.size(), 0);
    m_work.assign(n, 0);
  }
  m_fresh = false;
  m_stale.assign(n, everything);
  // The innermost loops: pointers of their own, so that none is read again for every entry.
  const double* const now = values.data();
  double* const known = m_values.data();
  double* const lower = m_lower.data();
  double* const upper = m_upper.data();
  double* const work = m_work.data();
  char* const stale = m_stale.data();
  const int* const rowsL = o.rowsL.data();
  const int* const rowsU = o.rowsU.data();
  const int* const firstL = o.firstL.data();
  const int* const firstU = o.firstU.data();
  constexpr std::size_t kStretch = 8;  // most stretches are as they were
  for (std::size_t from = 0; from < values.size(); from += kStretch) {
    const auto to = std::min(from + kStretch, values.size());
    if (std::memcmp(now + from, known + from, (to - from) * sizeof(double)) == 0) continue;
    for (auto at = from; at < to; ++at)
      if (now[at] != known[at]) {
        known[at] = now[at];
        stale[o.pivotOf[at]] = 1;
      }
  }
  for (std::size_t k = 0; k < n; ++k) {
    for (int p = firstU[k]; stale[k] == 0 && p < firstU[k + 1]; ++p) stale[k] = stale[rowsU[p]];
    if (stale[k] == 0) continue;
    double greatest = 0;
    for (int p = o.first[k]; p < o.first[k + 1]; ++p) {
      const auto& [at, row] = o.entries[index(p)];
      work[row] = now[at];
      greatest = std::max(greatest, std::abs(now[at]));
    }
    double made = 0;
    for (int p = firstU[k]; p < firstU[k + 1]; ++p) {
      const int j = rowsU[p];
      const double u = work[j];
      work[j] = 0;
      upper[p] = u;
      made = std::max(made, std::abs(u));
      for (int q = firstL[j]; q < firstL[j + 1]; ++q) work[rowsL[q]] -= lower[q] * u;
    }
    const double pivot = work[k];
    work[k] = 0;
    m_pivots[k] = pivot;
    if (pivot == 0 || !std::isfinite(pivot)) {
      m_order = nullptr;  // half done: nothing of it is to be relied on
      return false;
    }
    m_growth[k] = greatest / std::max(made, std::abs(pivot));
    for (int q = firstL[k]; q < firstL[k + 1]; ++q) {
      lower[q] = work[rowsL[q]] / pivot;
      work[rowsL[q]] = 0;
    }
  }
  return true;
}

bool SparseFactors::sound() const {
  return m_fresh || std::ranges::all_of(m_growth, [](double g) { return g > kLeastGrowth; });
}

void SparseFactors::solve(std::vector<double>& right) const {
  const auto& o = *m_order;
  const auto n = index(o.nodes);
  std::vector<double> solution(n);
  double* const x = solution.data();
  const int* const firstL = o.firstL.data();
  const int* const firstU = o.firstU.data();
  const int* const rowsL = o.rowsL.data();
  const int* const rowsU = o.rowsU.data();
  const double* const lower = m_lower.data();
  const double* const upper = m_upper.data();
  for (std::size_t k = 0; k < n; ++k) x[k] = right[index(o.rowOf[k])];
  for (std::size_t k = 0; k < n; ++k) {
    const double v = x[k];
    if (v == 0) continue;
    for (int q = firstL[k]; q < firstL[k + 1]; ++q) x[rowsL[q]] -= lower[q] * v;
  }
  for (std::size_t k = n; k-- > 0;) {
    const double v = x[k] /= m_pivots[k];
    if (v == 0) continue;
    for (int p = firstU[k]; p < firstU[k + 1]; ++p) x[rowsU[p]] -= upper[p] * v;
  }
  for (std::size_t k = 0; k < n; ++k) right[index(o.columnOf[k])] = x[k];
}

}  // namespace bold::solver
