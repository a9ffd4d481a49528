#pragma once

#include "core/parts/element.h"

namespace bold::parts {

using SaturationRows = std::vector<std::pair<double, double>>;  ///< IC in A, greatest VCE(sat) in V

/// The rows a transistor is worked out with: its own, or without any those of a common one of its kind, the PN2222A or the
/// TIP120. The analysis says where that was done.
inline const SaturationRows& saturationOf(const Bipolar& t) {
  static const SaturationRows kPlain{{0.15, 0.3}, {0.5, 1.0}};
  static const SaturationRows kDarlington{{3.0, 2.0}, {5.0, 4.0}};
  return !t.saturation.empty() ? t.saturation : t.darlington ? kDarlington : kPlain;
}

}  // namespace bold::parts
