#include "gui/charts/coil_order_chart.h"

#include <QPainter>

#include "gui/theme/palette.h"

namespace bold::gui {

CoilOrderChart::CoilOrderChart(QWidget* parent) : QWidget(parent) {
  setObjectName("coilOrder");
  setMinimumHeight(190);
}

void CoilOrderChart::show(std::optional<bench::CoilOrder> order) {
  m_order = std::move(order);
  setVisible(m_order.has_value());
  if (m_order)
    setAccessibleName(m_order->turns ? (m_order->backwards ? tr("The field turns backwards") : tr("The field turns as intended"))
                                     : tr("The field does not go round"));
  update();
}

void CoilOrderChart::paintEvent(QPaintEvent*) {
  if (!m_order) return;
  const auto& c = gui::palette();
  QPainter p(this);
  p.setRenderHint(QPainter::Antialiasing);
  QFont f("DejaVu Sans");
  f.setPixelSize(11);
  p.setFont(f);
  const double left = 44;
  const auto steps = static_cast<double>(m_order->intended.size());
  const double w = (width() - left - 10) / (2 * steps + 1);
  const double h = 26;
  const auto grid = [&](double x0, const QString& title, const std::vector<bench::CoilRow>& rows, bool marked) {
    p.setPen(c.ink);
    p.drawText(QRectF(x0, 4, w * steps, 16), Qt::AlignLeft, title);
    for (std::size_t s = 0; s < rows.size(); ++s) {
      p.setPen(c.inkSoft);
      p.drawText(QRectF(x0 + w * static_cast<double>(s), 22, w, 14), Qt::AlignCenter, QString::number(s + 1));
      for (std::size_t k = 0; k < rows[s].size(); ++k) {
        const QRectF cell(x0 + w * static_cast<double>(s) + 2, 40 + h * static_cast<double>(k), w - 4, h - 4);
        const bool on = rows[s][k] != 0;
        const bool differs = marked && rows[s][k] != m_order->intended[s][k];
        p.setPen(QPen(differs ? c.stop : c.line, differs ? 2.2 : 1));
        p.setBrush(on ? c.accent : c.strip);
        p.drawRoundedRect(cell, 3, 3);
        if (differs) {
          p.setPen(on ? c.accentInk : c.ink);
          p.drawText(cell, Qt::AlignCenter, "≠");
        }
      }
    }
  };
  for (std::size_t k = 0; k < m_order->coils.size(); ++k) {
    p.setPen(c.ink);
    p.drawText(QRectF(4, 40 + h * static_cast<double>(k), left - 8, h - 4), Qt::AlignVCenter | Qt::AlignRight,
               QString::fromStdString(m_order->coils[k]));
  }
  grid(left, tr("as intended"), m_order->intended, false);
  grid(left + w * (steps + 1), tr("as wired"), m_order->wired, true);
  p.setPen(m_order->turns ? c.ink : c.stop);
  p.drawText(QRectF(left, 40 + h * static_cast<double>(m_order->coils.size()) + 6, width() - left, 18), Qt::AlignLeft,
             !m_order->turns      ? tr("The field does not go round: it will shake.")
             : m_order->backwards ? tr("The field goes round the other way.")
                                  : tr("The field goes round as intended."));
}

}  // namespace bold::gui
