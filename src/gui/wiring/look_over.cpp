#include "gui/wiring/look_over.h"

#include <QDateTime>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSettings>
#include <QVBoxLayout>

#include "core/harness/colour_codes.h"
#include "core/harness/names.h"
#include "core/wiring/wire_list.h"
#include "gui/field_manners.h"
#include "gui/half_typed.h"
#include "gui/panels/tab_order.h"
#include "gui/qs.h"
#include "gui/session/second_opinion.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

using harness::Marked;

namespace {

// What an opinion is about: the mark and what it says.
std::string keyOf(const harness::Mark& m) {
  return m.id + " " + (m.found ? (*m.found)[0].text() + " " + (*m.found)[1].text() : m.remark);
}

}  // namespace

LookOver::LookOver(Session& session, QWidget* parent)
    : QWidget(parent), m_session(session), m_opinion(new SecondOpinion(session.document, this)) {
  setObjectName("lookOver");
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  m_expected = plainLabel(this);
  m_expected->setObjectName("wireExpected");
  m_expected->setWordWrap(true);
  auto* first = new QHBoxLayout;
  first->addWidget(m_expected, 1);
  column->addLayout(first);

  auto* row = new QHBoxLayout;
  row->setSpacing(4);
  const std::array names{tr("F Fitted"), tr("T Tugged"), tr("S Seen"), tr("X Wrong")};
  const std::array tips{tr("It is made as it is drawn (F)"), tr("It held when it was pulled at (T)"),
                        tr("It was seen at both its ends (S)"), tr("Something else is there: say what (X)")};
  for (std::size_t k = 0; k < m_marks.size(); ++k) {
    auto* b = m_marks[k] = new QPushButton(names[k], this);
    b->setObjectName(QString("mark-") + qs(word(static_cast<Marked>(k))));
    b->setToolTip(tips[k]);
    b->setCheckable(true);
    b->setProperty("tight", true);
    connect(b, &QPushButton::clicked, this, [this, k] { mark(static_cast<Marked>(k)); });
    row->addWidget(b, 1);
  }
  m_initials = new QLineEdit(QSettings().value("initials").toString(), this);
  declareField(m_initials, FieldKind::Value, tr("your initials"));
  m_initials->setObjectName("initials");
  m_initials->setAccessibleName(tr("Your initials, for what you mark"));
  m_initials->setToolTip(tr("Your initials: they stand beside what you mark"));
  m_initials->setPlaceholderText(tr("you"));
  m_initials->setMaxLength(8);
  m_initials->setFixedWidth(48);
  connect(m_initials, &QLineEdit::editingFinished, this, [this] {
    m_initials->setModified(false);
    QSettings().setValue("initials", m_initials->text().trimmed());
  });
  connect(m_initials, &QLineEdit::returnPressed, this, &LookOver::done);
  first->addWidget(m_initials);
  column->addLayout(row);

  m_otherwise = new QWidget(this);
  auto* wrong = new QVBoxLayout(m_otherwise);
  wrong->setContentsMargins(0, 0, 0, 0);
  m_found = new QLineEdit(m_otherwise);
  declareField(m_found, FieldKind::Entry, tr("what was found instead:"));
  m_found->setMaxLength(kMostLetters);
  m_found->setObjectName("foundInstead");
  m_found->setPlaceholderText(tr("where does it go instead? d8, or: loose"));
  m_found->setAccessibleName(tr("What is there instead: the end it goes to, both ends, or words"));
  m_judged = plainLabel(m_otherwise);
  m_judged->setObjectName("asFound");
  m_judged->setWordWrap(true);
  auto* ways = new QHBoxLayout;
  m_benchIsRight = new QPushButton(tr("The bench is right"), m_otherwise);
  m_benchIsRight->setObjectName("benchIsRight");
  m_benchIsRight->setToolTip(tr("The list is changed to what was found"));
  m_putRight = new QPushButton(tr("It is put right"), m_otherwise);
  m_putRight->setObjectName("putRight");
  m_putRight->setToolTip(tr("The wire has been moved to where the list says"));
  ways->addWidget(m_benchIsRight);
  ways->addWidget(m_putRight);
  ways->addStretch();
  wrong->addWidget(m_found);
  wrong->addWidget(m_judged);
  wrong->addLayout(ways);
  column->addWidget(m_otherwise);
  tabInOrder({m_marks[0], m_marks[1], m_marks[2], m_marks[3], m_initials, m_found, m_benchIsRight, m_putRight});

  connect(m_found, &QLineEdit::returnPressed, this, &LookOver::takeFound);
  connect(m_benchIsRight, &QPushButton::clicked, this, [this] {
    if (const auto* c = picked())
      m_session.document.apply(takeAsFound(m_session.document.harness(), m_session.document.library(), c->id, witness()));
    Q_EMIT done();
  });
  connect(m_putRight, &QPushButton::clicked, this, [this] {
    mark(Marked::Fitted);
    Q_EMIT done();
  });
  connect(m_opinion, &SecondOpinion::answered, this, [this](const Analysis& a) {
    const auto* c = picked();
    const auto* m = c ? marksOf(m_session.document.harness(), m_session.document.library(), *c).wrong : nullptr;
    if (!m || keyOf(*m) != m_askedAbout) return;
    if (m_session.concealment.hidden()) return;
    m_judged->setText(tr("Found: %1. As found: %2: %3.")
                          .arg(m->found ? qs(shownEnd(m_session.document.harness(), m_session.document.library(), (*m->found)[0]) + " – " +
                                             shownEnd(m_session.document.harness(), m_session.document.library(), (*m->found)[1]))
                                        : qs(m->remark),
                               qs(headline(a.verdict)).toLower(), qs(summary(a))));
  });
  connect(&m_session.analyser, &Analyser::changed, this, [this] {
    if (isVisible()) refresh();
  });
  refresh();
}

const harness::Connection* LookOver::picked() const {
  return m_session.document.harness().connection(m_session.selection.subject().toStdString());
}

harness::Witness LookOver::witness() const {
  return {m_initials->text().trimmed().toStdString(), QDateTime::currentDateTime().toString("yyyy-MM-ddTHH:mm").toStdString()};
}

void LookOver::mark(Marked what) {
  const auto* c = picked();
  if (!c || m_session.document.readOnly()) return;
  const auto& h = m_session.document.harness();
  if (what != Marked::Wrong) {
    m_asked.clear();
    m_session.document.apply(harness::mark(h, m_session.document.library(), c->id, what, witness()));
    return;
  }
  if (const auto* m = marksOf(h, m_session.document.library(), *c).wrong) {  // off again
    m_session.document.apply(harness::mark(h, m_session.document.library(), c->id, what, witness(), {m->found, m->remark}));
    return;
  }
  m_asked = qs(c->id);
  m_found->clear();
  refresh();
  m_found->setFocus();
}

void LookOver::takeFound() {
  const auto* c = picked();
  if (!c || m_asked != qs(c->id)) return;
  const auto found = parseFound(m_session.document.harness(), m_session.document.library(), *c, m_found->text().trimmed().toStdString());
  if (!found) {
    m_judged->setText(qs(found.error().what));
    m_judged->show();
    return;
  }
  m_asked.clear();
  m_session.document.apply(
      harness::mark(m_session.document.harness(), m_session.document.library(), c->id, Marked::Wrong, witness(), *found));
  Q_EMIT done();
}

void LookOver::refresh(const std::vector<std::string>& readBy) {
  m_readBy = readBy;
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  const auto* c = picked();
  const auto marks = c ? marksOf(h, library, *c) : harness::Marks{};
  const std::array on{marks.fitted, marks.tugged, marks.seen, marks.wrong};
  for (std::size_t k = 0; k < on.size(); ++k) {
    m_marks[k]->setEnabled(c && !m_session.document.readOnly());
    m_marks[k]->setChecked(on[k] != nullptr);
    m_marks[k]->setAccessibleDescription(on[k] ? tr("marked by %1, %2").arg(qs(on[k]->by), qs(on[k]->at)) : QString());
  }
  QStringList told;
  if (c) {
    if (c->kind == harness::ConnectionKind::Wire && !c->colour.empty()) told << qs(harness::colourName(c->colour));
    if (c->gauge) told << tr("%1 AWG").arg(*c->gauge);
    if (c->length) told << qs(displayText(*c->length));
    const auto& solved = m_session.analyser.analysis().solved;
    const auto volts = solved ? wiring::expectedVoltage(*solved, c->a) : std::string();
    told << (volts.empty() ? tr("voltage not known") : tr("%1 with the power on").arg(qs(volts)));
    QStringList seen;
    for (const auto* m : on)
      if (m && !m->by.empty()) seen << qs(m->by);
    seen.removeDuplicates();
    if (!seen.isEmpty()) told << tr("marked by %1").arg(seen.join(", "));
    QStringList readers;
    for (const auto& r : m_readBy) readers << qs(r);
    if (!readers.isEmpty()) told << tr("read back by %1").arg(readers.join(", "));
  }
  m_expected->setText(told.join(" · "));
  m_expected->setVisible(c != nullptr);
  if (c && m_asked != qs(c->id)) m_asked.clear();
  const bool asking = c && !m_asked.isEmpty();
  m_otherwise->setVisible(asking || marks.wrong);
  m_found->setVisible(asking);
  m_judged->setVisible(marks.wrong);
  m_benchIsRight->setVisible(marks.wrong && marks.wrong->found);
  m_putRight->setVisible(marks.wrong);
  if (!marks.wrong) {
    m_opinion->drop();
    m_askedAbout.clear();
  } else if (m_askedAbout != keyOf(*marks.wrong)) {
    m_askedAbout = keyOf(*marks.wrong);
    m_judged->setText(marks.wrong->found ? tr("Judged as it was found…")
                                         : tr("Found: %1.").arg(qs(marks.wrong->remark.empty() ? "otherwise" : marks.wrong->remark)));
    if (marks.wrong->found) {
      auto alone = h;  // this wire as it was found, nothing else in doubt
      alone.marks = {*marks.wrong};
      auto bench = asFound(alone, library);
      bench.marks.clear();
      m_opinion->ask(std::move(bench));
    }
  }
}

}  // namespace bold::gui
