#pragma once

#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::harness {

/// Puts a part on the bench, with the jumpers that come fitted on it.
/// @param id the device's id; empty: made from the part's kind ("s1", "q1", "m1")
/// Errors: the part is not in the library.
[[nodiscard]] Result<Edit> addPart(const Harness& harness, const parts::Library& library, const std::string& part, std::string id = {},
                                   const std::string& name = {});

}  // namespace bold::harness
