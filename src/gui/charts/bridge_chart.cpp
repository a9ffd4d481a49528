#include "gui/charts/bridge_chart.h"

#include <QPainter>
#include <cmath>

#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

constexpr double kTop = 34;
constexpr double kBottom = 176;
constexpr double kFlows = 2e-3;  // A that are drawn as a path
constexpr double kMiddle = (kTop + kBottom) / 2;

void pen(QPainter& p, const QColor& colour, double width, Qt::PenStyle style = Qt::SolidLine) {
  p.setPen(QPen(colour, width, style, Qt::RoundCap));
}

// A switch in an upright lead: a lever, closed or standing off. The lead itself is coloured where current flows through.
void lever(QPainter& p, double x, double y1, double y2, std::optional<bool> on, bool flows, const QColor& colour) {
  const auto& c = gui::palette();
  const double mid = (y1 + y2) / 2;
  const double half = 13;
  pen(p, on == true && flows ? colour : c.inkSoft, on == true && flows ? 3 : 1.6);
  p.drawLine(QPointF(x, y1), QPointF(x, mid - half));
  p.drawLine(QPointF(x, mid + half), QPointF(x, y2));
  p.setBrush(c.panel);
  p.drawEllipse(QPointF(x, mid - half), 2.6, 2.6);
  p.drawEllipse(QPointF(x, mid + half), 2.6, 2.6);
  if (!on) {
    pen(p, c.caution, 2, Qt::DotLine);
    p.drawLine(QPointF(x, mid + half), QPointF(x + 7, mid - half + 3));
    p.setPen(c.ink);
    p.drawText(QRectF(x + 9, mid - 8, 14, 16), Qt::AlignCenter, "?");
    return;
  }
  pen(p, *on ? colour : c.inkSoft, *on ? 4 : 2);
  p.drawLine(QPointF(x, mid + half), *on ? QPointF(x, mid - half) : QPointF(x + 14, mid - half + 4));
}

void arrow(QPainter& p, QPointF from, QPointF to, const QColor& colour) {
  const QPointF d = to - from;
  const double n = std::hypot(d.x(), d.y());
  if (n < 1) return;
  const QPointF u = d / n;
  const QPointF s(-u.y(), u.x());
  const QPointF at = from + d * 0.55;
  p.setPen(Qt::NoPen);
  p.setBrush(colour);
  QPolygonF head;
  head << at + u * 7 << at - u * 5 + s * 6 << at - u * 5 - s * 6;
  p.drawPolygon(head);
}

}  // namespace

BridgeChart::BridgeChart(QWidget* parent) : QWidget(parent) {
  setObjectName("bridgeChart");
  setMinimumHeight(216);
}

void BridgeChart::show(std::optional<charts::BridgeState> state) {
  m_state = std::move(state);
  setVisible(m_state.has_value());
  if (m_state)
    setAccessibleName(tr("%1 %2 on %3, %4")
                          .arg(QString::fromStdString(m_state->motor), QString::fromStdString(m_state->does),
                               QString::fromStdString(m_state->stage),
                               QString::fromStdString(displayText(Amps{std::abs(m_state->motorCurrent.value)}))));
  update();
}

void BridgeChart::paintEvent(QPaintEvent*) {
  if (!m_state) return;
  const auto& c = gui::palette();
  const auto& b = *m_state;
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QFont f("DejaVu Sans");
  f.setPixelSize(11);
  p.setFont(f);
  const double w = width();
  pen(p, c.supply, 3);
  p.drawLine(QPointF(20, kTop), QPointF(w - 20, kTop));
  pen(p, c.ground, 3);
  p.drawLine(QPointF(20, kBottom), QPointF(w - 20, kBottom));
  p.setPen(c.inkSoft);
  p.drawText(QRectF(20, kTop - 20, 160, 16), Qt::AlignLeft, tr("motor supply"));
  p.drawText(QRectF(20, kBottom + 4, 160, 16), Qt::AlignLeft, tr("return"));
  p.setPen(c.ink);
  p.drawText(QRectF(w - 220, kTop - 20, 200, 16), Qt::AlignRight, QString::fromStdString(b.stage));
  const auto n = static_cast<double>(b.legs.size());
  const bool pair = b.legs.size() == 2;
  const bool half = b.legs.size() == 1 && b.legs[0].hasHigh;
  for (std::size_t i = 0; i < b.legs.size(); ++i) {
    const auto& leg = b.legs[i];
    const double x = pair   ? (i == 0 ? w * 0.22 : w * 0.78)
                     : half ? w * 0.36
                            : w * (0.2 + 0.6 * (n < 2 ? 0.5 : static_cast<double>(i) / (n - 1)));
    const bool both = leg.high == true && leg.low == true;
    const QColor on = both ? c.stop : c.accent;
    const bool through = std::abs(leg.current.value) > kFlows;
    if (leg.hasHigh) lever(p, x, kTop, kMiddle, leg.high, through || both, on);
    if (leg.hasLow) lever(p, x, kMiddle, kBottom, leg.low, through || both, on);
    if (both) {
      pen(p, c.stop, 5);
      p.drawLine(QPointF(x, kTop), QPointF(x, kBottom));
      p.setPen(c.stop);
      p.drawText(QRectF(x - 60, kMiddle - 30, 120, 16), Qt::AlignCenter, tr("short through"));
    }
    p.setPen(Qt::NoPen);
    p.setBrush(c.ink);
    p.drawEllipse(QPointF(x, kMiddle), 3.5, 3.5);
    p.setPen(c.ink);
    const bool left = x < w / 2;
    const auto name = QString::fromStdString(leg.output);
    p.drawText(QRectF(left ? x - 78 : x + 10, kMiddle - 16, 68, 14), left ? Qt::AlignRight : Qt::AlignLeft, name);
    p.setPen(c.inkSoft);
    p.drawText(QRectF(left ? x - 78 : x + 10, kMiddle + 2, 68, 14), left ? Qt::AlignRight : Qt::AlignLeft,
               leg.voltage ? QString::fromStdString(displayText(*leg.voltage)) : tr("no path"));
  }
  // The motor: between the two outputs, or from a rail to the only one.
  const double x1 = w * 0.22;
  const double x2 = w * 0.78;
  const double amps = b.motorCurrent.value;
  const bool flows = std::abs(amps) > kFlows;
  const QColor path = flows ? c.accent : c.line;
  if (pair) {
    pen(p, path, flows ? 3 : 1.6);
    p.drawLine(QPointF(x1, kMiddle), QPointF(w / 2 - 26, kMiddle));
    p.drawLine(QPointF(w / 2 + 26, kMiddle), QPointF(x2, kMiddle));
    if (flows) {
      arrow(p, amps > 0 ? QPointF(x1, kMiddle) : QPointF(w / 2 - 26, kMiddle),
            amps > 0 ? QPointF(w / 2 - 26, kMiddle) : QPointF(x1, kMiddle), c.accent);
      arrow(p, amps > 0 ? QPointF(w / 2 + 26, kMiddle) : QPointF(x2, kMiddle),
            amps > 0 ? QPointF(x2, kMiddle) : QPointF(w / 2 + 26, kMiddle), c.accent);
    }
  } else if (b.legs.size() > 2) {
    // Coils between the supply and each output that only switches to the return.
    for (std::size_t i = 0; i < b.legs.size(); ++i) {
      if (b.legs[i].hasHigh) continue;
      const double x = w * (0.2 + 0.6 * static_cast<double>(i) / (n - 1));
      const bool on = std::abs(b.legs[i].current.value) > kFlows;
      pen(p, on ? c.accent : c.inkSoft, on ? 3 : 1.6);
      p.drawLine(QPointF(x, kTop), QPointF(x, kMiddle - 4));
      p.setBrush(c.panel);
      p.drawRoundedRect(QRectF(x - 6, kTop + 14, 12, 26), 4, 4);
    }
  } else if (half) {
    const double end = b.toReturn ? kBottom : kTop;
    pen(p, path, flows ? 3 : 1.6);
    p.drawLine(QPointF(w * 0.36, kMiddle), QPointF(w * 0.64, kMiddle));
    p.drawLine(QPointF(w * 0.64, kMiddle), QPointF(w * 0.64, end));
    if (flows) {
      const QPointF leg(w * 0.36, kMiddle);
      const QPointF corner(w * 0.64, kMiddle);
      arrow(p, amps > 0 ? leg : corner, amps > 0 ? corner : leg, c.accent);
    }
  } else if (b.legs.size() == 1) {
    pen(p, path, flows ? 3 : 1.6);
    p.drawLine(QPointF(w / 2, kTop), QPointF(w / 2, kMiddle - 4));
  }
  const double above = kTop + 28;
  const QPointF centre = pair   ? QPointF(w / 2, kMiddle)
                         : half ? QPointF(w * 0.64, b.toReturn ? (kMiddle + kBottom) / 2 + 2 : above)
                                : QPointF(w / 2, above);
  if (b.legs.size() <= 2) {
    pen(p, c.ink, 1.6);
    p.setBrush(c.panel);
    p.drawEllipse(centre, 26, 26);
    p.setPen(c.ink);
    p.drawText(QRectF(centre.x() - 26, centre.y() - 8, 52, 16), Qt::AlignCenter, QString::fromStdString(displayText(Amps{std::abs(amps)})));
  }
  f.setWeight(QFont::DemiBold);
  p.setFont(f);
  p.setPen(b.shootThrough ? c.stop : c.ink);
  const auto does = tr("%1 %2").arg(QString::fromStdString(b.motor), QString::fromStdString(b.does));
  // Beside "return" where there is room, else below it.
  const QFontMetricsF wide(f);
  const bool beside = wide.horizontalAdvance(does) < w - 100;
  p.drawText(QRectF(20, beside ? kBottom + 4 : kBottom + 20, w - 40, 18), Qt::AlignRight, wide.elidedText(does, Qt::ElideRight, w - 40));
}

}  // namespace bold::gui
