#include "gui/stages/candidate_list.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QPainter>
#include <QScrollBar>
#include <QStandardItemModel>
#include <QStyledItemDelegate>
#include <QToolTip>
#include <algorithm>

#include "core/checks/margin_words.h"
#include "gui/panels/limit_bar.h"
#include "gui/picture/picture.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/stages/candidate_words.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kLine = 17, kPad = 6;
constexpr int kBadge = 34;  // before the name
constexpr int kPins = 44, kGap = 10;

QFont sized(QFont f, int pixels, bool bold = false) {
  f.setPixelSize(pixels);
  f.setWeight(bold ? QFont::DemiBold : QFont::Normal);
  return f;
}

}  // namespace

class CandidateDelegate : public QStyledItemDelegate {
 public:
  explicit CandidateDelegate(CandidateList& list) : QStyledItemDelegate(&list), m_list(list) {}

  QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
    const auto& row = m_list.m_rows[static_cast<std::size_t>(index.row())];
    return {200, 2 * kPad + kLine * (row.change ? 3 : 2)};
  }

  void paint(QPainter* p, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
    const auto& c = gui::palette();
    const auto& row = m_list.m_rows[static_cast<std::size_t>(index.row())];
    const auto& one = row.candidate;
    const QRect r = option.rect;
    p->save();
    p->setRenderHint(QPainter::Antialiasing);
    const bool selected = option.state & QStyle::State_Selected;
    if (selected) {
      p->setPen(QPen(c.accent, m_list.hasFocus() ? 2 : 1));
      p->setBrush(c.accentSoft);
      p->drawRoundedRect(QRectF(r).adjusted(2, 1, -2, -1), 7, 7);
    }
    const int top = r.top() + kPad;
    badge(*p, one, QPointF(r.left() + 18, top + kLine - 2));
    const auto columns = m_list.columns();
    const bool out = !one.excluded.empty();
    const auto text = [&](int x, int y, int width, const QString& what, const QFont& f, const QColor& ink) {
      p->setFont(f);
      p->setPen(ink);
      p->drawText(QRect(r.left() + x, y, width, kLine), Qt::AlignLeft | Qt::AlignVCenter,
                  QFontMetrics(f).elidedText(what, Qt::ElideRight, width));
    };
    const bool pinned = m_list.m_pinned.contains(CandidateList::keyOf(one));
    const auto name = (pinned ? QString::fromUtf8("◆ ") : QString()) + nameOf(m_list.m_session, one);
    const int right = columns.empty() ? r.width() : columns.back().left + columns.back().width;
    const int nameWidth = out ? right - kBadge : columns.front().width - kBadge;
    text(kBadge, top, nameWidth, name, sized(option.font, 13, true), out ? c.inkSoft : c.ink);
    // What is against it may run on under the bars.
    const auto why = whyOf(row);
    text(kBadge, top + kLine, right - kBadge, why.isEmpty() ? summaryOf(m_list.m_session, one) : why, sized(option.font, 11), c.inkSoft);
    if (row.change) text(kBadge, top + 2 * kLine, right - kBadge, changeOf(row), sized(option.font, 12, true), c.accent);
    if (!out)
      for (const auto& column : columns) {
        if (!column.row.empty()) {
          bar(*p, one, column, r, top);
        } else if (column.left > 0) {
          const bool pins = column.width == kPins;
          text(column.left, top, column.width, pins ? pinWords(one) : addsOf(m_list.m_session, one), sized(option.font, 12), c.ink);
        }
      }
    p->restore();
  }

 private:
  CandidateList& m_list;

  static QString pinWords(const choose::Candidate& c) {
    return QString::number(c.pins) + (c.pwmPins > 0 ? QObject::tr(" (%1~)").arg(c.pwmPins) : QString());
  }

  static void badge(QPainter& p, const choose::Candidate& c, QPointF at) {
    const auto& colours = gui::palette();
    if (!c.excluded.empty()) {
      p.setPen(QPen(colours.inkSoft, 1.6));
      p.drawLine(at - QPointF(5, 0), at + QPointF(5, 0));
    } else if (c.verdict == Verdict::Clear) {
      p.setPen(Qt::NoPen);
      p.setBrush(colours.good);
      p.drawEllipse(at, 6.5, 6.5);
    } else {
      paintBadge(p, at, static_cast<int>(c.against.size()),
                 c.verdict == Verdict::DoNotSwitchOn ? checks::Severity::Stop : checks::Severity::Caution, false);
    }
  }

  static void bar(QPainter& p, const choose::Candidate& c, const CandidateList::Column& column, const QRect& r, int top) {
    auto it = c.margins.find(column.row);
    if (it == c.margins.end() && column.row == "stall") it = c.margins.find("trip");
    if (it == c.margins.end()) return;
    const auto* passed = it->second.passed();
    paintWay(p, QRectF(r.left() + column.left, top + 5, column.width - kGap, 7), it->second.used().value_or(0),
             passed ? passed->consequence : checks::Severity::Note);
  }
};

CandidateList::CandidateList(Session& session, QWidget* parent)
    : QListView(parent), m_session(session), m_model(new QStandardItemModel(this)) {
  setObjectName("stagesList");
  setModel(m_model);
  setItemDelegate(new CandidateDelegate(*this));
  setEditTriggers(NoEditTriggers);
  setVerticalScrollMode(ScrollPerPixel);
  setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOn);
  setFrameShape(QFrame::NoFrame);
  setResizeMode(Adjust);
}

QString CandidateList::keyOf(const choose::Candidate& c) {
  return qs(c.stage) + (c.parallel ? "+" : "");
}

std::vector<CandidateList::Column> CandidateList::columns() const {
  const int width = viewport()->width() - 8;
  const bool adds = width > 780;
  const int addsWidth = adds ? 140 : 0;
  const int bars = width < 420 ? 0 : 6;
  const int name = bars == 0 ? width : std::clamp(width * 37 / 100, 180, 320);
  const int each = bars == 0 ? 0 : std::max(44, (width - name - kPins - addsWidth) / bars);
  std::vector<Column> out{{tr("Stage"), tr("Best first: by verdict, then by what has to be fitted besides, then by pins."), 0, name}};
  if (bars == 0) return out;
  int x = name;
  for (const auto& row : choose::marginRows()) {
    if (row.id == "trip") continue;  // stands under "Stalled", which its stages have not
    out.push_back({qs(std::string(row.label)), qs(std::string(row.means)), x, each, std::string(row.id)});
    x += each;
  }
  out.push_back({tr("Pins"), tr("Pins of the controller; with ~ those that need PWM."), x, kPins});
  if (adds) out.push_back({tr("Besides"), tr("Parts that have to be fitted besides."), x + kPins, addsWidth});
  return out;
}

void CandidateList::show(const std::vector<const StageSearch::Row*>& rows) {
  const auto had = currentRow() ? keyOf(currentRow()->candidate) : QString();
  const bool first = !currentIndex().isValid() || currentIndex().row() == 0;
  std::vector<StageSearch::Row> next;
  for (const bool top : {true, false})
    for (const auto* r : rows)
      if (m_pinned.contains(keyOf(r->candidate)) == top) next.push_back(*r);
  m_filling = true;
  m_rows = std::move(next);
  const int n = static_cast<int>(m_rows.size());
  if (m_model->rowCount() > n) m_model->removeRows(n, m_model->rowCount() - n);
  while (m_model->rowCount() < n) m_model->appendRow(new QStandardItem);
  int at = m_rows.empty() ? -1 : 0;
  for (int k = 0; k < n; ++k) {
    const auto& row = m_rows[static_cast<std::size_t>(k)];
    auto* item = m_model->item(k);
    item->setText(nameOf(m_session, row.candidate));
    item->setData(spokenOf(m_session, row), Qt::AccessibleTextRole);
    item->setData(row.change.has_value(), Qt::UserRole);  // its height follows
    // Until somebody picks one it is the best.
    if (!first && keyOf(row.candidate) == had) at = k;
  }
  setCurrentIndex(at < 0 ? QModelIndex() : m_model->index(at, 0));
  m_filling = false;
  scheduleDelayedItemsLayout();
  viewport()->update();
  Q_EMIT picked();
}

const StageSearch::Row* CandidateList::currentRow() const {
  const int k = currentIndex().isValid() ? currentIndex().row() : -1;
  return k >= 0 && k < static_cast<int>(m_rows.size()) ? &m_rows[static_cast<std::size_t>(k)] : nullptr;
}

std::vector<const StageSearch::Row*> CandidateList::pinned() const {
  std::vector<const StageSearch::Row*> out;
  for (const auto& r : m_rows)
    if (m_pinned.contains(keyOf(r.candidate))) out.push_back(&r);
  return out;
}

void CandidateList::pinCurrent() {
  const auto* row = currentRow();
  if (!row) return;
  const auto key = keyOf(row->candidate);
  if (!m_pinned.erase(key)) m_pinned.insert(key);
  Q_EMIT pinsChanged();
}

void CandidateList::clearPins() {
  m_pinned.clear();
}

void CandidateList::currentChanged(const QModelIndex& current, const QModelIndex& previous) {
  QListView::currentChanged(current, previous);
  if (!m_filling) Q_EMIT picked();
}

void CandidateList::keyPressEvent(QKeyEvent* e) {
  if (e->key() == Qt::Key_Space && e->modifiers() == Qt::NoModifier)
    pinCurrent();
  else if ((e->key() == Qt::Key_Return || e->key() == Qt::Key_Enter) && e->modifiers() == Qt::NoModifier && currentIndex().isValid())
    Q_EMIT activated(currentIndex());
  else
    QListView::keyPressEvent(e);
}

void CandidateList::resizeEvent(QResizeEvent* e) {
  QListView::resizeEvent(e);
  Q_EMIT resized();
}

CandidateHeader::CandidateHeader(CandidateList& list, QWidget* parent) : QWidget(parent), m_list(list) {
  setFixedHeight(26);
  connect(&list, &CandidateList::resized, this, qOverload<>(&QWidget::update));
}

void CandidateHeader::paintEvent(QPaintEvent*) {
  const auto& c = gui::palette();
  QPainter p(this);
  p.setPen(c.inkSoft);
  p.setFont(sized(font(), 11, true));
  for (const auto& column : m_list.columns())
    p.drawText(QRect(column.left + (column.left == 0 ? kBadge : 0), 0, column.width - 4, height() - 2), Qt::AlignLeft | Qt::AlignVCenter,
               QFontMetrics(p.font()).elidedText(column.title, Qt::ElideRight, column.width - 4));
  p.setPen(c.line);
  p.drawLine(0, height() - 1, width(), height() - 1);
}

bool CandidateHeader::event(QEvent* e) {
  if (e->type() != QEvent::ToolTip) return QWidget::event(e);
  const auto* help = static_cast<QHelpEvent*>(e);
  for (const auto& column : m_list.columns())
    if (help->pos().x() >= column.left && help->pos().x() < column.left + column.width)
      QToolTip::showText(help->globalPos(), plainTip(column.tip), this);
  return true;
}

}  // namespace bold::gui
