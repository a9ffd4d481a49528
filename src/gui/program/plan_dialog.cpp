#include "gui/program/plan_dialog.h"

#include <QDialogButtonBox>
#include <QListWidget>
#include <QPushButton>
#include <QVBoxLayout>

#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

PlanDialog::PlanDialog(Session& session, std::vector<wiring::PlanProposal> proposals, QWidget* parent)
    : QDialog(parent), m_session(session), m_proposals(std::move(proposals)) {
  setObjectName("planFromProgramDialog");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("Plan from the program"));
  resize(560, 460);
  auto* column = new QVBoxLayout(this);
  auto* head = plainLabel(tr("This is what the program does. Tick what is also what it is meant to do: from then on the wires are held "
                             "against it, whatever becomes of the program."),
                          this);
  head->setWordWrap(true);
  column->addWidget(head);
  m_list = new QListWidget(this);
  m_list->setObjectName("proposals");
  m_list->setAccessibleName(tr("Goals and pins that the program tells of"));
  for (const auto& p : m_proposals) {
    auto text = QString::fromStdString(p.text);
    if (p.spot.line > 0) text += tr("   (%1, line %2)").arg(QString::fromStdString(p.spot.file)).arg(p.spot.line);
    auto* item = new QListWidgetItem(text, m_list);
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(Qt::Unchecked);
  }
  column->addWidget(m_list, 1);
  auto* row = new QHBoxLayout;
  auto* all = new QPushButton(tr("Tick all"), this);
  all->setObjectName("tickAll");
  connect(all, &QPushButton::clicked, this, [this] {
    for (int k = 0; k < m_list->count(); ++k) m_list->item(k)->setCheckState(Qt::Checked);
  });
  row->addWidget(all);
  row->addStretch();
  m_take = new QPushButton(tr("State what is ticked"), this);
  m_take->setObjectName("takePlan");
  m_take->setDefault(true);
  connect(m_take, &QPushButton::clicked, this, &PlanDialog::take);
  auto* close = new QPushButton(tr("Close"), this);
  connect(close, &QPushButton::clicked, this, &QDialog::reject);
  row->addWidget(m_take);
  row->addWidget(close);
  column->addLayout(row);
  connect(m_list, &QListWidget::itemChanged, this, &PlanDialog::refresh);
  connect(&m_session.document, &Document::replaced, this, &QDialog::reject);
  connect(&m_session.document, &Document::changed, this, &QDialog::reject);  // it may be of an older program
  refresh();
}

void PlanDialog::refresh() {
  int n = 0;
  for (int k = 0; k < m_list->count(); ++k) n += m_list->item(k)->checkState() == Qt::Checked;
  m_take->setEnabled(n > 0 && !m_session.document.readOnly());
}

void PlanDialog::take() {
  std::vector<wiring::PlanProposal> confirmed;
  for (int k = 0; k < m_list->count(); ++k)
    if (m_list->item(k)->checkState() == Qt::Checked) confirmed.push_back(m_proposals[k]);
  m_session.document.apply(wiring::planEdit(m_session.document.harness(), confirmed));
  accept();
}

}  // namespace bold::gui
