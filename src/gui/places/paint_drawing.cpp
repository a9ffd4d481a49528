#include "gui/places/paint_drawing.h"

#include <QFont>
#include <QPainter>
#include <QPainterPath>

#include "gui/qs.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

QColor inkOf(places::Ink ink) {
  const auto& p = palette();
  switch (ink) {
    case places::Ink::Tick:
    case places::Ink::Quiet:
      return p.inkSoft;
    case places::Ink::Wanted:
      return p.accent;
    default:
      return p.ink;
  }
}

struct Painting {
  QPainter& p;
  const QColor& wanted;
  const QRectF& seen;

  void pen(places::Ink ink, bool heavy) const {
    p.setPen(QPen(inkOf(ink), heavy ? 2.5 : ink == places::Ink::Outline ? 1.5 : 1.2, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    p.setBrush(Qt::NoBrush);
  }
  void operator()(const places::Line& l) const {
    pen(l.ink, l.heavy);
    p.drawLine(QPointF(l.x1, l.y1), QPointF(l.x2, l.y2));
  }
  void operator()(const places::Circle& c) const {
    // The ring of what is wanted shows the wire's own colour within.
    if (c.ink == places::Ink::Wanted && c.heavy && wanted.isValid()) {
      p.setPen(QPen(wanted, 5));
      p.setBrush(Qt::NoBrush);
      p.drawEllipse(QPointF(c.x, c.y), c.radius - 3, c.radius - 3);
    }
    pen(c.ink, c.heavy);
    if (c.filled) p.setBrush(inkOf(c.ink));
    p.drawEllipse(QPointF(c.x, c.y), c.radius, c.radius);
  }
  void operator()(const places::Box& b) const {
    pen(b.ink, false);
    p.drawRect(QRectF(b.x, b.y, b.width, b.height));
  }
  void operator()(const places::Words& w) const {
    QFont f = p.font();
    f.setPixelSize(std::max(7, static_cast<int>(std::lround(w.size))));
    f.setWeight(w.strong ? QFont::Bold : QFont::Normal);
    p.setFont(f);
    const auto text = qs(w.text);
    const QFontMetricsF m(f);
    const double length = m.horizontalAdvance(text);
    const double back = w.anchor == places::Anchor::Start ? 0 : w.anchor == places::Anchor::Middle ? length / 2 : length;
    const double drop = (m.ascent() - m.descent()) / 2;
    const QRectF flat = w.upwards ? QRectF(w.x - m.height() / 2, w.y + back - length, m.height(), length)
                                  : QRectF(w.x - back, w.y - m.height() / 2, length, m.height());
    if (!seen.isEmpty() && !seen.contains(flat)) return;
    p.save();
    p.translate(w.x, w.y);
    if (w.upwards) p.rotate(-90);
    const QPointF at(-back, drop);
    if (w.strong) {  // it may lie over other terminals
      QPainterPath path;
      path.addText(at, f, text);
      p.strokePath(path, QPen(palette().panel, 4, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    }
    p.setPen(inkOf(w.ink));
    p.drawText(at, text);
    p.restore();
  }
};

}  // namespace

void paintDrawing(QPainter& painter, const places::Drawing& drawing, const QColor& wanted, const QRectF& seen) {
  painter.setRenderHint(QPainter::Antialiasing);
  for (const auto& s : drawing.shapes) std::visit(Painting{painter, wanted, seen}, s);
}

}  // namespace bold::gui
