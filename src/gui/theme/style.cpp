#include "gui/theme/style.h"

#include <QIcon>
#include <QPainter>
#include <QStyleFactory>
#include <QStyleOption>

#include "gui/theme/palette.h"

namespace bold::gui {

Style::Style() : QProxyStyle(QStyleFactory::create("Fusion")) {}

void Style::drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* p, const QWidget* widget) const {
  if (element != PE_IndicatorCheckBox) return QProxyStyle::drawPrimitive(element, option, p, widget);
  const auto& c = palette();
  const bool on = option->state & State_On;
  const bool enabled = option->state & State_Enabled;
  p->save();
  p->setRenderHint(QPainter::Antialiasing);
  const QRectF box = QRectF(option->rect).adjusted(0.5, 0.5, -0.5, -0.5);
  p->setPen(QPen(option->state & State_HasFocus ? c.accent : c.inkSoft, option->state & State_HasFocus ? 2 : 1.2));
  p->setBrush(on && enabled ? c.accent : c.panel);
  p->drawRoundedRect(box, 3, 3);
  if (on) {
    p->setPen(QPen(enabled ? c.accentInk : c.inkSoft, 1.9, Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
    const double u = box.width() / 12;
    const QPointF tick[]{box.topLeft() + QPointF(2.8 * u, 6.3 * u), box.topLeft() + QPointF(5.2 * u, 8.7 * u),
                         box.topLeft() + QPointF(9.4 * u, 3.6 * u)};
    p->drawPolyline(tick, 3);
  }
  p->restore();
}

int Style::styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget, QStyleHintReturn* data) const {
  if (hint == SH_DialogButtonBox_ButtonsHaveIcons) return 0;
  return QProxyStyle::styleHint(hint, option, widget, data);
}

QIcon Style::standardIcon(StandardPixmap which, const QStyleOption* option, const QWidget* widget) const {
  if (which != SP_LineEditClearButton) return QProxyStyle::standardIcon(which, option, widget);
  QPixmap cross(32, 32);
  cross.fill(Qt::transparent);
  QPainter p(&cross);
  p.setRenderHint(QPainter::Antialiasing);
  p.setPen(QPen(palette().inkSoft, 3.2, Qt::SolidLine, Qt::RoundCap));
  p.drawLine(QPointF(9, 9), QPointF(23, 23));
  p.drawLine(QPointF(23, 9), QPointF(9, 23));
  return QIcon(cross);
}

}  // namespace bold::gui
