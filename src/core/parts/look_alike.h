#pragma once

#include <string>
#include <string_view>

#include "core/parts/library.h"

namespace bold::parts {

/// A name as the eye takes it: letters that look the same are the same, and so are case, spaces and punctuation.
std::string skeleton(std::string_view name);

/// The id of a shipped part whose id or name looks like this one's; empty when there is none.
std::string lookAlike(const Part& part, const Library& library);

}  // namespace bold::parts
