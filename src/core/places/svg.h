#pragma once

#include <string>

#include "core/places/drawing.h"

namespace bold::places {

/// The drawing as an SVG of its own, black on white: for paper and for other programs. `title` is read out by those who do not see it.
std::string svgOf(const Drawing& drawing, const std::string& title);

}  // namespace bold::places
