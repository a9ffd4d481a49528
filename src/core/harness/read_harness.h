#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "core/harness/harness.h"

namespace bold::harness {

/// A document and everything that was wrong with its file.
struct Reading {
  Harness harness;
  std::vector<Problem> problems;  ///< each says what, where and what was kept
};

/// Reads harness text. What can be kept is kept; a file that is not whole JSON, or not a harness, is an error.
/// A newer format is read as far as it goes, with `newerFormat` set: it must not be saved over.
[[nodiscard]] Result<Reading> readHarness(std::string_view text, const std::string& file);

/// The document as text. Unknown fields stand where they stood. `parts` are the copies of the parts used.
std::string writeHarness(const Harness& harness);

}  // namespace bold::harness
