#pragma once

#include <functional>

#include "core/parts/part.h"

namespace bold::parts {

/// Calls `f` with every figure that the facts of a part hold: of its terminals, levels, elements, channels and packages. The
/// part's named figures themselves are not among them.
void eachFigure(Part& part, const std::function<void(Figure&)>& f);

}  // namespace bold::parts
