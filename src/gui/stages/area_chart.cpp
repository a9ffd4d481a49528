#include "gui/stages/area_chart.h"

#include <QPainter>
#include <algorithm>
#include <cmath>

#include "core/base/figure.h"
#include "gui/qs.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {

constexpr int kLeft = 50, kRight = 10, kTop = 8, kBottom = 34;

// A step that divides a range into three to six.
double stepOf(double range) {
  const double ten = std::pow(10, std::floor(std::log10(range)));
  for (const double s : {0.2, 0.5, 1.0, 2.0})
    if (range / (s * ten) <= 6) return s * ten;
  return 5 * ten;
}

double reach(const charts::OperatingArea& a) {
  return std::max({a.peak.value_or(0), a.withSink.value_or(0), a.continuous.value_or(0)});
}

}  // namespace

AreaChart::AreaChart(QWidget* parent) : QWidget(parent) {
  setObjectName("areaChart");
  setMinimumHeight(200);
}

void AreaChart::show(std::vector<charts::OperatingArea> areas, std::vector<charts::Whisker> whiskers) {
  m_areas = std::move(areas);
  m_whiskers = std::move(whiskers);
  QStringList said;
  const auto amps = [](std::optional<double> a) { return a ? qs(displayText(Amps{*a})) : tr("not known"); };
  for (const auto& a : m_areas)
    said << tr("%1: %2 for long, %3 for a moment, up to %4")
                .arg(qs(a.name), amps(a.continuous), amps(a.peak),
                     a.most || a.absolute ? qs(displayText(Volts{a.most ? *a.most : *a.absolute})) : tr("not known"));
  for (const auto& w : m_whiskers)
    said << tr("supply %1, %2: running %3, stalled %4").arg(qs(w.name), qs(displayText(Volts{w.volts})), amps(w.run), amps(w.stall));
  setAccessibleName(tr("Operating area"));
  setAccessibleDescription(said.join("; "));
  update();
}

void AreaChart::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QFont f = font();
  f.setPixelSize(11);
  p.setFont(f);
  if (m_areas.empty()) {
    p.setPen(c.inkSoft);
    p.drawText(rect(), Qt::AlignCenter | Qt::TextWordWrap, tr("no area of voltage and current is known"));
    return;
  }
  const QRectF plot(kLeft, kTop, width() - kLeft - kRight, height() - kTop - kBottom);
  double volts = 0;
  double asked = 0;
  for (const auto& w : m_whiskers) {
    volts = std::max(volts, w.volts);
    asked = std::max({asked, w.run.value_or(0), w.stall.value_or(0)});
  }
  // A stage for ten times the current would leave nothing of the motor to see.
  double amps = std::max(asked * 1.5, 0.1);
  if (!m_areas.empty()) amps = std::max(asked * 1.15, std::min(reach(m_areas.front()) * 1.1, 3 * std::max(asked, 0.05)));
  for (const auto& a : m_areas)
    volts = std::max(volts, std::min(a.absolute.value_or(a.most.value_or(0)) * 1.05, 2.2 * std::max(volts, 1.0)));
  volts = std::max(volts * 1.05, 1.0);
  const auto x = [&](double v) { return plot.left() + plot.width() * std::clamp(v / volts, 0.0, 1.0); };
  const auto y = [&](double a) { return plot.bottom() - plot.height() * std::clamp(a / amps, 0.0, 1.0); };
  p.setPen(c.line);
  for (double a = 0; a <= amps; a += stepOf(amps)) {
    p.setPen(c.line);
    p.drawLine(QPointF(plot.left(), y(a)), QPointF(plot.right(), y(a)));
    p.setPen(c.inkSoft);
    p.drawText(QRectF(0, y(a) - 8, kLeft - 5, 16), Qt::AlignRight | Qt::AlignVCenter, qs(displayText(Amps{a})));
  }
  for (double v = 0; v <= volts; v += stepOf(volts))
    p.drawText(QRectF(x(v) - 24, plot.bottom() + 3, 48, 14), Qt::AlignHCenter | Qt::AlignTop, QString::number(v));
  p.drawText(QRectF(plot.left(), plot.bottom() + 17, plot.width(), 15), Qt::AlignRight, tr("supply, V"));
  // For a moment, with a sink, for long: each darker than the one around it. Others than the current one are outlines.
  for (std::size_t k = m_areas.size(); k-- > 0;) {
    const auto& a = m_areas[k];
    const double left = x(a.least.value_or(0));
    const double right = x(a.most ? *a.most : a.absolute.value_or(volts));
    const auto box = [&](double top) { return QRectF(QPointF(left, y(top)), QPointF(right, plot.bottom())); };
    if (k == 0) {
      p.setPen(Qt::NoPen);
      if (a.peak) p.fillRect(box(*a.peak), between(c.accent, c.panel, 0.16));
      if (a.withSink) p.fillRect(box(*a.withSink), between(c.accent, c.panel, 0.26));
      if (a.continuous) p.fillRect(box(*a.continuous), between(c.accent, c.panel, 0.38));
    }
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(k == 0 ? c.accent : c.note, 1.4, k == 0 ? Qt::SolidLine : k == 1 ? Qt::DashLine : Qt::DotLine));
    if (const double top = reach(a); top > 0) p.drawRect(box(top));
  }
  if (!m_areas.empty()) {
    const auto& a = m_areas.front();
    const auto word = [&](std::optional<double> top, const QString& text) {
      if (!top || *top <= 0) return;
      p.setPen(c.ink);
      p.drawText(QRectF(x(a.least.value_or(0)) + 4, y(*top) + 1, plot.width(), 14), Qt::AlignLeft | Qt::AlignTop, text);
    };
    word(a.peak, tr("for a moment"));
    if (a.withSink != a.continuous) word(a.withSink, tr("with a heat sink"));
    if (!a.peak || std::abs(y(*a.peak) - y(a.continuous.value_or(0))) > 15) word(a.continuous, tr("for long"));
  }
  for (const auto& w : m_whiskers) {
    if (w.volts <= 0) continue;
    const bool full = &w == &m_whiskers.front();
    p.setPen(QPen(c.ink, full ? 2 : 1.2));
    p.setBrush(c.ink);
    const double at = x(w.volts) - (full ? 0 : 1);
    if (w.run && w.stall) p.drawLine(QPointF(at, y(*w.run)), QPointF(at, y(*w.stall)));
    if (w.stall) p.drawLine(QPointF(at - 5, y(*w.stall)), QPointF(at + 5, y(*w.stall)));
    if (w.run) p.drawEllipse(QPointF(at, y(*w.run)), full ? 4 : 2.5, full ? 4 : 2.5);
    if (!full) continue;
    const bool flip = at > plot.right() - 60;
    double leftmost = at;
    for (const auto& o : m_whiskers) leftmost = std::min(leftmost, x(o.volts));
    const auto word = [&](double a, const QString& text) {
      p.drawText(QRectF(flip ? leftmost - 70 : at + 8, y(a) - 8, 60, 16), (flip ? Qt::AlignRight : Qt::AlignLeft) | Qt::AlignVCenter, text);
    };
    if (w.stall) word(*w.stall, tr("stalled"));
    if (w.run) word(*w.run, tr("running"));
  }
}

}  // namespace bold::gui
