#include <QPainter>
#include <cmath>

#include "core/picture/flows.h"
#include "gui/picture/picture.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

constexpr double kEvery = 54;  // px between chevrons

// Arrowheads along a thread, the way the current flows.
void chevrons(QPainter& p, const std::vector<picture::Point>& path, bool backwards, int size) {
  const auto& c = palette();
  const double r = 3.0 + 1.8 * size;
  double left = kEvery / 2;
  for (std::size_t i = 1; i < path.size(); ++i) {
    const QPointF a(path[i - 1].x, path[i - 1].y);
    const QPointF b(path[i].x, path[i].y);
    const QPointF d = b - a;
    const double n = std::hypot(d.x(), d.y());
    if (n < 1e-6) continue;
    const QPointF u = d / n;
    for (; left < n; left += kEvery) {
      const QPointF at = a + u * left;
      const QPointF f = backwards ? -u : u;
      const QPointF side(-f.y(), f.x());
      QPolygonF head;
      head << at + f * r << at - f * r * 0.7 + side * r * 0.8 << at - f * r * 0.25 << at - f * r * 0.7 - side * r * 0.8;
      p.setPen(QPen(c.panel, 1.4));
      p.setBrush(c.ink);
      p.drawPolygon(head);
    }
    left -= n;
  }
}

}  // namespace

void paintFlows(QPainter& p, const picture::Layout& layout, const picture::Flows& flows) {
  const auto& c = palette();
  p.setRenderHint(QPainter::Antialiasing);
  for (const auto& t : layout.threads) {
    const auto it = flows.amps.find(t.connection);
    const int size = it == flows.amps.end() ? 0 : picture::chevronSize(it->second);
    if (size > 0) chevrons(p, t.path, it->second < 0, size);
  }
  QFont f("DejaVu Sans");
  f.setPixelSize(10);
  p.setFont(f);
  const QFontMetricsF metrics(f);
  for (const auto& tag : flows.volts) {
    const auto text = QString::fromStdString(tag.text);
    const double w = metrics.horizontalAdvance(text) + 6;
    const QRectF box(tag.at.x - w / 2, tag.at.y - 6.5, w, 13);
    p.setPen(QPen(c.line, 1));
    p.setBrush(c.panel);
    p.drawRoundedRect(box, 3, 3);
    p.setPen(c.ink);
    p.drawText(box, Qt::AlignCenter, text);
  }
}

}  // namespace bold::gui
