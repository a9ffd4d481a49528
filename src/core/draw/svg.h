#pragma once

#include <string>

#include "core/draw/shapes.h"

namespace bold::draw {

/// The colours of paper: black, greys, and the wires' own.
std::string paperColour(const Colour& colour);

/// A drawing as an SVG of its own, for paper and for other programs. `title` is read out by those who do not see it.
std::string svgOf(const Drawing& drawing, const std::string& title);

}  // namespace bold::draw
