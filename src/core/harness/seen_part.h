#pragma once

#include <memory>

#include "core/harness/harness.h"
#include "core/parts/part.h"

namespace bold::harness {

/// The part of a device as this bench shows it: a controller's pins in the numbering that the bench is shown in, its order certain where
/// somebody compared it with the print. Nobody's figures change. The same part where nothing of it is otherwise.
/// @param part what the library has for the device; may be nullptr
std::shared_ptr<const parts::Part> seenPart(std::shared_ptr<const parts::Part> part, const Device& device, const Harness& harness);

}  // namespace bold::harness
