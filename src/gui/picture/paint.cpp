#include <QPainter>
#include <cmath>

#include "core/picture/changes.h"
#include "core/picture/draw_loom.h"
#include "gui/picture/picture.h"
#include "gui/theme/palette.h"
#include "render/paint_shapes.h"

namespace bold::gui {
namespace {

// What an ink looks like in the window now.
QColor inWindow(draw::Ink ink) {
  const auto& c = palette();
  switch (ink) {
    case draw::Ink::Paper:
      return c.paper;
    case draw::Ink::Panel:
      return c.panel;
    case draw::Ink::Strip:
      return c.strip;
    case draw::Ink::Soft:
      return c.inkSoft;
    case draw::Ink::Line:
      return c.line;
    case draw::Ink::Casing:
      return c.casing;
    case draw::Ink::Accent:
      return c.accent;
    case draw::Ink::Supply:
      return c.supply;
    case draw::Ink::Ground:
      return c.ground;
    case draw::Ink::Text:
    case draw::Ink::Own:
      break;
  }
  return c.ink;
}

}  // namespace

void paintBadge(QPainter& p, QPointF at, int number, checks::Severity severity, bool picked) {
  const auto& c = palette();
  const double r = picture::kBadge / 2;
  QPolygonF shape;
  const bool stop = severity == checks::Severity::Stop;
  const bool caution = severity == checks::Severity::Caution;
  if (stop) {
    for (int i = 0; i < 8; ++i) {
      const double a = (22.5 + 45 * i) * M_PI / 180;
      shape << at + QPointF(std::cos(a), std::sin(a)) * r;
    }
  } else if (caution) {
    shape << at + QPointF(0, -r * 1.05) << at + QPointF(r * 1.15, r * 0.85) << at + QPointF(-r * 1.15, r * 0.85);
  } else {
    shape << at + QPointF(0, -r) << at + QPointF(r, 0) << at + QPointF(0, r) << at + QPointF(-r, 0);
  }
  p.setPen(QPen(picked ? c.ink : c.panel, picked ? 2.4 : 1.4));
  p.setBrush(stop ? c.stop : caution ? c.caution : c.note);
  p.drawPolygon(shape);
  p.setPen(stop ? c.stopInk : caution ? c.cautionInk : c.panel);
  QFont f("DejaVu Sans");
  f.setPixelSize(number > 9 ? 9 : 11);
  f.setBold(true);
  p.setFont(f);
  if (number > 0) p.drawText(QRectF(at.x() - r, at.y() - r + (caution ? 2.5 : 0), 2 * r, 2 * r), Qt::AlignCenter, QString::number(number));
}

void paintPicture(QPainter& p, const picture::Layout& layout, const std::vector<picture::Badge>& badges, const std::set<std::string>& lit,
                  bool dimming, bool progress, const QString& selection, const QString& picked) {
  p.setRenderHint(QPainter::Antialiasing);
  static const render::Theme kWindow = inWindow;
  const auto draw = [&](const draw::Shapes& shapes) { render::paint(p, shapes, kWindow); };
  const auto chosen = selection.toStdString();
  const auto shown = [&](const std::string& id) { return !dimming || lit.empty() || lit.contains(id); };
  const auto outlined = [&](const std::string& id) { return id == chosen || (!dimming && lit.contains(id)); };
  // What lies out of sight is left out: a picture of many motors is far larger than any window.
  const QRegion seen = p.hasClipping() ? p.clipRegion() : QRegion(-1'000'000, -1'000'000, 2'000'000, 2'000'000);
  const auto inSight = [&](const picture::Rect& r) { return seen.intersects(QRectF(r.x, r.y, r.w, r.h).toAlignedRect()); };
  for (const auto& b : layout.bars) draw(picture::barShapes(b));
  // Boxes first: a thread from the inner column of a header leaves between the pins of the outer one.
  for (const auto& b : layout.boxes) {
    if (!inSight(picture::covered(b))) continue;
    p.setOpacity(shown(b.device) ? 1 : 0.45);
    draw(picture::boxShapes(b, b.device == chosen));
  }
  p.setOpacity(1);
  for (const bool front : {false, true})
    for (const auto& t : layout.threads) {
      if (shown(t.connection) != front || std::ranges::none_of(picture::covered(t), inSight)) continue;
      draw(picture::threadShapes(t, outlined(t.connection), front ? 1 : picture::kFaded));
    }
  if (progress)
    for (const auto& t : layout.threads)
      if (std::ranges::any_of(picture::covered(t), inSight)) draw(picture::progressShapes(t));
  for (const auto& b : layout.boxes) {
    if (!inSight(picture::covered(b))) continue;
    p.setOpacity(shown(b.device) ? 1 : 0.45);
    draw(picture::terminalShapes(b, chosen));
  }
  p.setOpacity(1);
  for (const auto& b : layout.bars) draw(picture::barLabelShapes(b));
  for (const auto& b : badges)
    if (inSight(picture::covered(b))) paintBadge(p, {b.at.x, b.at.y}, b.number, b.severity, QString::fromStdString(b.identity) == picked);
}

}  // namespace bold::gui
