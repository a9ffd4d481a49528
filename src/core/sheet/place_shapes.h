#pragma once

#include "core/draw/shapes.h"
#include "core/places/drawing.h"

namespace bold::sheet {

/// A place drawing as any other: in the inks of its lines and words, for paper.
draw::Drawing placeShapes(const places::Drawing& drawing);

}  // namespace bold::sheet
