#pragma once

#include <string>

#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold::harness {

/// The colour of a new wire, which follows what it joins (red: supply, black: ground), else the next of a fixed row. IEC 60757.
std::string colourOf(const Harness& harness, const parts::Library& library, const Address& a, const Address& b);

}  // namespace bold::harness
