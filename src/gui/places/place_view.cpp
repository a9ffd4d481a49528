#include "gui/places/place_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/places/words.h"
#include "gui/places/paint_drawing.h"
#include "gui/qs.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

constexpr double kLeast = 0.8;  // smaller than this its names cannot be read
constexpr double kMost = 2.0;   // larger helps nobody
constexpr double kReach = 12;

}  // namespace

PlaceView::PlaceView(QWidget* parent) : QWidget(parent) {
  setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
}

void PlaceView::show(std::shared_ptr<const parts::Part> part, const places::Wish& wish, const QColor& wanted) {
  m_drawing = part ? places::drawingOf(*part, wish) : places::Drawing{};
  m_wanted = wish.wanted;
  m_colour = wanted;
  QStringList said;
  if (part) {
    said << qs(part->name) << qs(places::holdWords(*part, wish.lie));
    for (const int t : wish.wanted) said << qs(part->terminals[t].label + ": " + places::fullPlace(*part, part->terminals[t], wish.lie));
  }
  setAccessibleName(said.join(". "));
  updateGeometry();
  update();
}

QSize PlaceView::sizeHint() const {
  return QSizeF(m_drawing.width, m_drawing.height).toSize();
}

PlaceView::Window PlaceView::window() const {
  if (empty()) return {1, {}};
  const double whole = std::min(width() / m_drawing.width, height() / m_drawing.height);
  const double scale = std::clamp(whole, kLeast, kMost);
  const QSizeF drawn(m_drawing.width * scale, m_drawing.height * scale);
  QPointF shift((width() - drawn.width()) / 2, (height() - drawn.height()) / 2);
  if (whole >= kLeast) return {scale, shift};
  QPointF middle(m_drawing.width / 2, m_drawing.height / 2);
  for (const auto& t : m_drawing.targets)
    if (!m_wanted.empty() && t.terminal == m_wanted.front()) middle = {t.x, t.y};
  const auto along = [](double room, double size, double at) {
    return size <= room ? (room - size) / 2 : std::clamp(room / 2 - at, room - size, 0.0);
  };
  return {scale, {along(width(), drawn.width(), middle.x() * scale), along(height(), drawn.height(), middle.y() * scale)}};
}

std::optional<QPointF> PlaceView::placeOf(int terminal) const {
  const auto w = window();
  for (const auto& t : m_drawing.targets)
    if (t.terminal == terminal)
      if (const QPointF at = QPointF(t.x, t.y) * w.scale + w.shift; QRectF(rect()).contains(at)) return at;
  return std::nullopt;
}

void PlaceView::paintEvent(QPaintEvent*) {
  QPainter p(this);
  p.fillRect(rect(), gui::palette().panel);
  if (empty()) return;
  const auto w = window();
  p.translate(w.shift);
  p.scale(w.scale, w.scale);
  const QRectF seen(-w.shift / w.scale, QSizeF(size()) / w.scale);
  const QRectF whole(0, 0, m_drawing.width, m_drawing.height);
  paintDrawing(p, m_drawing, m_colour, seen.contains(whole) ? QRectF() : seen);
}

void PlaceView::mousePressEvent(QMouseEvent* e) {
  const auto w = window();
  int best = -1;
  double nearest = kReach;
  for (const auto& t : m_drawing.targets) {
    const QPointF by = QPointF(t.x, t.y) * w.scale + w.shift - e->position();
    const double d = std::hypot(by.x(), by.y());
    if (d < nearest) nearest = d, best = t.terminal;
  }
  if (best >= 0) Q_EMIT picked(best);
}

}  // namespace bold::gui
