#pragma once

#include "core/harness/harness.h"
#include "core/parts/library.h"

/// What the library says of an end of a connection.
namespace bold::harness {

/// Valid while the library has the part; nullptr: there is no such terminal.
const parts::Terminal* factsOf(const Harness& harness, const parts::Library& library, const Address& end);
/// Whether it is the plus (the minus) of a source.
bool isPole(const Harness& harness, const parts::Library& library, const Address& end, bool positive);

}  // namespace bold::harness
