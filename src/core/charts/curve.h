#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/quantity.h"

/// What pictures beside the bench are drawn of: plain numbers, worked out without a window.
namespace bold::charts {

struct Series {
  std::string name;
  std::vector<double> x, y;  ///< same length; x rises
};

/// A line across the plot that must not be passed (or not be fallen below).
struct Limit {
  std::string name;
  double y = 0;
};

struct Curve {
  std::string title;
  std::string note;  ///< what was taken for granted
  Unit xUnit = Unit::Second, yUnit = Unit::Volt;
  std::vector<Series> series;
  std::vector<Limit> limits;
};

}  // namespace bold::charts
