#pragma once

#include <set>
#include <string>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::choose {

/// What goes when a motor gets another stage, ids.
struct OldStage {
  std::set<std::string> devices;      ///< the stage, where it drives nothing else, and the loose parts that served it or the motor
  std::set<std::string> connections;  ///< all that ends at one of these, or at the motor
};

/// Empty where the motor hangs on nothing.
OldStage oldStageOf(const harness::Harness& harness, const parts::Library& library, const std::string& motor);

}  // namespace bold::choose
