#pragma once

#include <QWidget>
#include <memory>
#include <optional>

#include "core/places/drawing.h"

namespace bold::gui {

/// Where terminals are on a part. As large as it gets, and where that is too small to read, the neighbourhood of what is wanted.
class PlaceView : public QWidget {
  Q_OBJECT
 public:
  explicit PlaceView(QWidget* parent = nullptr);
  /// @param wanted the colour of the wire that goes there; invalid: none
  void show(std::shared_ptr<const parts::Part> part, const places::Wish& wish, const QColor& wanted = {});
  bool empty() const { return m_drawing.shapes.empty(); }
  const places::Drawing& drawing() const { return m_drawing; }
  QSize sizeHint() const override;
  QSize minimumSizeHint() const override { return {90, 60}; }
  /// Where a terminal is drawn, in the widget; nothing where it is not, or lies outside.
  std::optional<QPointF> placeOf(int terminal) const;

 Q_SIGNALS:
  void picked(int terminal);

 protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;

 private:
  places::Drawing m_drawing;
  std::vector<int> m_wanted;
  QColor m_colour;

  struct Window {
    double scale;
    QPointF shift;
  };
  Window window() const;
};

}  // namespace bold::gui
