#include "gui/panels/findings_panel.h"

#include <QAbstractButton>
#include <QApplication>
#include <QLabel>
#include <QScrollArea>
#include <QScrollBar>
#include <QTimer>
#include <QVBoxLayout>

#include "gui/panels/finding_card.h"
#include "gui/panels/left_out_card.h"
#include "gui/panels/margins_list.h"
#include "gui/panels/name_faults.h"
#include "gui/panels/plural.h"
#include "gui/panels/tab_order.h"
#include "gui/panels/unstated_card.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kSettles = 15;  // ms: texts that are wrapped get their height a moment after they are shown
}

FindingsPanel::FindingsPanel(Session& session, QWidget* parent) : QWidget(parent), m_session(session) {
  setObjectName("findings");
  auto* outer = new QVBoxLayout(this);
  outer->setContentsMargins(12, 12, 8, 8);
  outer->setSpacing(4);
  m_head = plainLabel(tr("Limits"), this);
  QFont f = m_head->font();
  f.setPixelSize(16);
  f.setWeight(QFont::DemiBold);
  m_head->setFont(f);
  m_judged = plainLabel(this);
  m_judged->setObjectName("judged");
  m_judged->setWordWrap(true);
  m_judged->setForegroundRole(QPalette::PlaceholderText);
  QFont small = m_judged->font();
  small.setPixelSize(12);
  m_judged->setFont(small);
  m_scroll = new QScrollArea(this);
  m_scroll->setFrameShape(QFrame::NoFrame);
  m_scroll->setWidgetResizable(true);
  m_scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  m_inside = new QWidget(m_scroll);
  m_column = new QVBoxLayout(m_inside);
  m_column->setContentsMargins(0, 4, 6, 4);
  m_column->setSpacing(8);
  m_leftOut = new LeftOutCard(session, m_inside);
  m_column->addWidget(m_leftOut);
  m_unstated = new UnstatedCard(session, m_inside);
  m_column->addWidget(m_unstated);
  m_quiet = plainLabel(m_inside);
  m_quiet->setObjectName("quiet");
  m_quiet->setWordWrap(true);
  m_quiet->hide();
  m_column->addWidget(m_quiet);
  m_margins = new MarginsList(session, m_inside);
  m_column->addWidget(m_margins);
  m_taken = plainLabel(m_inside);
  m_taken->setObjectName("taken");
  m_taken->setWordWrap(true);
  m_taken->setForegroundRole(QPalette::PlaceholderText);
  m_taken->setFont(small);
  m_column->addWidget(m_taken);
  m_column->addStretch();
  m_scroll->setWidget(m_inside);
  outer->addWidget(m_head);
  outer->addWidget(m_judged);
  m_naming = new NameFaults(session, this);
  outer->addWidget(m_naming, 1);
  outer->addWidget(m_scroll, 2);
  connect(&m_session.concealment, &Concealment::changed, this, &FindingsPanel::refresh);
  m_settling.setSingleShot(true);
  m_settling.setInterval(kSettles);
  connect(&m_settling, &QTimer::timeout, this, [this] {
    if (!m_held.widget || m_held.widget->y() == m_heldAt) return;
    holdStill();
    m_settling.start();  // until it has come to rest: on a slow machine that takes several rounds
  });
  connect(&m_session.analyser, &Analyser::changed, this, &FindingsPanel::refresh);
  connect(&m_session.document, &Document::replaced, this, [this] {
    refresh();
    m_settling.stop();
    m_held = {};
    m_lookedAt.clear();
    m_scroll->verticalScrollBar()->setValue(0);
  });
  connect(&m_session.selection, &Selection::pickedChanged, this, &FindingsPanel::showPicked);
  refresh();
}

FindingCard* FindingsPanel::newCard() {
  auto* card = new FindingCard(m_inside);
  connect(card, &FindingCard::pressed, this,
          [this](const QString& id) { m_session.selection.pick(m_session.selection.picked() == id ? QString() : id); });
  connect(card, &FindingCard::repair, this, &FindingsPanel::repair);
  connect(card, &FindingCard::explain, this, &FindingsPanel::explain);
  connect(card, &FindingCard::jump, this, [this](const checks::Field& field) { m_session.selection.jump(field); });
  return card;
}

// The card of a finding stays the same one from analysis to analysis: focus, scrolling and what is open stay where they are.
void FindingsPanel::showCards(const std::vector<FindingCard::Shown>& shown) {
  QList<FindingCard*> next;
  auto old = m_cards;
  for (const auto& s : shown) {
    const auto id = QString::fromStdString(s.finding.identity());
    const auto it = std::ranges::find_if(old, [&](const FindingCard* c) { return c->identity() == id; });
    auto* card = it != old.end() ? *it : newCard();
    if (it != old.end()) old.erase(it);
    card->show(s);
    next << card;
  }
  for (auto* gone : old) {
    m_column->removeWidget(gone);
    gone->hide();  // a card that asked for its repair is still on the stack
    gone->deleteLater();
  }
  const int first = m_column->indexOf(m_unstated) + 1;
  for (int k = 0; k < next.size(); ++k)
    if (m_column->indexOf(next[k]) != first + k) {
      m_column->removeWidget(next[k]);
      m_column->insertWidget(first + k, next[k]);
      next[k]->QWidget::show();
    }
  m_cards = next;
}

// As they are seen, from above: cards and what is in them come and go.
void FindingsPanel::orderTabs() {
  QList<QWidget*> chain{m_scroll};
  const auto inside = [&](QWidget* of) {
    for (auto* b : of->findChildren<QAbstractButton*>())
      if (b->focusPolicy() != Qt::NoFocus) chain << b;
  };
  inside(m_leftOut);
  inside(m_unstated);
  for (auto* card : m_cards) {
    chain << card;
    inside(card);
  }
  for (auto* b : m_margins->inOrder()) chain << b;
  tabInOrder(chain);
}

void FindingsPanel::refresh() {
  const auto& a = m_session.analyser.analysis();
  const bool hidden = m_session.concealment.hidden();
  m_judged->setVisible(!hidden);
  m_scroll->setVisible(!hidden);
  if (hidden) return;
  const auto anchor = anchored();
  QString judged = tr("%1 checks over %2 solved commands, %3.").arg(a.checks).arg(a.commands).arg(QString::fromStdString(unknownWords(a)));
  for (const auto& x : a.why) {  // what has cards of its own is not said twice
    const bool unstated = std::ranges::any_of(a.unstated, [&](const Unstated& u) { return u.text == x; });
    if (!unstated && !x.ends_with(" to look at again") && !x.starts_with("left out of ") && !x.starts_with("once the planned change"))
      judged += " " + QString::fromStdString(x) + (x.ends_with('.') ? "" : ".");
  }
  m_judged->setText(m_session.document.harness().devices.empty() ? tr("Nothing is on the bench yet: nothing is judged.") : judged);
  m_leftOut->refresh();
  m_unstated->refresh();
  std::vector<FindingCard::Shown> cards;
  for (const auto& f : a.findings) {
    if (!f.explainedBy.empty()) continue;
    QStringList explained;
    for (const auto& e : a.findings)
      if (e.explainedBy == f.identity()) explained << QString::fromStdString(e.headline);
    cards.push_back({f, explained, m_session.document.readOnly() || !a.explained, false});
  }
  if (a.planned)
    for (const auto& f : a.planned->worse) cards.push_back({f, {}, true, true});
  showCards(cards);
  const bool notJudged = a.verdict == Verdict::NotJudged;
  m_quiet->setVisible(m_cards.isEmpty() && a.leftOut.empty() && a.unstated.empty() && m_session.analyser.fresh());
  m_quiet->setText(m_session.document.harness().devices.empty() ? tr("Put something on the bench: Ctrl+K, then type what it is.")
                   : notJudged                                  ? tr("It could not be judged: what stands in the way is said above.")
                               : tr("No check has anything to say about this bench as it is drawn. Hold the "
                                    "drawing against the real wires, end by end, before you switch on."));
  m_margins->refresh();
  orderTabs();
  QStringList taken;
  for (const auto& x : a.assumptions) taken << QString::fromStdString(x) + ".";
  m_taken->setText(tr("Taken for granted:\n%1").arg(taken.join("\n")));
  m_taken->setVisible(!taken.isEmpty() && !m_session.document.harness().devices.empty());
  showPicked();
  hold(anchor);
}

// What somebody looks at or points at: the card that has the focus, else the one under the pointer, else the first in sight.
FindingsPanel::Anchor FindingsPanel::anchored() const {
  if (m_settling.isActive() && m_held.widget) return m_held;
  const auto top = m_scroll->verticalScrollBar()->value();
  const auto of = [&](QWidget* w) { return Anchor{w, w->y() - top}; };
  const auto* focused = window()->focusWidget();
  for (auto* card : m_cards)
    if (card == focused || card->isAncestorOf(focused)) return of(card);
  if (m_margins->isAncestorOf(focused)) return of(m_margins);
  for (auto* card : m_cards)
    if (card->underMouse()) return of(card);
  if (top == 0) return {};  // what is new comes into sight
  if (m_margins->underMouse()) return of(m_margins);
  for (auto* card : m_cards)
    if (card->isVisible() && card->geometry().bottom() > top) return of(card);
  return of(m_margins);
}

// At once, so that nothing is seen to jump, and again when every text has its final height.
void FindingsPanel::hold(const Anchor& anchor) {
  if (!anchor.widget || !isVisible()) return;
  m_held = anchor;
  m_inside->layout()->activate();
  QEvent resized(QEvent::LayoutRequest);
  QCoreApplication::sendEvent(m_scroll, &resized);
  holdStill();
  m_heldAt = -1;  // asked once more in any case
  m_settling.start();
}

void FindingsPanel::holdStill() {
  m_heldAt = m_held.widget->y();
  m_scroll->verticalScrollBar()->setValue(m_heldAt - m_held.offset);
}

void FindingsPanel::showPicked() {
  const auto* picked = m_session.analyser.analysis().find(m_session.selection.picked().toStdString());
  const auto shown = picked && !picked->explainedBy.empty() ? QString::fromStdString(picked->explainedBy) : m_session.selection.picked();
  for (auto* card : m_cards) {
    const bool here = card->identity() == shown;
    card->setPicked(here);
    if (!here || shown == m_lookedAt) continue;
    QTimer::singleShot(0, card, [this, card] {
      m_scroll->ensureWidgetVisible(card, 0, 20);
      // Of a card that is higher than the panel, its head.
      if (card->height() > m_scroll->viewport()->height()) m_scroll->verticalScrollBar()->setValue(card->y());
    });
  }
  m_lookedAt = shown;
}

void FindingsPanel::step(int by) {
  if (m_session.concealment.hidden()) return;
  if (m_cards.isEmpty()) return;
  qsizetype at = by > 0 ? -1 : m_cards.size();
  for (qsizetype i = 0; i < m_cards.size(); ++i)
    if (m_cards[i]->identity() == m_session.selection.picked()) at = i;
  at = std::clamp<qsizetype>(at + by, 0, m_cards.size() - 1);
  m_session.selection.pick(m_cards[at]->identity());
  m_cards[at]->setFocus();
}

void FindingsPanel::repairPicked() {
  if (!m_session.selection.picked().isEmpty()) repair(m_session.selection.picked());
}

void FindingsPanel::repair(const QString& identity) {
  const auto* f = m_session.analyser.analysis().find(identity.toStdString());
  if (!f || !f->repair || f->mendedAfter > 0 || !m_session.analyser.current() || !m_session.analyser.analysis().explained) return;
  m_session.document.apply(harness::Edit(f->repair->edit));
}

}  // namespace bold::gui
