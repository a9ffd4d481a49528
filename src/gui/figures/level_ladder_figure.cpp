#include "gui/figures/level_ladder_figure.h"

#include <QPainter>
#include <algorithm>

#include "gui/theme/palette.h"

namespace bold::gui {
namespace {
constexpr double kRow = 66;
constexpr double kLeft = 10;
}  // namespace

LevelLadderFigure::LevelLadderFigure(QWidget* parent) : QWidget(parent) {
  setObjectName("levelLadder");
}

void LevelLadderFigure::show(std::vector<figures::Rung> rungs) {
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

QSize LevelLadderFigure::sizeHint() const {
  return {360, static_cast<int>(kRow * static_cast<double>(m_rungs.size())) + 6};
}

void LevelLadderFigure::paintEvent(QPaintEvent*) {
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
    // Each word on its own side of the gap, however narrow that is.
    p.drawText(QRectF(x(r.needsLow.value) - 122, line + 15, 120, 14), Qt::AlignRight, tr("low to %1").arg(say(r.needsLow)));
    p.drawText(QRectF(x(r.needsHigh.value) + 2, line + 15, 140, 14), Qt::AlignLeft, tr("high from %1").arg(say(r.needsHigh)));
    // What arrives: a pointer each; its colour says whether that is promised, its word too.
    const auto pointer = [&](Volts v, bool good, const QString& word) {
      const double at = x(v.value);
      const QColor colour = good ? c.good : c.stop;
      QPolygonF head;
      head << QPointF(at, line + 1) << QPointF(at - 6, line - 9) << QPointF(at + 6, line - 9);
      p.setPen(Qt::NoPen);
      p.setBrush(colour);
      p.drawPolygon(head);
      p.setPen(c.ink);
      const bool right = at > kLeft + w - 96;
      p.drawText(QRectF(right ? at - 110 : at + 9, line - 14, 101, 13), right ? Qt::AlignRight : Qt::AlignLeft,
                 good ? word : tr("%1, not promised").arg(word));
    };
    if (r.low) pointer(*r.low, *r.low <= r.needsLow, say(*r.low));
    if (r.high) pointer(*r.high, *r.high >= r.needsHigh, say(*r.high));
    y += kRow;
  }
}

}  // namespace bold::gui
