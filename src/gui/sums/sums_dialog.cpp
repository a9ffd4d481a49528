#include "gui/sums/sums_dialog.h"

#include <QDialogButtonBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/harness/names.h"
#include "gui/half_typed.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
constexpr int kListWidth = 210, kFieldWidth = 120;
}

SumsDialog::SumsDialog(Session& session, std::string motor, QWidget* parent)
    : QDialog(parent), m_session(session), m_motor(std::move(motor)) {
  setObjectName("sums");
  setAttribute(Qt::WA_DeleteOnClose);
  resize(720, 430);
  auto* outer = new QVBoxLayout(this);
  auto* row = new QHBoxLayout;
  m_list = new QListWidget(this);
  m_list->setObjectName("sumsList");
  m_list->setAccessibleName(tr("Sums"));
  m_list->setFixedWidth(kListWidth);
  row->addWidget(m_list);
  auto* right = new QVBoxLayout;
  m_title = plainLabel(this);
  QFont f = m_title->font();
  f.setWeight(QFont::DemiBold);
  f.setPixelSize(15);
  m_title->setFont(f);
  right->addWidget(m_title);
  m_form = new QFormLayout;
  right->addLayout(m_form);
  m_text = plainLabel(this);
  m_text->setObjectName("sumsText");
  m_text->setWordWrap(true);
  f.setPixelSize(14);
  m_text->setFont(f);
  right->addWidget(m_text);
  m_formula = plainLabel(this);
  m_formula->setObjectName("sumsFormula");
  m_formula->setWordWrap(true);
  m_formula->setForegroundRole(QPalette::PlaceholderText);
  right->addWidget(m_formula);
  m_use = new QPushButton(this);
  m_use->setObjectName("sumsUse");
  m_use->setProperty("primary", true);
  right->addWidget(m_use, 0, Qt::AlignLeft);
  right->addStretch();
  row->addLayout(right, 1);
  outer->addLayout(row, 1);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  outer->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_list, &QListWidget::currentRowChanged, this, &SumsDialog::showSum);
  connect(m_use, &QPushButton::clicked, this, [this] {
    if (!m_edit.changes.empty()) m_session.document.apply(m_edit);
  });
  connect(&m_session.analyser, &Analyser::changed, this, &SumsDialog::collect);
  connect(&m_session.document, &Document::replaced, this, &QDialog::close);
  collect();
}

// Of the bench as it will be, where something is planned.
void SumsDialog::collect() {
  if (!m_session.analyser.current()) return;
  const auto& h = m_session.document.harness();
  const auto* device = h.device(m_motor);
  if (!device) {
    close();
    return;
  }
  setWindowTitle(tr("Sums for %1").arg(qs(harness::shownName(h, *device))));
  const auto& analysis = m_session.analyser.analysis();
  m_solved = analysis.solved;
  if (analysis.planned)
    for (const auto& cell : analysis.planned->judged.cells)
      if (cell->solved->bench.deviceIndex(m_motor) >= 0) m_solved = cell->solved;
  if (!m_solved) return;
  const auto bench = sums::sumBench(h, m_session.document.library(), *m_solved, m_motor);
  m_sums = bench ? sums::sumsFor(*bench) : std::vector<sums::Sum>();
  const int had = m_list->currentRow();
  const QString title = m_list->currentItem() ? m_list->currentItem()->text() : QString();
  const QSignalBlocker quiet(m_list);
  m_list->clear();
  for (const auto& s : m_sums) m_list->addItem(qs(s.title));
  int at = had < 0 && m_list->count() > 0 ? 0 : had;
  for (int k = 0; k < m_list->count(); ++k)
    if (m_list->item(k)->text() == title) at = k;
  m_list->setCurrentRow(std::min(at, m_list->count() - 1));
  showSum();
}

void SumsDialog::showSum() {
  while (m_form->rowCount() > 0) m_form->removeRow(0);
  m_fields.clear();
  const int at = m_list->currentRow();
  if (at < 0 || at >= static_cast<int>(m_sums.size())) {
    m_title->setText(tr("There is nothing to work out yet"));
    m_text->setText(tr("Give the motor a supply and a stage first: most sums are of what flows there."));
    m_formula->clear();
    m_use->hide();
    return;
  }
  const auto& sum = m_sums[static_cast<std::size_t>(at)];
  m_title->setText(qs(sum.title));
  for (const auto& in : sum.inputs) {
    auto* line = new QWidget(this);
    auto* row = new QHBoxLayout(line);
    row->setContentsMargins(0, 0, 0, 0);
    auto* edit = new QLineEdit(qs(in.value), line);
    declareField(edit, FieldKind::Search);  // worked out as it is typed
    edit->setObjectName(qs("sum-" + in.id));
    edit->setAccessibleName(qs(in.label));
    edit->setFixedWidth(kFieldWidth);
    auto* word = plainLabel(line);
    word->setObjectName(qs("sumWord-" + in.id));
    word->setWordWrap(true);
    row->addWidget(edit);
    row->addWidget(word, 1);
    plainRow(*m_form, qs(in.label), line);
    m_fields.push_back({edit, word});
    connect(edit, &QLineEdit::textChanged, this, &SumsDialog::work);
  }
  work();
}

void SumsDialog::work() {
  const auto& sum = m_sums[static_cast<std::size_t>(m_list->currentRow())];
  std::vector<std::string> values;
  for (const auto& f : m_fields) {
    values.push_back(f.edit->text().toStdString());
    f.word->clear();
  }
  const auto worked = sum.of(values);
  m_edit = {};
  m_use->hide();
  if (const auto* problems = std::get_if<std::vector<sums::SumProblem>>(&worked)) {
    m_text->clear();
    m_formula->clear();
    for (const auto& p : *problems) {
      bool said = false;
      for (std::size_t k = 0; k < sum.inputs.size(); ++k)
        if (sum.inputs[k].id == p.input) {
          auto ink = m_fields[k].word->palette();
          ink.setColor(QPalette::WindowText, gui::palette().stop);
          m_fields[k].word->setPalette(ink);
          m_fields[k].word->setText(qs(p.what));
          said = true;
        }
      if (!said) m_text->setText(qs(p.what));
    }
    return;
  }
  const auto& result = std::get<sums::SumResult>(worked);
  m_text->setText(qs(result.text));
  m_formula->setText(qs(result.formula));
  m_edit = result.edit;
  m_use->setText(plainAction(qs(result.use)));
  m_use->setVisible(!result.use.empty() && !m_edit.changes.empty() && !m_session.document.readOnly());
}

}  // namespace bold::gui
