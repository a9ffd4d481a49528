#include "core/circuit/sparse_system.h"

#include <suitesparse/klu.h>

#include <algorithm>
#include <mutex>

namespace bold::circuit {
namespace {
constexpr double kLeastGrowth = 1e-6;  // reciprocal pivot growth below which pivots are looked for anew
}

struct SparsePattern::Symbolic {
  klu_common common{};
  klu_symbolic* symbolic = nullptr;
};

struct SparseFactors::Numeric {
  klu_common common{};
  klu_numeric* numeric = nullptr;
  std::mutex busy;  // KLU keeps its work space inside the factors
};

SparsePattern::SparsePattern(int nodes, const std::vector<Ends>& ends) : m_nodes(nodes), m_symbolic(std::make_unique<Symbolic>()) {
  std::vector<std::vector<int>> columns(static_cast<std::size_t>(nodes));
  for (int i = 0; i < nodes; ++i) columns[static_cast<std::size_t>(i)].push_back(i);
  for (const auto& ofOne : ends)
    for (const int row : {ofOne[0], ofOne[1]})
      for (const int column : ofOne)
        if (column >= 0) columns[static_cast<std::size_t>(column)].push_back(row);
  m_columns.push_back(0);
  for (auto& rows : columns) {
    std::ranges::sort(rows);
    rows.erase(std::unique(rows.begin(), rows.end()), rows.end());
    m_rows.insert(m_rows.end(), rows.begin(), rows.end());
    m_columns.push_back(static_cast<int>(m_rows.size()));
  }
  for (int i = 0; i < nodes; ++i) m_diagonal.push_back(slot(i, i));
  klu_defaults(&m_symbolic->common);
  m_symbolic->symbolic = klu_analyze(nodes, m_columns.data(), m_rows.data(), &m_symbolic->common);
}

int SparsePattern::slot(int row, int column) const {
  const auto first = m_rows.begin() + m_columns[static_cast<std::size_t>(column)];
  const auto last = m_rows.begin() + m_columns[static_cast<std::size_t>(column) + 1];
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

SparsePattern::~SparsePattern() {
  klu_free_symbolic(&m_symbolic->symbolic, &m_symbolic->common);
}

std::shared_ptr<SparseFactors> SparseFactors::of(std::shared_ptr<const SparsePattern> pattern, const std::vector<double>& values,
                                                 std::shared_ptr<SparseFactors> old) {
  auto* const symbolic = pattern->m_symbolic->symbolic;
  if (!symbolic) return nullptr;
  // KLU takes pointers to what it does not change.
  auto* const columns = const_cast<int*>(pattern->m_columns.data());
  auto* const rows = const_cast<int*>(pattern->m_rows.data());
  auto* const entries = const_cast<double*>(values.data());
  // The last order of pivots does as long as it loses no digits; finding one anew takes several times as long.
  if (old && old.use_count() == 1 && old->m_pattern == pattern) {
    auto& n = *old->m_numeric;
    if (klu_refactor(columns, rows, entries, symbolic, n.numeric, &n.common) != 0 && n.common.status == KLU_OK) {
      old->m_values = values;
      return old;
    }
  }
  auto numeric = std::make_unique<Numeric>();
  klu_defaults(&numeric->common);
  numeric->common.scale = -1;  // rows are conductances, all of one kind; the pattern is known to be sound
  numeric->numeric = klu_factor(columns, rows, entries, symbolic, &numeric->common);
  if (!numeric->numeric || numeric->common.status != KLU_OK) {
    klu_free_numeric(&numeric->numeric, &numeric->common);
    return nullptr;
  }
  auto out = std::shared_ptr<SparseFactors>(new SparseFactors);
  out->m_pattern = std::move(pattern);
  out->m_numeric = std::move(numeric);
  return out;
}

bool SparseFactors::sound() const {
  if (m_values.empty()) return true;  // freshly pivoted
  const std::lock_guard lock(m_numeric->busy);
  auto common = m_numeric->common;
  auto* const columns = const_cast<int*>(m_pattern->m_columns.data());
  auto* const rows = const_cast<int*>(m_pattern->m_rows.data());
  auto* const entries = const_cast<double*>(m_values.data());
  return klu_rgrowth(columns, rows, entries, m_pattern->m_symbolic->symbolic, m_numeric->numeric, &common) != 0 &&
         common.rgrowth > kLeastGrowth;
}

SparseFactors::~SparseFactors() {
  if (m_numeric) klu_free_numeric(&m_numeric->numeric, &m_numeric->common);
}

Eigen::VectorXd SparseFactors::solve(const Eigen::VectorXd& right) const {
  Eigen::VectorXd x = right;
  const std::lock_guard lock(m_numeric->busy);
  auto common = m_numeric->common;
  klu_solve(m_pattern->m_symbolic->symbolic, m_numeric->numeric, m_pattern->m_nodes, 1, x.data(), &common);
  return x;
}

}  // namespace bold::circuit
