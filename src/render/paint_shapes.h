#pragma once

#include <QColor>
#include <functional>

#include "core/draw/shapes.h"

class QFont;
class QPainter;

/// Drawings onto whatever Qt paints on: a window, a PNG, a page.
namespace bold::render {

/// What an ink looks like; never asked for Ink::Own.
using Theme = std::function<QColor(draw::Ink)>;
/// Black and greys on white.
const Theme& paper();

void paint(QPainter& painter, const draw::Shapes& shapes, const Theme& theme);

/// The fonts of drawings. Kept, because finding one anew for every label takes longer than drawing it: for one thread only.
const QFont& font(int pixels, bool bold = false, bool mono = false);

}  // namespace bold::render
