#include "gui/picture/picture.h"

#include <QEvent>
#include <QHelpEvent>
#include <QPaintEvent>
#include <QPainter>
#include <QToolTip>
#include <algorithm>
#include <cmath>
#include <utility>

#include "core/bench/nets.h"
#include "core/harness/names.h"
#include "core/parts/connectors.h"
#include "core/picture/changes.h"
#include "gui/picture/tip.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

Picture::Picture(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("picture");
  setAccessibleName(tr("Wiring picture"));
  setAccessibleDescription(tr("The bench as a wiring loom. Everything in it is also in the wiring list."));
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(true);
  connect(&m_session.document, &Document::replaced, this, [this] { m_opened = true; });
  connect(&m_session.document, &Document::changed, this, &Picture::relayout);
  connect(&m_session.document, &Document::marked, this, [this] {
    if (m_instead) return;
    picture::takeMarks(m_layout, m_session.document.harness(), m_session.document.library());
    if (m_progress) update();
  });
  connect(&m_session.analyser, &Analyser::changed, this, [this] {
    placeBadges();
    if (relight()) update();
    reflow();
  });
  connect(&m_session.selection, &Selection::commandShown, this, &Picture::reflow);
  connect(&m_session.selection, &Selection::changed, this, [this] {
    if (!m_fresh.contains(m_session.selection.subject().toStdString())) m_fresh.clear();
    relight();
    update();
    const auto at = extentOf(m_session.selection.subject());
    if (at && m_layout.thread(m_session.selection.subject().toStdString()))
      Q_EMIT reveal(*at);
    else if (at)
      Q_EMIT look(*at);
  });
  connect(&m_session.concealment, &Concealment::changed, this, &Picture::placeBadges);
  connect(&m_session.selection, &Selection::pickedChanged, this, [this] {
    relight();
    update();
    if (const auto at = badgeOf(m_session.selection.picked())) Q_EMIT look(at->adjusted(-60, -60, 60, 60));
  });
  relayout();
}

void Picture::relayout() {
  auto next = picture::layOut(shown(), m_session.document.library());
  // Only what changed is painted anew: it is little, and the whole picture is much.
  const auto changed = picture::changes(m_layout, next);
  m_fresh.clear();
  for (const auto& b : next.boxes)
    if (!m_layout.box(b.device)) m_fresh.insert(b.device);
  for (const auto& t : next.threads)
    if (!m_layout.thread(t.connection)) m_fresh.insert(t.connection);
  if (std::exchange(m_opened, false)) m_fresh.clear();
  const bool grown = next.width != m_layout.width || next.height != m_layout.height;
  m_layout = std::move(next);
  if (m_session.analyser.current()) placeBadges();
  updateGeometry();
  resize(sizeHint());
  if (relight() || grown)
    update();
  else
    updateAround(changed);
  reflow();
  Q_EMIT layoutChanged();
}

void Picture::placeBadges() {
  auto next = m_session.concealment.hidden() ? std::vector<picture::Badge>{}
                                             : picture::placeBadges(m_layout, m_session.analyser.analysis().findings);
  updateAround(picture::changes(m_badges, next));
  m_badges = std::move(next);
}

void Picture::updateAround(const std::vector<picture::Rect>& places) {
  QRegion region;
  for (const auto& r : places) region += QRectF(r.x * m_zoom, r.y * m_zoom, r.w * m_zoom, r.h * m_zoom).toAlignedRect();
  update(region);
}

const harness::Harness& Picture::shown() const {
  return m_instead ? *m_instead : m_session.document.harness();
}

void Picture::showInstead(std::optional<harness::Harness> bench) {
  if (!bench && !m_instead) return;
  m_instead = std::move(bench);
  relayout();
}

void Picture::setDimming(bool dimming) {
  if (m_dimming == dimming) return;
  m_dimming = dimming;
  relight();
  Q_EMIT litChanged(m_lit.empty() || !m_dimming ? QString() : litWords());
  update();
}

void Picture::showProgress(bool shown) {
  m_progress = shown;
  update();
}

void Picture::showCurrents(bool shown) {
  m_currents = shown;
  reflow();
  update();
}

// An analysis of another document would put arrows on wires that are not there any more: then none are drawn.
void Picture::reflow() {
  const bool before = m_flows.has_value();
  m_flows.reset();
  const auto* point = m_currents && m_session.analyser.current() ? m_session.shownPoint() : nullptr;
  if (point && point->solved()) m_flows = picture::flowsOf(m_layout, *m_session.analyser.analysis().solved, *point);
  if (before || m_flows) update();
}

// Picking a finding lights what it is about; picking a terminal lights its net; picking a device its own connections. What nothing
// hangs on yet dims nothing, and nothing is dimmed while a wire is drawn.
bool Picture::relight() {
  const auto before = std::move(m_lit);
  m_lit.clear();
  std::vector<std::string> subjects;
  if (const auto* f = m_session.analyser.analysis().find(m_session.selection.picked().toStdString());
      f && !m_session.selection.picked().isEmpty())
    subjects = f->subjects;
  else if (!m_session.selection.subject().isEmpty() && !m_from && !m_fresh.contains(m_session.selection.subject().toStdString()))
    subjects = {m_session.selection.subject().toStdString()};
  const auto& h = shown();
  for (const auto& s : subjects) {
    if (const auto address = parseAddress(s)) {
      if (!m_layout.copper) continue;
      const auto& [bench, nets] = *m_layout.copper;
      auto t = bench.terminal(*address);
      const auto* d = h.device(address->device);
      const auto part = d ? m_session.document.library().find(d->part) : nullptr;
      const auto whole = t < 0 && part ? parts::connectorsNamed(*part, address->terminal) : std::vector<parts::Connector>{};
      if (!whole.empty()) t = bench.terminal({address->device, whole.front().terminals.front()});
      m_lit.insert(address->device);
      for (const auto& l : bench.links)
        if (t >= 0 && nets.same(l.a, t)) {
          const auto& c = bench.connections[l.connection];
          m_lit.insert({c.id, c.a.device, c.b.device});
        }
    } else if (const auto* c = h.connection(s)) {
      m_lit.insert({c->id, c->a.device, c->b.device});
    } else if (h.device(s)) {
      m_lit.insert(s);
      for (const auto& x : h.connections)
        if (x.a.device == s || x.b.device == s) m_lit.insert({x.id, x.a.device, x.b.device});
    }
  }
  const auto connected = [&](const std::string& id) {
    const auto* c = h.connection(id);
    return c && (c->a.device != c->b.device || subjects.front() == id);
  };
  if (m_session.selection.picked().isEmpty() && std::ranges::none_of(m_lit, connected)) m_lit.clear();
  if (m_lit != before) Q_EMIT litChanged(m_lit.empty() || !m_dimming ? QString() : litWords());
  return m_lit != before;
}

QString Picture::litWords() const {
  const auto& h = shown();
  if (const auto* f = m_session.analyser.analysis().find(m_session.selection.picked().toStdString());
      f && !m_session.selection.picked().isEmpty())
    return tr("what the finding \"%1\" is about").arg(QString::fromStdString(f->headline));
  const auto id = m_session.selection.subject().toStdString();
  if (const auto* d = h.device(id)) return tr("what hangs on %1").arg(QString::fromStdString(shownName(h, *d)));
  if (h.connection(id)) return tr("the picked wire");
  const auto end = parseAddress(id);
  return end ? tr("everything joined to %1").arg(QString::fromStdString(shownEnd(h, m_session.document.library(), *end))) : QString();
}

QSize Picture::sizeHint() const {
  return QSizeF(m_layout.width * m_zoom, m_layout.height * m_zoom).toSize();
}

void Picture::setZoom(double zoom) {
  if (std::abs(zoom - m_zoom) < 1e-3) return;
  m_zoom = zoom;
  resize(sizeHint());
  update();
}

std::optional<QPointF> Picture::placeOf(const QString& subject) const {
  const auto s = subject.toStdString();
  if (const auto a = parseAddress(s)) {
    if (const auto* t = m_layout.terminal(*a)) return QPointF(t->at.x, t->at.y) * m_zoom;
    if (const auto* c = m_layout.connector(*a)) return QPointF(c->rect.x + c->rect.w / 2, c->rect.y + c->rect.h / 2) * m_zoom;
    return std::nullopt;
  }
  if (const auto* b = m_layout.box(s)) return QPointF(b->rect.x + b->rect.w / 2, b->rect.y + 16) * m_zoom;
  if (const auto* t = m_layout.thread(s); t && t->path.size() > 1) {
    const auto& p = t->path[t->path.size() / 2];
    const auto& o = t->path[t->path.size() / 2 - 1];
    return QPointF((p.x + o.x) / 2, (p.y + o.y) / 2) * m_zoom;
  }
  return std::nullopt;
}

std::optional<QRectF> Picture::badgeOf(const QString& identity) const {
  for (const auto& b : m_badges)
    if (QString::fromStdString(b.identity) == identity) {
      const double r = picture::kBadge / 2 * m_zoom;
      return QRectF(b.at.x * m_zoom - r, b.at.y * m_zoom - r, 2 * r, 2 * r);
    }
  return std::nullopt;
}

std::optional<QRectF> Picture::extentOf(const QString& subject) const {
  constexpr double kAround = 30;
  const auto around = [](QPointF at) { return QRectF(at - QPointF(kAround, kAround), QSizeF(2 * kAround, 2 * kAround)); };
  if (const auto* t = m_layout.thread(subject.toStdString()); t && !t->path.empty()) {
    const auto end = [&](const picture::Point& p) { return around(QPointF(p.x, p.y) * m_zoom); };
    return end(t->path.front()) | end(t->path.back());
  }
  if (const auto* b = m_layout.box(subject.toStdString()))
    return QRectF(b->rect.x * m_zoom, b->rect.y * m_zoom, b->rect.w * m_zoom, b->rect.h * m_zoom);
  const auto at = placeOf(subject);
  return at ? std::optional(around(*at)) : std::nullopt;
}

std::optional<QRectF> Picture::pickedExtent() const {
  const auto* f = m_session.analyser.analysis().find(m_session.selection.picked().toStdString());
  if (!f || m_session.selection.picked().isEmpty()) return extentOf(m_session.selection.subject());
  std::optional<QRectF> all = badgeOf(m_session.selection.picked());
  for (const auto& s : f->subjects)
    if (const auto one = extentOf(QString::fromStdString(s))) all = all ? *all | *one : *one;
  return all;
}

bool Picture::event(QEvent* e) {
  if (e->type() == QEvent::ToolTip) {
    auto* help = static_cast<QHelpEvent*>(e);
    const auto text = tipFor(m_session, subjectAt(help->pos()));
    QToolTip::showText(help->globalPos(), plainTip(text), this);
    return true;
  }
  return QWidget::event(e);
}

void Picture::paintEvent(QPaintEvent* e) {
  QPainter p(this);
  p.setClipRegion(e->region());
  p.fillRect(e->rect(), gui::palette().paper);
  if (m_session.document.harness().devices.empty()) return;
  p.scale(m_zoom, m_zoom);
  paintPicture(p, m_layout, m_currents ? std::vector<picture::Badge>{} : m_badges, m_lit, m_dimming, m_progress,
               m_session.selection.subject(), m_session.selection.picked());
  if (m_flows) paintFlows(p, m_layout, *m_flows);
  if (m_from && (m_dragged || hasFocus())) {
    if (const auto from = placeOf(QString::fromStdString(m_from->text()))) {
      const auto aim = m_dragged ? std::optional(m_pointer) : placeOf(m_session.selection.subject());
      p.setPen(QPen(gui::palette().accent, 2.5, Qt::DashLine));
      p.drawLine(*from / m_zoom, aim.value_or(*from) / m_zoom);
    }
  }
}

}  // namespace bold::gui
