#include "gui/stages/pins_dialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QStyle>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "core/choose/pin_demands.h"
#include "core/harness/names.h"
#include "core/parts/roles.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

PinsDialog::PinsDialog(Session& session, QWidget* parent) : QDialog(parent), m_session(session) {
  setObjectName("pins");
  setAttribute(Qt::WA_DeleteOnClose);
  setWindowTitle(tr("Pins for signals"));
  resize(760, 560);
  auto* column = new QVBoxLayout(this);
  m_motor = new QComboBox(this);
  m_motor->setObjectName("pinsMotor");
  speak(m_motor, tr("Whose signals"));
  m_motor->addItem(tr("the signals of all motors"), QString());
  const auto& h = session.document.harness();
  for (const auto& d : h.devices)
    if (const auto part = session.document.library().find(d.part); part && parts::isMotor(*part))
      m_motor->addItem(tr("the signals of %1").arg(qs(harness::shownName(h, d))), qs(d.id));
  m_motor->setCurrentIndex(std::max(0, m_motor->findData(session.selection.subject())));
  column->addWidget(m_motor, 0, Qt::AlignLeft);
  const auto tree = [&](const char* name, const QString& spoken, const QStringList& heads) {
    auto* t = new QTreeWidget(this);
    t->setObjectName(name);
    t->setAccessibleName(spoken);
    t->setHeaderLabels(heads);
    t->setColumnCount(static_cast<int>(heads.size()));
    t->setRootIsDecorated(false);
    t->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
    return t;
  };
  m_list = tree("pinsList", tr("Signals and their pins"), {tr("Motor"), tr("Signal"), tr("Pin"), tr("Why there")});
  column->addWidget(m_list, 3);
  column->addWidget(plainLabel(tr("Why not another pin"), this));
  m_others = tree("pinsOthers", tr("Why not another pin"), {tr("Pin"), tr("Why not")});
  column->addWidget(m_others, 2);
  m_said = plainLabel(this);
  m_said->setObjectName("pinsSaid");
  m_said->setWordWrap(true);
  column->addWidget(m_said);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  m_put = buttons->addButton(tr("Put them on the plan"), QDialogButtonBox::ActionRole);
  m_put->setObjectName("pinsPut");
  m_put->setProperty("primary", true);
  m_put->setDefault(true);
  m_put->style()->polish(m_put);  // it was dressed before it was the main one
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_put, &QPushButton::clicked, this, &PinsDialog::put);
  connect(m_motor, &QComboBox::activated, this, &PinsDialog::refresh);
  connect(m_list, &QTreeWidget::currentItemChanged, this, &PinsDialog::showOthers);
  connect(&m_session.document, &Document::changed, this, &PinsDialog::close);
  refresh();
  m_list->setFocus();
}

void PinsDialog::refresh() {
  const auto& h = m_session.document.harness();
  const auto& library = m_session.document.library();
  const auto demands = choose::pinDemands(h, library, m_motor->currentData().toString().toStdString());
  m_plan = choose::placeSignals(h, library, demands);
  m_list->clear();
  for (const auto& c : m_plan.choices) {
    const auto* d = h.device(c.demand.motor);
    new QTreeWidgetItem(
        m_list, {d ? qs(harness::shownName(h, *d)) : QString(), qs(c.demand.role), qs(harness::shownEnd(h, library, c.pin)), qs(c.why)});
  }
  const bool change = !choose::pinEdit(h, library, m_plan).changes.empty();
  m_put->setEnabled(change && !m_session.document.readOnly());
  m_said->setText(!m_plan.problem.empty() ? qs(m_plan.problem)
                  : demands.empty()       ? tr("No motor here needs a pin: put a stage on the bench first.")
                  : change                ? QString()
                                          : tr("Every signal has its pin, wired and stated."));
  if (m_list->topLevelItemCount() > 0) m_list->setCurrentItem(m_list->topLevelItem(0));
  showOthers();
}

void PinsDialog::showOthers() {
  m_others->clear();
  const int at = m_list->currentItem() ? m_list->indexOfTopLevelItem(m_list->currentItem()) : -1;
  if (at < 0 || at >= static_cast<int>(m_plan.choices.size())) return;
  for (const auto& p :
       choose::passedOver(m_session.document.harness(), m_session.document.library(), m_plan, m_plan.choices[static_cast<std::size_t>(at)]))
    new QTreeWidgetItem(m_others, {qs(p.pin), qs(p.why)});
}

void PinsDialog::put() {
  m_session.document.apply(choose::pinEdit(m_session.document.harness(), m_session.document.library(), m_plan));  // and it closes
}

}  // namespace bold::gui
