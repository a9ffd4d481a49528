#include "gui/panels/limit_bar.h"

#include <QPainter>
#include <algorithm>

#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

constexpr double kPast = 1.12;      // of the way that is drawn, where nothing is past it
constexpr double kMostDrawn = 1.8;  // beyond it lies past the edge

QColor colourOf(checks::Severity severity) {
  const auto& c = gui::palette();
  return severity == checks::Severity::Stop ? c.stop : severity == checks::Severity::Note ? c.note : c.caution;
}

}  // namespace

void paintWay(QPainter& p, const QRectF& place, double used, checks::Severity past, double inner) {
  const auto& c = gui::palette();
  const double reach = std::max(kPast, std::min(used, kMostDrawn) * 1.03);
  const auto at = [&](double share) { return place.left() + place.width() * std::clamp(share / reach, 0.0, 1.0); };
  const auto fill = [&](double from, double to, const QColor& colour) {
    p.fillRect(QRectF(QPointF(at(from), place.top()), QPointF(at(to), place.bottom())), colour);
  };
  fill(0, reach, c.strip);
  fill(0, std::min(used, 1.0), c.handle);
  if (used > 1) fill(1, used, colourOf(past));
  if (inner >= 0) {
    p.setPen(QPen(c.panel, 2));
    p.drawLine(QPointF(at(inner), place.top() + 1), QPointF(at(inner), place.bottom() - 1));
  }
  p.setPen(QPen(c.ink, 2));
  p.drawLine(QPointF(at(1), place.top() - 4), QPointF(at(1), place.bottom() + 4));
}

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
  const QRectF place(1, 25, width() - 2.0, 9);
  const double limit = m_bar.limit.value;
  const double value = m_bar.value.value;
  if (m_bar.floor && limit > 0) {  // what is missing to a least
    const double top = std::max(value, limit) * kPast;
    const auto at = [&](double v) { return place.left() + place.width() * std::clamp(v / top, 0.0, 1.0); };
    p.fillRect(place, c.strip);
    p.fillRect(QRectF(QPointF(place.left(), place.top()), QPointF(at(std::max(0.0, value)), place.bottom())), c.handle);
    if (value < limit)
      p.fillRect(QRectF(QPointF(at(std::max(0.0, value)), place.top()), QPointF(at(limit), place.bottom())), colourOf(m_severity));
    p.setPen(QPen(c.ink, 2));
    p.drawLine(QPointF(at(limit), place.top() - 4), QPointF(at(limit), place.bottom() + 4));
  } else {
    const double used = limit > 0 ? value / limit : value > limit ? kMostDrawn : 0;
    paintWay(p, place, used, m_severity, m_bar.inner && limit > 0 ? m_bar.inner->value / limit : -1);
  }
  QFont f("DejaVu Sans");
  f.setPixelSize(11);
  p.setFont(f);
  p.setPen(c.ink);
  // Where both do not stand side by side the name of the number gives way, never its figure.
  const QFontMetricsF metrics(f);
  const auto right = QString::fromStdString(m_bar.limitName + " " + displayText(m_bar.limit));
  const auto figure = " " + QString::fromStdString(displayText(m_bar.value));
  const double room = place.width() - metrics.horizontalAdvance(right) - metrics.horizontalAdvance(figure) - 14;
  const auto left = metrics.elidedText(QString::fromStdString(m_bar.label), Qt::ElideRight, room) + figure;
  p.drawText(QRectF(0, 2, place.width(), 16), Qt::AlignLeft | Qt::AlignVCenter, left);
  p.drawText(QRectF(0, 2, place.width(), 16), Qt::AlignRight | Qt::AlignVCenter, right);
}

}  // namespace bold::gui
