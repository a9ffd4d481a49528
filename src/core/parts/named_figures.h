#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/parts/part.h"

namespace bold::parts {

/// Figures that a bench gives for a part in the place of the library's: id -> text ("1.8 A").
using Overrides = std::map<std::string, std::string>;

/// Works out what counts of a part's named figures: as stated, or as given for a bench; then those that follow from others.
/// Where a figure that follows is given, the one it is divided by is worked out from it.
/// @param overrides those that no figure has, or that cannot be read, are passed over
void workOut(std::vector<NamedFigure>& figures, const Overrides& overrides);

/// A part with these figures given for a bench, wherever they are used in it.
/// @param problems says which could not be used, and why; the others are
Part replaceFigures(const Part& plain, const Overrides& overrides, std::vector<Problem>& problems);

}  // namespace bold::parts
