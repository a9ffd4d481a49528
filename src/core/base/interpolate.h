#pragma once

#include <utility>
#include <vector>

namespace bold {

/// Straight lines between rows sorted by their first column; the end rows hold beyond the ends. 0 without rows.
/// @tparam X double, or a number that carries its derivatives
template <class X>
X interpolate(const std::vector<std::pair<double, double>>& rows, const X& x) {
  if (rows.empty()) return X(0);
  if (x <= rows.front().first) return X(rows.front().second);
  for (std::size_t k = 1; k < rows.size(); ++k) {
    const auto& [x1, y1] = rows[k - 1];
    const auto& [x2, y2] = rows[k];
    if (x <= x2) return X((x - x1) * ((y2 - y1) / (x2 - x1)) + y1);
  }
  return X(rows.back().second);
}

}  // namespace bold
