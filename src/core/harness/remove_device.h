#pragma once

#include <string>

#include "core/harness/edit.h"

namespace bold::harness {

/// Takes a device away with every connection that ends on it.
Edit removeDevice(const Harness& harness, const std::string& id);

}  // namespace bold::harness
