#include "gui/wiring/compare_dialog.h"

#include <QDialogButtonBox>
#include <QLabel>
#include <QScrollArea>
#include <QVBoxLayout>
#include <cmath>

#include "core/harness/overlaid.h"
#include "core/harness/part_copies.h"
#include "gui/qs.h"
#include "gui/session/second_opinion.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr std::size_t kMostShiftsShown = 8;
}

CompareDialog::CompareDialog(Session& session, harness::Harness other, const QString& name, QWidget* parent)
    : QDialog(parent), m_session(session), m_other(std::move(other)), m_name(name), m_opinion(new SecondOpinion(session.document, this)) {
  setObjectName("compare");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("Apart from %1").arg(name));
  resize(460, 520);
  auto* column = new QVBoxLayout(this);
  auto* how = plainLabel(tr("In the loom: hollow is only on this bench, dotted only on the other."), this);
  how->setWordWrap(true);
  column->addWidget(how);
  auto* scroll = new QScrollArea(this);
  scroll->setWidgetResizable(true);
  scroll->setFrameShape(QFrame::NoFrame);
  m_told = plainLabel(scroll);
  m_told->setObjectName("apart");
  m_told->setWordWrap(true);
  m_told->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  m_told->setTextInteractionFlags(Qt::TextSelectableByMouse | Qt::TextSelectableByKeyboard);
  scroll->setWidget(m_told);
  column->addWidget(scroll, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_opinion, &SecondOpinion::answered, this, [this](const Analysis& a) {
    m_otherJudged = a;
    refresh();
  });
  connect(&m_session.analyser, &Analyser::changed, this, &CompareDialog::refresh);
  connect(&m_session.document, &Document::replaced, this, &QDialog::reject);
  std::vector<Problem> said;  // of copies that are no sound parts: those parts are unknown then, and that is judged
  m_opinion->ask(m_other, harness::withDocumentParts(session.document.library(), m_other, name.toStdString(), said));
  refresh();
}

void CompareDialog::done(int result) {
  Q_EMIT overlay(std::nullopt);
  QDialog::done(result);
}

void CompareDialog::refresh() {
  Q_EMIT overlay(harness::overlaid(m_other, m_session.document.harness()));
  if (!m_otherJudged || !m_session.analyser.current()) {
    m_told->setText(tr("Both benches are judged…"));
    return;
  }
  auto mine = m_session.document.harness();
  auto theirs = m_other;
  for (auto* h : {&mine, &theirs}) {  // what was marked and read is each bench's own
    h->marks.clear();
    h->rounds.clear();
  }
  const auto c = report::compare(theirs, *m_otherJudged, mine, m_session.analyser.analysis());
  QStringList told{tr("%1: %2\nThis bench: %3").arg(m_name, qs(c.before), qs(c.after))};
  const auto part = [&](const QString& head, const auto& all, auto line) {
    if (all.empty()) return;
    told << QString() << head;
    for (const auto& x : all) told << "– " + line(x);
  };
  const auto shift = [](const report::MarginShift& s) {
    return tr("%1: %2 % of the way, was %3 %").arg(qs(s.name)).arg(std::lround(100 * s.after)).arg(std::lround(100 * s.before));
  };
  const auto first = [](std::vector<report::MarginShift> all) {
    if (all.size() > kMostShiftsShown) all.resize(kMostShiftsShown);
    return all;
  };
  part(tr("Different on the bench"), c.changes, [](const std::string& s) { return qs(s); });
  if (!m_session.concealment.hidden()) {
    const auto finding = [](const checks::Finding& f) { return qs(f.headline); };
    part(tr("Found here, and not there"), c.fresh, finding);
    part(tr("Found there, and not here"), c.gone, finding);
    part(tr("Nearer to its limit"), first(c.worse), shift);
    part(tr("Further from its limit"), first(c.better), shift);
  }
  if (c.same()) told << QString() << tr("They say the same.");
  m_told->setText(told.join("\n"));
}

}  // namespace bold::gui
