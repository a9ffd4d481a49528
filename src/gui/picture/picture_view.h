#pragma once

#include <QScrollArea>

#include "gui/picture/picture.h"

namespace bold::gui {

/// The picture in its scroll area: fitted to the width as long as it stays legible, unless somebody zooms. Ctrl and the wheel zoom at the
/// pointer, the middle button pans.
class PictureView : public QScrollArea {
  Q_OBJECT
 public:
  explicit PictureView(Session& session, QWidget* parent = nullptr);
  Picture& picture() { return *m_picture; }

  void fitAll();
  void fitPicked();
  void zoomBy(double factor);
  /// Fitted to the width again.
  void usualSize();

 protected:
  void resizeEvent(QResizeEvent* event) override;
  void wheelEvent(QWheelEvent* event) override;

 private:
  Picture* m_picture;
  enum class Size { Usual, Reveal, Chosen } m_size = Size::Usual;

  double usual() const;
  void fit();
  void zoomTo(double zoom, QPointF keep);
  void show(const QRectF& place);
  void look(const QRectF& place);
  void reveal(const QRectF& place);
};

}  // namespace bold::gui
