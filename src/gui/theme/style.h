#pragma once

#include <QProxyStyle>

namespace bold::gui {

/// Fusion with what it draws too faintly on dark grounds drawn from our own palette: check boxes, and the cross that empties a field.
/// Buttons of dialogs have words, no icons.
class Style : public QProxyStyle {
 public:
  Style();
  void drawPrimitive(PrimitiveElement element, const QStyleOption* option, QPainter* painter, const QWidget* widget) const override;
  int styleHint(StyleHint hint, const QStyleOption* option, const QWidget* widget, QStyleHintReturn* data) const override;
  QIcon standardIcon(StandardPixmap which, const QStyleOption* option, const QWidget* widget) const override;
};

}  // namespace bold::gui
