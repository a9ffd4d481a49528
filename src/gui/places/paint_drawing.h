#pragma once

#include <QColor>

#include "core/places/drawing.h"

class QPainter;

namespace bold::gui {

/// Paints a drawing of places in the colours of the theme; what is wanted in `wanted`, ringed in the ink that stands out from it.
void paintDrawing(QPainter& painter, const places::Drawing& drawing, const QColor& wanted);

}  // namespace bold::gui
