#pragma once

#include "core/base/json.h"

namespace bold::harness {

/// Brings a harness of any older format to the newest, one step at a time. The newest is returned unchanged.
Json migrate(Json harness);

}  // namespace bold::harness
