#pragma once

#include <optional>
#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::harness {

/// A loose part with two legs, or three in a row, put in the other way round: what hung on its first leg hangs on its last. One change.
/// Nothing for other parts, and for one that nothing hangs on.
std::optional<Edit> turnRound(const Harness& harness, const parts::Library& library, const std::string& device);

}  // namespace bold::harness
