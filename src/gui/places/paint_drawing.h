#pragma once

#include <QColor>
#include <QRectF>

#include "core/places/drawing.h"

class QPainter;

namespace bold::gui {

/// Paints a drawing of places in the colours of the theme; what is wanted in `wanted`, ringed in the ink that stands out from it.
/// @param seen the part of it that is in sight, in its own measure: words that would be cut at its edge are left out; empty: all of it
void paintDrawing(QPainter& painter, const places::Drawing& drawing, const QColor& wanted, const QRectF& seen = {});

}  // namespace bold::gui
