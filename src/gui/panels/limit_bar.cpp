#include "gui/panels/limit_bar.h"

#include <QPainter>
#include <algorithm>

#include "gui/theme/palette.h"

namespace bold::gui {

LimitBar::LimitBar(const checks::Bar& bar, checks::Severity severity, QWidget* parent) : QWidget(parent), m_bar(bar), m_severity(severity) {
  setMinimumHeight(40);
  const auto say = [](AnyQuantity q) { return QString::fromStdString(displayText(q)); };
  setAccessibleName(
      tr("%1: %2, %3 %4").arg(QString::fromStdString(bar.label), say(bar.value), QString::fromStdString(bar.limitName), say(bar.limit)));
}

void LimitBar::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  const double top = std::max({m_bar.value.value, m_bar.limit.value, 1e-12}) * 1.12;
  const double w = width() - 2.0;
  const auto at = [&](double v) { return 1 + w * std::clamp(v / top, 0.0, 1.0); };
  const double y = 25;
  p.setPen(Qt::NoPen);
  p.setBrush(c.strip);
  p.drawRoundedRect(QRectF(1, y, w, 9), 4.5, 4.5);
  const QColor colour = m_severity == checks::Severity::Stop ? c.stop : m_severity == checks::Severity::Caution ? c.caution : c.note;
  p.setBrush(colour);
  p.drawRoundedRect(QRectF(1, y, std::max(at(m_bar.value.value) - 1, 4.0), 9), 4.5, 4.5);
  if (m_bar.inner) {
    p.setPen(QPen(c.panel, 2));
    p.drawLine(QPointF(at(m_bar.inner->value), y + 1), QPointF(at(m_bar.inner->value), y + 8));
  }
  p.setPen(QPen(c.ink, 2));
  const double tick = at(m_bar.limit.value);
  p.drawLine(QPointF(tick, y - 5), QPointF(tick, y + 14));
  QFont f("DejaVu Sans");
  f.setPixelSize(11);
  p.setFont(f);
  p.setPen(c.ink);
  const auto left = QString::fromStdString(m_bar.label + " " + displayText(m_bar.value));
  const auto right = QString::fromStdString(m_bar.limitName + " " + displayText(m_bar.limit));
  p.drawText(QRectF(0, 2, w, 16), Qt::AlignLeft | Qt::AlignVCenter, left);
  p.drawText(QRectF(0, 2, w, 16), Qt::AlignRight | Qt::AlignVCenter, right);
}

}  // namespace bold::gui
