#include "gui/charts/level_ladder_chart.h"

#include <QPainter>
#include <algorithm>

#include "gui/theme/palette.h"

namespace bold::gui {
namespace {
constexpr double kRow = 66;
constexpr double kLeft = 10;
}  // namespace

LevelLadderChart::LevelLadderChart(QWidget* parent) : QWidget(parent) {
  setObjectName("levelLadder");
}

void LevelLadderChart::show(std::vector<charts::Rung> rungs) {
  m_rungs = std::move(rungs);
  QStringList words;
  for (const auto& r : m_rungs)
    words << tr("%1 to %2: high %3 of %4")
                 .arg(QString::fromStdString(r.from), QString::fromStdString(r.to),
                      r.high ? QString::fromStdString(displayText(*r.high)) : tr("never"),
                      QString::fromStdString(displayText(r.needsHigh)));
  setAccessibleName(words.join("; "));
  setMinimumHeight(static_cast<int>(kRow * static_cast<double>(m_rungs.size())) + 6);
  setVisible(!m_rungs.empty());
  updateGeometry();
  update();
}

QSize LevelLadderChart::sizeHint() const {
  return {360, static_cast<int>(kRow * static_cast<double>(m_rungs.size())) + 6};
}

namespace {

struct Word {
  double at;        // where it begins, or ends
  bool rightwards;  // begins there
  QString text;
};

// Two words in one line between two edges. Where they would meet, the second goes right of the first, and what then passes the edge turns
// to the other side of its place, `across` further; the first gives way at last.
void beside(QPainter& p, double y, double from, double to, const Word& a, const Word& b, double across = 0) {
  constexpr double kApart = 10;
  const QFontMetricsF metrics(p.font());
  const double wideA = metrics.horizontalAdvance(a.text);
  const double wideB = metrics.horizontalAdvance(b.text);
  double left = std::clamp(a.rightwards ? a.at : a.at - wideA, from, std::max(from, to - wideA));
  double right = b.at;
  if (right + wideB > to) right = std::max(from, b.at - across - wideB);
  right = std::min(right, to - wideB);
  if (!a.text.isEmpty() && !b.text.isEmpty() && left + wideA + kApart > right) {
    right = std::min(left + wideA + kApart, to - wideB);
    left = std::min(left, right - kApart - wideA);
  }
  const double room = std::max(0.0, b.text.isEmpty() ? to - left : right - kApart - std::max(left, from));
  p.drawText(QRectF(std::max(left, from), y, room, 14), Qt::AlignLeft, metrics.elidedText(a.text, Qt::ElideRight, room));
  p.drawText(QRectF(right, y, wideB + 2, 14), Qt::AlignLeft, b.text);
}

}  // namespace

void LevelLadderChart::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QFont f("DejaVu Sans");
  f.setPixelSize(11);
  p.setFont(f);
  const auto say = [](Volts v) { return QString::fromStdString(displayText(v)); };
  double y = 2;
  for (const auto& r : m_rungs) {
    double top = std::max(r.needsHigh.value, r.high ? r.high->value : 0) * 1.12;
    top = std::max(top, 1.0);
    const double w = width() - 2 * kLeft;
    const auto x = [&](double v) { return kLeft + w * std::clamp(v / top, 0.0, 1.0); };
    p.setPen(c.ink);
    p.drawText(QRectF(kLeft, y, w, 15), Qt::AlignLeft, tr("%1 → %2").arg(QString::fromStdString(r.from), QString::fromStdString(r.to)));
    const double line = y + 31;
    p.setPen(Qt::NoPen);
    // What the input takes: low to the left, high to the right, nothing promised between.
    p.setBrush(c.strip);
    p.drawRect(QRectF(kLeft, line, w, 12));
    p.setBrush(c.goodSoft);
    p.drawRect(QRectF(kLeft, line, x(r.needsLow.value) - kLeft, 12));
    p.drawRect(QRectF(x(r.needsHigh.value), line, kLeft + w - x(r.needsHigh.value), 12));
    p.setPen(QPen(c.ink, 1.4));
    p.drawLine(QPointF(x(r.needsLow.value), line - 2), QPointF(x(r.needsLow.value), line + 14));
    p.drawLine(QPointF(x(r.needsHigh.value), line - 2), QPointF(x(r.needsHigh.value), line + 14));
    p.setPen(c.inkSoft);
    // Each word on its own side of the gap, as far as there is room; never over the other, never past the edge.
    beside(p, line + 15, kLeft, kLeft + w, {x(r.needsLow.value) - 2, false, tr("low to %1").arg(say(r.needsLow))},
           {x(r.needsHigh.value) + 2, true, tr("high from %1").arg(say(r.needsHigh))});
    // What arrives: a pointer each; its colour says whether that is promised, its word too.
    const auto pointer = [&](Volts v, bool good) {
      const double at = x(v.value);
      const QColor colour = good ? c.good : c.stop;
      QPolygonF head;
      head << QPointF(at, line + 1) << QPointF(at - 6, line - 9) << QPointF(at + 6, line - 9);
      p.setPen(Qt::NoPen);
      p.setBrush(colour);
      p.drawPolygon(head);
    };
    const auto word = [&](Volts v, bool good) { return good ? say(v) : tr("%1, not promised").arg(say(v)); };
    const bool low = r.low && *r.low <= r.needsLow;
    const bool high = r.high && *r.high >= r.needsHigh;
    if (r.low) pointer(*r.low, low);
    if (r.high) pointer(*r.high, high);
    p.setPen(c.ink);
    beside(p, line - 14, kLeft, kLeft + w, {r.low ? x(r.low->value) + 9 : kLeft, true, r.low ? word(*r.low, low) : QString()},
           {r.high ? x(r.high->value) + 9 : kLeft + w, true, r.high ? word(*r.high, high) : QString()}, 18);
    y += kRow;
  }
}

}  // namespace bold::gui
