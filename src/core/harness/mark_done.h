#pragma once

#include <string>

#include "core/harness/edit.h"

namespace bold::harness {

/// Everything planned that an id names becomes real: a planned thing is on the bench, one to be removed is gone.
Edit markDone(const Harness& harness, const std::string& id);
/// All of it at once.
Edit markAllDone(const Harness& harness);

}  // namespace bold::harness
