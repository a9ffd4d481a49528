#include "gui/panels/findings_panel.h"

#include <QLabel>
#include <QScrollArea>
#include <QScrollBar>
#include <QTimer>
#include <QVBoxLayout>

#include "gui/panels/finding_card.h"
#include "gui/panels/left_out_card.h"
#include "gui/panels/plural.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

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
  m_quiet = plainLabel(m_inside);
  m_quiet->setObjectName("quiet");
  m_quiet->setWordWrap(true);
  m_quiet->hide();
  m_column->addWidget(m_quiet);
  m_column->addStretch();
  m_scroll->setWidget(m_inside);
  outer->addWidget(m_head);
  outer->addWidget(m_judged);
  outer->addWidget(m_scroll, 1);
  connect(&m_session, &Session::analysisChanged, this, &FindingsPanel::refresh);
  connect(&m_session, &Session::documentReplaced, this, &FindingsPanel::refresh);
  connect(&m_session, &Session::pickedChanged, this, &FindingsPanel::showPicked);
  refresh();
}

void FindingsPanel::refresh() {
  const auto& a = m_session.analysis();
  for (auto* card : m_cards) {
    m_column->removeWidget(card);
    card->hide();  // a card that asked for its repair is still on the stack
    card->deleteLater();
  }
  m_cards.clear();
  QString judged = tr("%1 checks over %2 solved commands, %3.").arg(a.checks).arg(a.commands).arg(QString::fromStdString(unknownWords(a)));
  for (const auto& x : a.assumptions) judged += " " + tr("Taken: %1.").arg(QString::fromStdString(x));
  for (const auto& x : a.why)  // what has cards of its own is not said twice
    if (!x.starts_with("left out of ") && !x.starts_with("once the planned change"))
      judged += " " + QString::fromStdString(x) + (x.ends_with('.') ? "" : ".");
  m_judged->setText(m_session.harness().devices.empty() ? tr("Nothing is on the bench yet: nothing is judged.") : judged);
  m_leftOut->refresh();
  const auto add = [this](FindingCard* card) {
    connect(card, &FindingCard::pressed, this, [this](const QString& id) { m_session.pick(m_session.picked() == id ? QString() : id); });
    connect(card, &FindingCard::repair, this, &FindingsPanel::repair);
    connect(card, &FindingCard::explain, this, &FindingsPanel::explain);
    m_column->insertWidget(1 + static_cast<int>(m_cards.size()), card);  // behind what was left out
    m_cards << card;
  };
  for (const auto& f : a.findings) {
    if (!f.explainedBy.empty()) continue;
    std::vector<const checks::Finding*> explained;
    for (const auto& e : a.findings)
      if (e.explainedBy == f.identity()) explained.push_back(&e);
    add(new FindingCard(f, explained, m_session.readOnly() || !a.explained, false, m_inside));
  }
  if (a.planned)
    for (const auto& f : a.planned->worse) add(new FindingCard(f, {}, true, true, m_inside));
  m_quiet->setVisible(m_cards.isEmpty() && a.leftOut.empty() && m_session.verdictFresh());
  m_quiet->setText(m_session.harness().devices.empty() ? tr("Put something on the bench: Ctrl+K, then type what it is.")
                                                       : tr("No check has anything to say about this bench as it is drawn. Hold the "
                                                            "drawing against the real wires, end by end, before you switch on."));
  showPicked();
}

void FindingsPanel::showPicked() {
  const auto* picked = m_session.analysis().find(m_session.picked().toStdString());
  const auto shown = picked && !picked->explainedBy.empty() ? QString::fromStdString(picked->explainedBy) : m_session.picked();
  for (auto* card : m_cards) {
    const bool here = card->identity() == shown;
    card->setPicked(here);
    if (!here) continue;
    QTimer::singleShot(0, card, [this, card] {
      m_scroll->ensureWidgetVisible(card, 0, 20);
      // Of a card that is higher than the panel, its head.
      if (card->height() > m_scroll->viewport()->height()) m_scroll->verticalScrollBar()->setValue(card->y());
    });
  }
}

void FindingsPanel::step(int by) {
  if (m_cards.isEmpty()) return;
  qsizetype at = by > 0 ? -1 : m_cards.size();
  for (qsizetype i = 0; i < m_cards.size(); ++i)
    if (m_cards[i]->identity() == m_session.picked()) at = i;
  at = std::clamp<qsizetype>(at + by, 0, m_cards.size() - 1);
  m_session.pick(m_cards[at]->identity());
  m_cards[at]->setFocus();
}

void FindingsPanel::repairPicked() {
  if (!m_session.picked().isEmpty()) repair(m_session.picked());
}

void FindingsPanel::repair(const QString& identity) {
  const auto* f = m_session.analysis().find(identity.toStdString());
  if (!f || !f->repair || f->mendedAfter > 0 || !m_session.analysisCurrent() || !m_session.analysis().explained) return;
  m_session.apply(harness::Edit(f->repair->edit));
}

}  // namespace bold::gui
