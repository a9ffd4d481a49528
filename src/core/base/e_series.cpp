#include "core/base/e_series.h"

#include <array>
#include <cmath>

namespace bold {

Ohms e12(Ohms most) {
  static constexpr std::array kRow{1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2};
  const double decade = std::pow(10, std::floor(std::log10(most.value)));
  double best = decade;
  for (const double step : kRow)
    if (step * decade <= most.value * 1.001) best = step * decade;
  return Ohms{best};
}

}  // namespace bold
