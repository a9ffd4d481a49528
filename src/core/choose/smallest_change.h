#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/choose/candidates.h"
#include "core/choose/change_rows.h"

namespace bold::choose {

/// The least that would let a stage in.
struct SmallestChange {
  std::string text;               ///< "with a duty cap of 70 %", "with a gentle start and a supply of 10.8 V or less"
  std::vector<Change> changes;    ///< one, or two of different kinds
  std::vector<std::size_t> row;   ///< of changeRows, of each
  std::vector<std::size_t> step;  ///< in it: the step before fails, or there is none
  std::string supply{};           ///< a part of the library that does it, where another supply is asked for; tried too
  bool plannable = true;          ///< all of it
};

/// Of a candidate that something is against: the first kind (changeRows) by which no stop is left, and of it the least step; where no
/// kind alone is enough, two. Where no stop was against it to begin with: by which no caution is left. Both what is named and that the step
/// before it fails were tried, by the same analysis. Nothing: no such change is known, or it was given up.
std::optional<SmallestChange> smallestChange(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                             const Candidate& candidate, const Options& options, const Before& before);

}  // namespace bold::choose
