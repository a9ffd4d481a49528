#pragma once

#include <optional>
#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::choose {

/// The edit that puts level shifters between a controller's pins and the inputs that a planned stage has straight on them: from the rail
/// of the pins to its 5 V. Which part does that is seen by its elements: a transistor a line, held at both rails.
/// Nothing where the pins are at 5 V themselves, the board has no 5 V, no input is wired straight to a pin, or no part does it.
/// @param bench with the stage planned on it
std::optional<harness::Edit> shiftLevels(const harness::Harness& bench, const parts::Library& library, const std::string& stage);

}  // namespace bold::choose
