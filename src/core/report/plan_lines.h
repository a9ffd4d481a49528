#pragma once

#include <string>
#include <vector>

#include "core/harness/harness.h"

namespace bold::report {

/// One planned change: what to do ("add", "take away", "set") and to what.
struct PlanLine {
  std::string verb, what;
};
/// Everything that is planned and not done, in document order: devices with their settings, then connections.
std::vector<PlanLine> planLines(const harness::Harness& harness);

}  // namespace bold::report
