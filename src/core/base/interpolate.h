#pragma once

#include <utility>
#include <vector>

namespace bold {

/// Straight lines between rows sorted by their first column; the end rows hold beyond the ends. 0 without rows.
inline double interpolate(const std::vector<std::pair<double, double>>& rows, double x) {
  if (rows.empty()) return 0;
  if (x <= rows.front().first) return rows.front().second;
  for (std::size_t k = 1; k < rows.size(); ++k) {
    const auto& [x1, y1] = rows[k - 1];
    const auto& [x2, y2] = rows[k];
    if (x <= x2) return y1 + (y2 - y1) * (x - x1) / (x2 - x1);
  }
  return rows.back().second;
}

}  // namespace bold
