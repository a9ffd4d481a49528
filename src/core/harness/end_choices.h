#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::harness {

/// A terminal that the beginning of a word may become.
struct EndChoice {
  Address end;
  std::string insert;  ///< what stands for it in the line: "s1.IN1"
  std::string shown;   ///< "S1 IN1"
  std::string remark;  ///< "free", "taken by w4", "an output already"
  bool free = true;    ///< nothing ends there
  bool exact = false;  ///< the word is its whole name
  bool fits = true;    ///< goes with the other end: a pin with an input, a supply with a supply, a ground with a ground
};

/// What a line may go on with, the last word of it as the beginning of a terminal: one that is called so first, then free ones that fit, in
/// bench order. At most `most`; none where the line has two whole ends.
std::vector<EndChoice> endChoices(const Harness& harness, const parts::Library& library, std::string_view line, std::size_t most);

}  // namespace bold::harness
