#include "gui/charts/curve_plot.h"

#include <qcustomplot.h>

#include <QLabel>
#include <QVBoxLayout>
#include <algorithm>
#include <cmath>

#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

// A span of seconds is written in the unit people read.
struct Axis {
  double factor;
  QString label;
};
Axis timeAxis(double seconds) {
  if (seconds < 2e-3) return {1e6, QObject::tr("time, µs")};
  if (seconds < 2) return {1e3, QObject::tr("time, ms")};
  return {1, QObject::tr("time, s")};
}

void colour(QCPAxis* axis, const Palette& c) {
  axis->setBasePen(QPen(c.inkSoft));
  axis->setTickPen(QPen(c.inkSoft));
  axis->setSubTickPen(QPen(c.line));
  axis->setLabelColor(c.inkSoft);
  axis->setTickLabelColor(c.ink);
  axis->grid()->setPen(QPen(c.line, 1, Qt::DotLine));
  QFont f("DejaVu Sans");
  f.setPixelSize(10);
  axis->setTickLabelFont(f);
  axis->setLabelFont(f);
}

}  // namespace

CurvePlot::CurvePlot(QWidget* parent)
    : QWidget(parent), m_title(plainLabel(this)), m_note(plainLabel(this)), m_plot(new QCustomPlot(this)) {
  m_plot->setAccessibleName(tr("Chart"));
  m_plot->setLocale(QLocale::c());  // a decimal point, as everywhere
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(3);
  for (auto* l : {m_title, m_note}) l->setWordWrap(true);
  m_note->setForegroundRole(QPalette::PlaceholderText);
  column->addWidget(m_title);
  column->addWidget(m_plot, 1);
  column->addWidget(m_note);
  m_plot->setMinimumHeight(210);
  // The legend stands below the plot, in one row, where it covers nothing.
  auto* below = new QCPLayoutGrid;
  m_plot->plotLayout()->addElement(1, 0, below);
  below->addElement(0, 0, m_plot->legend);
  m_plot->legend->setFillOrder(QCPLegend::foColumnsFirst);
  m_plot->legend->setWrap(0);
  m_plot->plotLayout()->setRowStretchFactor(1, 0.001);
  m_plot->legend->setMargins(QMargins(2, 0, 2, 0));
  setMinimumHeight(270);
}

void CurvePlot::show(const charts::Curve& curve) {
  const auto& c = gui::palette();
  m_title->setText(QString::fromStdString(curve.title));
  m_note->setText(QString::fromStdString(curve.note));
  setAccessibleName(m_title->text() + ", " + m_note->text());
  m_plot->clearPlottables();
  m_plot->clearItems();
  m_plot->setBackground(QBrush(c.panel));
  double from = 0;
  double to = 1e-9;
  double low = 1e9;
  double high = -1e9;
  for (const auto& s : curve.series)
    for (std::size_t k = 0; k < s.x.size(); ++k) {
      from = std::min(from, s.x[k]);
      to = std::max(to, s.x[k]);
      low = std::min(low, s.y[k]);
      high = std::max(high, s.y[k]);
    }
  const auto axis = timeAxis(to);
  const QColor colours[] = {c.accent, c.stop, c.note};
  const Qt::PenStyle styles[] = {Qt::SolidLine, Qt::DashLine, Qt::DotLine};
  std::size_t n = 0;
  for (const auto& s : curve.series) {
    auto* graph = m_plot->addGraph();
    QVector<double> x;
    QVector<double> y;
    for (std::size_t k = 0; k < s.x.size(); ++k) {
      x << s.x[k] * axis.factor;
      y << s.y[k];
    }
    graph->setData(x, y, true);
    graph->setPen(QPen(colours[n % 3], 2, styles[n % 3]));
    graph->setName(QString::fromStdString(s.name));
    ++n;
  }
  for (const auto& limit : curve.limits) {
    // A limit far above what happens would flatten the curve: it is then only named.
    if (limit.y > high + 3 * std::max(high - low, 1.0)) continue;
    auto* line = new QCPItemStraightLine(m_plot);
    line->setPen(QPen(c.ink, 1.4, Qt::DashDotLine));
    line->point1->setCoords(0, limit.y);
    line->point2->setCoords(1, limit.y);
    auto* text = new QCPItemText(m_plot);
    QFont f("DejaVu Sans");
    f.setPixelSize(10);
    text->setFont(f);
    text->setColor(c.ink);
    text->setText(QString::fromStdString(limit.name + " " + displayText(AnyQuantity(limit.y, curve.yUnit))));
    text->setPositionAlignment(Qt::AlignRight | Qt::AlignBottom);
    text->position->setCoords(to * axis.factor, limit.y);
    low = std::min(low, limit.y);
    high = std::max(high, limit.y);
  }
  const double room = 0.12 * std::max(high - low, 0.1);
  m_plot->xAxis->setRange(from * axis.factor, to * axis.factor);
  m_plot->yAxis->setRange(low - room, high + room);
  m_plot->xAxis->setLabel(axis.label);
  m_plot->yAxis->setLabel(QString::fromUtf8(curve.yUnit == Unit::Celsius ? "°C" : "V"));
  for (auto* a : {m_plot->xAxis, m_plot->yAxis}) colour(a, c);
  m_plot->legend->setVisible(curve.series.size() > 1);
  QFont f("DejaVu Sans");
  f.setPixelSize(10);
  m_plot->legend->setFont(f);
  m_plot->legend->setTextColor(c.ink);
  m_plot->legend->setBrush(QBrush(c.panel));
  m_plot->legend->setBorderPen(Qt::NoPen);
  m_plot->replot();
}

}  // namespace bold::gui
