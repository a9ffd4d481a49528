#pragma once

#include <optional>

#include "core/checks/finding.h"
#include "core/harness/harness.h"

namespace bold::checks {

/// The edit by which a field holds what a way names: a figure or a setting of a device, the cap on a motor's duty.
/// @return nothing where there is no such field
std::optional<harness::Edit> fieldEdit(const harness::Harness& harness, const Way& way);

}  // namespace bold::checks
