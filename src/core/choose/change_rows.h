#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/harness/edit.h"
#include "core/parts/library.h"

/// What may be changed so that a stage fits, in the order in which it is asked for: what the program does, the levels
/// of its inputs, how the stage is set, how it is cooled, what is trimmed, what feeds it.
namespace bold::choose {

struct Change {
  std::string text;  ///< "with a duty cap of 70 %"
  /// On the bench with the stage on it.
  std::function<harness::Edit(const harness::Harness&)> edit;
  /// It can be put on the plan. What has to be measured or bought is a condition, and is only said.
  bool plannable = true;
  std::string supply{};  ///< device that would be another one; empty: none would
  double volts = 0;      ///< nominal, of that one
};

/// Changes of one kind, from the least to the most.
using ChangeRow = std::vector<Change>;

/// @param bench with the stage planned on it
/// @param stage its device
std::vector<ChangeRow> changeRows(const harness::Harness& bench, const parts::Library& library, const std::string& motor,
                                  const std::string& stage);

}  // namespace bold::choose
