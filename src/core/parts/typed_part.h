#pragma once

#include <map>
#include <string>
#include <string_view>
#include <vector>

namespace bold::parts {

/// A part made from figures that were typed: one of the plain parts of the library with its figures replaced.
struct TypedPart {
  std::string part;                              ///< "brushed-motor", "stepper-bipolar", "adapter", "battery"
  std::map<std::string, std::string> overrides;  ///< figure and text
  std::string text;                              ///< "Brushed motor 12 V, 0.5 A running, 2 A stalled"
};

/// "12 V 0.5 A, 2 A stall", "6 V motor 3.2 ohm", "stepper 1.5 A 2 ohm", "adapter 9 V 1 A": what could be meant, the
/// likeliest first. Empty without a figure that makes a part.
std::vector<TypedPart> typedParts(std::string_view text);

}  // namespace bold::parts
