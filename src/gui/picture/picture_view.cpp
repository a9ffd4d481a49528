#include "gui/picture/picture_view.h"

#include <QScrollBar>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "gui/session/session.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {
constexpr double kLegible = 0.85;  // below this labels are no longer read: never so small by itself
constexpr double kLargest = 1.25;
constexpr double kLeast = 0.25, kMost = 3;  // by hand
constexpr double kLeastToReveal = 0.4;
constexpr double kNotch = 1.15;
}  // namespace

PictureView::PictureView(Session& session, QWidget* parent) : QScrollArea(parent), m_picture(new Picture(session)) {
  setObjectName("pictureView");
  setFrameShape(QFrame::NoFrame);
  setWidget(m_picture);
  setAlignment(Qt::AlignHCenter | Qt::AlignTop);
  setFocusProxy(m_picture);
  connect(m_picture, &Picture::layoutChanged, this, &PictureView::fit);
  connect(m_picture, &Picture::look, this, &PictureView::look);
  connect(m_picture, &Picture::reveal, this, &PictureView::reveal);
  connect(m_picture, &Picture::follow, this, &PictureView::show);
  connect(m_picture, &Picture::panned, this, [this](const QPoint& by) {
    horizontalScrollBar()->setValue(horizontalScrollBar()->value() - by.x());
    verticalScrollBar()->setValue(verticalScrollBar()->value() - by.y());
  });
  connect(&session.document, &Document::replaced, this, &PictureView::usualSize);
}

void PictureView::resizeEvent(QResizeEvent* e) {
  QScrollArea::resizeEvent(e);
  fit();
}

void PictureView::wheelEvent(QWheelEvent* e) {
  if (!(e->modifiers() & Qt::ControlModifier)) {
    QScrollArea::wheelEvent(e);
    return;
  }
  m_size = Size::Chosen;
  zoomTo(m_picture->zoom() * std::pow(kNotch, e->angleDelta().y() / 120.0), e->position());
  e->accept();
}

void PictureView::zoomBy(double factor) {
  m_size = Size::Chosen;
  zoomTo(m_picture->zoom() * factor, QPointF(viewport()->rect().center()));
}

// What lies under `keep`, a place of the viewport, stays there.
void PictureView::zoomTo(double zoom, QPointF keep) {
  const double before = m_picture->zoom();
  const auto at = (keep - QPointF(m_picture->pos())) / before;
  m_picture->setZoom(std::clamp(zoom, kLeast, kMost));
  const auto now = at * m_picture->zoom() - keep;
  horizontalScrollBar()->setValue(static_cast<int>(now.x()));
  verticalScrollBar()->setValue(static_cast<int>(now.y()));
}

void PictureView::fitAll() {
  const auto& l = m_picture->pictureLayout();
  if (l.width <= 0 || l.height <= 0) return;
  m_size = Size::Chosen;
  m_picture->setZoom(std::clamp(std::min(viewport()->width() / l.width, viewport()->height() / l.height), kLeast, kLargest));
}

void PictureView::fitPicked() {
  const auto place = m_picture->pickedExtent();
  if (!place) return;
  m_size = Size::Chosen;
  const double zoom = m_picture->zoom();
  const double wanted = zoom * std::min(viewport()->width() / place->width(), viewport()->height() / place->height());
  m_picture->setZoom(std::clamp(wanted, kLeast, 1.6));
  const double k = m_picture->zoom() / zoom;
  show({place->topLeft() * k, place->size() * k});
}

void PictureView::usualSize() {
  m_size = Size::Usual;
  fit();
}

double PictureView::usual() const {
  const double want = m_picture->pictureLayout().width;
  return want > 0 ? std::clamp(viewport()->width() / want, kLegible, kLargest) : 1;
}

void PictureView::fit() {
  if (m_size == Size::Usual) m_picture->setZoom(usual());
  auto back = viewport()->palette();
  back.setColor(viewport()->backgroundRole(), gui::palette().paper);
  viewport()->setPalette(back);
  viewport()->setAutoFillBackground(true);
}

// Scrolls as little as it takes; of what is larger than the room, its beginning.
void PictureView::show(const QRectF& place) {
  const auto scroll = [](QScrollBar& bar, double from, double to, double room) {
    const double now = bar.value();
    if (to - from > room)
      bar.setValue(static_cast<int>(from));
    else if (from < now)
      bar.setValue(static_cast<int>(from));
    else if (to > now + room)
      bar.setValue(static_cast<int>(to - room));
  };
  scroll(*horizontalScrollBar(), place.left(), place.right(), viewport()->width());
  scroll(*verticalScrollBar(), place.top(), place.bottom(), viewport()->height());
}

void PictureView::look(const QRectF& place) {
  if (m_size != Size::Reveal) return show(place);
  const double k = usual() / m_picture->zoom();
  usualSize();
  show({place.topLeft() * k, place.size() * k});
}

// Both ends of a wire are seen at once, if it has to be from further away; then back to the usual size.
void PictureView::reveal(const QRectF& place) {
  if (m_size == Size::Chosen) return show(place);
  const auto unscaled = QRectF(place.topLeft() / m_picture->zoom(), place.size() / m_picture->zoom());
  const double fits = std::min(viewport()->width() / unscaled.width(), viewport()->height() / unscaled.height());
  const double zoom = std::min(usual(), std::max(fits, kLeastToReveal));
  m_size = zoom < usual() ? Size::Reveal : Size::Usual;
  m_picture->setZoom(zoom);
  show({unscaled.topLeft() * zoom, unscaled.size() * zoom});
}

}  // namespace bold::gui
