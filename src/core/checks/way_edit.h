#pragma once

#include <optional>

#include "core/checks/finding.h"
#include "core/harness/harness.h"

namespace bold::checks {

/// What a way does: the edit that it carries, or the one by which a field holds what it names (a figure or a setting of a device, the cap
/// on a motor's duty).
/// @return nothing where there is no such field
std::optional<harness::Edit> wayEdit(const harness::Harness& harness, const Way& way);

}  // namespace bold::checks
