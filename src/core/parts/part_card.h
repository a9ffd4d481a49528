#pragma once

#include <string>
#include <string_view>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Everything the library knows of a part, as Markdown: how to hold it, terminals in order, figures with their ends,
/// conditions and sources, what its channels do for which inputs, pitfalls, what to measure, notes.
/// @param file the part's file, for its notes; may be nullptr
std::string partCard(const Part& part, const Json* file);

/// How a figure that is unknown or recalled is measured, by its id ("winding", "resistance"); empty when there is no
/// simple way.
std::string_view howToMeasure(std::string_view figure, const Part& part);

}  // namespace bold::parts
