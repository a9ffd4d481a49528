#pragma once

#include <functional>
#include <string>
#include <vector>

#include "core/base/json.h"

namespace bold::parts {

/// A list of a part file may hold a repetition: {"for": "1..3", "as": ["n"], KEY: [...]} stands for its own list once for each
/// row, with $n replaced; rows are numbers from .. to, or texts. Anything else stands for itself.
/// @param f called with what one entry stands for, one by one
/// @param problems receives a repetition of nothing
void expand(const Json& entry, const std::string& key, const std::string& file, const std::string& pointer, std::vector<Problem>& problems,
            const std::function<void(const Json&)>& f);

}  // namespace bold::parts
