#pragma once

#include <string>
#include <string_view>

#include "core/base/json.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Everything the library knows of a part, as Markdown: how to hold it, terminals in order, figures with their ends,
/// conditions and sources, what its channels do for which inputs, pitfalls, what to measure, notes.
/// @param file the part's file, for its notes; may be nullptr
/// Who reads a card: on a terminal what the part says stands as it is; in the window it is escaped, so that none of it acts.
enum class CardFor { Terminal, Window };
std::string partCard(const Part& part, const Json* file, CardFor reader = CardFor::Terminal);

/// How a figure that is unknown or recalled is measured, by its id ("winding", "resistance"); empty when there is no
/// simple way.
std::string_view howToMeasure(std::string_view figure, const Part& part);

}  // namespace bold::parts
