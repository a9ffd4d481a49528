#pragma once

#include <string>
#include <vector>

#include "core/parts/part.h"

namespace bold::parts {

/// One limit that a bench is judged by, beside the figures that have a name of their own.
struct PartLimit {
  std::string of;     ///< a channel, package, level set, terminal or element: "channel A", "input VCC x 0.7"
  std::string what;   ///< "peak, once"
  std::string value;  ///< with its unit: "3.2 A for 10 ms"
  std::string under, source, confidence;
};

/// Everything a part says that a check holds something against: supply windows, thresholds, resistances of what switches, thermal
/// resistances and hottest junctions, protection, PWM limit, regulators, diodes, pins. In the order of the part; what is alike once.
std::vector<PartLimit> limitsOf(const Part& part);

}  // namespace bold::parts
