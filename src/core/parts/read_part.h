#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Reads one part.
/// @param problems receives every problem found, each with file and JSON pointer; when any is found no part is returned
[[nodiscard]] std::optional<Part> readPart(const Json& json, const std::string& file, std::vector<Problem>& problems);

/// The part file with everything of its base taken over: top-level keys replace, figures are merged one by one.
Json onTopOf(const Json& base, const Json& derived);

}  // namespace bold::parts
