#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <algorithm>
#include <cmath>

#include "core/parts/connectors.h"
#include "gui/picture/picture.h"
#include "gui/session/session.h"

namespace bold::gui {
namespace {

constexpr double kReach = 12;  // how near a press counts for a terminal
constexpr double kThreadReach = 6;
constexpr double kReachSmall = 6;  // of one of hundreds

double distance(QPointF p, QPointF a, QPointF b) {
  const QPointF d = b - a;
  const double n = QPointF::dotProduct(d, d);
  const double t = n > 0 ? std::clamp(QPointF::dotProduct(p - a, d) / n, 0.0, 1.0) : 0;
  const QPointF near = a + d * t - p;
  return std::hypot(near.x(), near.y());
}

}  // namespace

std::optional<Address> Picture::placeAt(QPointF p) const {
  const QPointF at = p / m_zoom;
  std::optional<Address> best;
  double nearest = 1e9;
  for (const auto& b : m_layout.boxes) {
    for (const auto& t : b.terminals) {
      // A label belongs to its terminal.
      const double dx = at.x() - t.at.x;
      const double dy = at.y() - t.at.y;
      const double d = std::hypot(dx, dy);
      const bool onLabel = !t.bare && std::abs(dy) < 9 && (t.labelLeft ? dx < 0 && dx > -70 : dx > 0 && dx < 60);
      const double cost = onLabel ? std::min(d, 9 + std::abs(dy) / 10) : d;
      if (cost < (t.small ? kReachSmall : t.bare ? kReachSmall + 2 : kReach) && cost < nearest) {
        nearest = cost;
        best = t.address;
      }
    }
    for (const auto& c : b.connectors)
      if (!best && QRectF(c.rect.x, c.rect.y, c.rect.w, c.rect.h).contains(at)) best = c.address;
  }
  return best;
}

QString Picture::subjectAt(QPointF p) const {
  if (const auto t = placeAt(p)) return QString::fromStdString(t->text());
  const QPointF at = p / m_zoom;
  for (auto it = m_layout.threads.rbegin(); it != m_layout.threads.rend(); ++it)
    for (std::size_t i = 1; i < it->path.size(); ++i)
      if (distance(at, {it->path[i - 1].x, it->path[i - 1].y}, {it->path[i].x, it->path[i].y}) < kThreadReach)
        return QString::fromStdString(it->connection);
  for (const auto& b : m_layout.boxes)
    if (QRectF(b.rect.x, b.rect.y, b.rect.w, b.rect.h).contains(at)) return QString::fromStdString(b.device);
  return {};
}

void Picture::mousePressEvent(QMouseEvent* e) {
  if (e->button() == Qt::MiddleButton) {
    m_pan = e->globalPosition().toPoint();
    setCursor(Qt::ClosedHandCursor);
    return;
  }
  if (e->button() != Qt::LeftButton) return;
  const QPointF p = e->position();
  for (const auto& b : m_badges)
    if (const auto r = badgeOf(QString::fromStdString(b.identity)); r && r->contains(p) && !m_currents) {
      m_session.selection.pick(QString::fromStdString(b.identity));
      return;
    }
  m_from = m_instead ? std::nullopt : placeAt(p);  // nothing is wired on what is only shown
  m_moved.clear();
  // Of a picked connection the end that is pressed is drawn elsewhere; its other end stays.
  const auto* picked = m_session.document.harness().connection(m_session.selection.subject().toStdString());
  if (m_from && picked && (picked->a == *m_from || picked->b == *m_from)) {
    m_moved = m_session.selection.subject();
    m_movedSecond = picked->b == *m_from;
    m_movedFrom = *m_from;
    m_from = m_movedSecond ? picked->a : picked->b;
  }
  m_pointer = p;
  m_dragged = false;
  m_session.selection.pick({});
  m_session.selection.select(subjectAt(p));
}

void Picture::mouseMoveEvent(QMouseEvent* e) {
  if (m_pan) {
    const auto now = e->globalPosition().toPoint();
    const auto by = now - *m_pan;
    m_pan = now;
    Q_EMIT panned(by);
    return;
  }
  if (m_from && (e->buttons() & Qt::LeftButton)) {
    m_dragged = m_dragged || (e->position() - m_pointer).manhattanLength() > 10;
    m_pointer = e->position();
    if (m_dragged) {
      relight();
      update();
      const auto to = placeAt(m_pointer);
      Q_EMIT joining(QString::fromStdString(m_from->text()), to ? QString::fromStdString(to->text()) : QString());
      Q_EMIT follow(QRectF(m_pointer - QPointF(24, 24), QSizeF(48, 48)));
    }
  }
  setCursor(placeAt(e->position()) ? Qt::CrossCursor : Qt::ArrowCursor);
}

void Picture::mouseReleaseEvent(QMouseEvent* e) {
  if (e->button() == Qt::MiddleButton) {
    m_pan.reset();
    setCursor(Qt::ArrowCursor);
    return;
  }
  const auto from = m_from;
  m_from.reset();
  if (from && m_dragged) {
    const auto to = placeAt(e->position());
    if (to && !m_moved.isEmpty()) {
      if (*to != m_movedFrom) Q_EMIT endDrawn(m_moved, m_movedSecond, QString::fromStdString(to->text()));
    } else if (to && !(*to == *from))
      Q_EMIT wireDrawn(QString::fromStdString(from->text()), QString::fromStdString(to->text()));
  }
  if (from && m_dragged) Q_EMIT joining({}, {});
  m_dragged = false;
  relight();
  update();
}

void Picture::contextMenuEvent(QContextMenuEvent* e) {
  // By key it is about what is picked, by mouse about what lies under the pointer.
  const bool byKey = e->reason() == QContextMenuEvent::Keyboard;
  const QPoint at = byKey ? placeOf(m_session.selection.subject()).value_or(QPointF(rect().center())).toPoint() : e->pos();
  if (!byKey) m_session.selection.select(subjectAt(e->pos()));
  Q_EMIT menuWanted(m_session.selection.subject(), mapToGlobal(at));
}

// Arrow keys walk over the terminals, Enter begins and ends a wire, Escape lets go.
void Picture::keyPressEvent(QKeyEvent* e) {
  const auto selected = parseAddress(m_session.selection.subject().toStdString());
  switch (e->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
    case Qt::Key_Up:
    case Qt::Key_Down:
      moveFocus(e->key());
      return;
    case Qt::Key_Return:
    case Qt::Key_Enter:
      if (!selected || m_instead) return;
      if (!m_from) {
        m_from = *selected;
        m_pointer = placeOf(m_session.selection.subject()).value_or(QPointF());
        Q_EMIT joining(m_session.selection.subject(), {});
      } else {
        const auto from = *m_from;
        m_from.reset();
        Q_EMIT joining({}, {});
        if (!(from == *selected)) Q_EMIT wireDrawn(QString::fromStdString(from.text()), m_session.selection.subject());
      }
      relight();
      update();
      return;
    case Qt::Key_Escape:
      letGo();
      return;
    default:
      QWidget::keyPressEvent(e);
  }
}

void Picture::letGo() {
  const bool begun = m_from.has_value();
  m_from.reset();
  if (begun) Q_EMIT joining({}, {});
  if (!begun) {  // first the wire that is drawn, then what is picked
    m_session.selection.pick({});
    m_session.selection.select({});
  }
  relight();
  update();
}

void Picture::moveFocus(int key) {
  using picture::Direction;
  const auto way = key == Qt::Key_Left    ? Direction::Left
                   : key == Qt::Key_Right ? Direction::Right
                   : key == Qt::Key_Up    ? Direction::Up
                                          : Direction::Down;
  const auto from = parseAddress(m_session.selection.subject().toStdString());
  const auto next = picture::nextPlace(m_layout, from.value_or(Address{}), way);
  if (!next) return;
  m_session.selection.select(QString::fromStdString(next->text()));
  if (m_from) Q_EMIT joining(QString::fromStdString(m_from->text()), m_session.selection.subject());
}

}  // namespace bold::gui
