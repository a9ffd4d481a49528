#include "gui/panels/stages_dialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QTimer>
#include <QTreeWidget>
#include <QVBoxLayout>
#include <algorithm>

#include "core/checks/margin_words.h"
#include "core/choose/stage_wiring.h"
#include "core/harness/names.h"
#include "core/parts/roles.h"
#include "gui/panels/plural.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

constexpr int kStageWidth = 270;

enum Column { Stage, Verdict, Tightest, Besides, kColumns };

QColor inkOf(bold::Verdict v) {
  const auto& p = palette();
  return v == bold::Verdict::DoNotSwitchOn ? p.stop : v == bold::Verdict::Clear ? p.good : p.caution;
}

}  // namespace

StagesDialog::StagesDialog(Session& session, std::string motor, QWidget* parent)
    : QDialog(parent), m_session(session), m_motor(std::move(motor)) {
  setObjectName("stages");
  setAttribute(Qt::WA_DeleteOnClose);
  resize(820, 600);
  auto* column = new QVBoxLayout(this);
  m_said = plainLabel(this);
  m_said->setObjectName("stagesSaid");
  m_supply = new QComboBox(this);
  m_supply->setObjectName("stagesSupply");
  speak(m_supply, tr("What feeds the motor"));
  auto* row = new QHBoxLayout;
  row->addWidget(m_said, 1);
  row->addWidget(plainLabel(tr("fed by"), this));
  row->addWidget(m_supply);
  column->addLayout(row);
  m_list = new QTreeWidget(this);
  m_list->setObjectName("stagesList");
  m_list->setAccessibleName(tr("Stages for the motor, best first"));
  m_list->setColumnCount(kColumns);
  m_list->setHeaderLabels({tr("Stage"), tr("As planned"), tr("Tightest"), tr("It takes")});
  m_list->setRootIsDecorated(false);
  m_list->setUniformRowHeights(true);
  m_list->header()->setSectionResizeMode(QHeaderView::ResizeToContents);
  m_list->header()->setSectionResizeMode(Stage, QHeaderView::Interactive);
  m_list->header()->resizeSection(Stage, kStageWidth);
  m_list->header()->setSectionResizeMode(Tightest, QHeaderView::Stretch);
  column->addWidget(m_list, 1);
  m_why = plainLabel(this);
  m_why->setObjectName("stagesWhy");
  m_why->setWordWrap(true);
  m_why->setMinimumHeight(5 * fontMetrics().lineSpacing());
  m_why->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  column->addWidget(m_why);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close, this);
  m_put = buttons->addButton(tr("Put it on the plan"), QDialogButtonBox::ActionRole);
  m_put->setObjectName("stagesPut");
  m_put->setDefault(true);
  column->addWidget(buttons);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  connect(m_put, &QPushButton::clicked, this, &StagesDialog::put);
  connect(m_list, &QTreeWidget::itemActivated, this, &StagesDialog::put);
  connect(m_list, &QTreeWidget::currentItemChanged, this, &StagesDialog::showChosen);
  connect(m_supply, &QComboBox::activated, this, &StagesDialog::begin);
  connect(&m_session.document, &Document::changed, this, &StagesDialog::close);  // what was tried is of another bench
  const auto& h = m_session.document.harness();
  if (const auto* d = h.device(m_motor)) setWindowTitle(tr("Stages for %1").arg(qs(harness::shownName(h, *d))));
  m_supply->addItem(tr("the first that is free"), QString());
  for (const auto& d : h.devices)
    if (const auto part = m_session.document.library().find(d.part);
        part && parts::isSource(*part) && d.state != harness::State::ToBeRemoved)
      m_supply->addItem(qs(harness::shownName(h, d)), qs(d.id));
  m_list->setFocus();
  begin();
}

void StagesDialog::begin() {
  m_tried.clear();
  m_list->clear();
  m_next = 0;
  m_stages = choose::stagesFor(m_session.document.harness(), m_session.document.library(), m_motor);
  // Most often it is judged already: only what a stage changes is worked out then.
  m_now = m_session.analyser.current() ? m_session.analyser.analysis().judged
                                       : judge(m_session.document.harness(), m_session.document.library(), {}).value_or(JudgedBench{});
  showChosen();
  QTimer::singleShot(0, this, &StagesDialog::tryNext);
}

void StagesDialog::tryNext() {
  if (!m_now || m_next >= m_stages.size()) return;
  auto one = choose::candidate(m_session.document.harness(), m_session.document.library(), m_motor, m_stages[m_next++],
                               m_supply->currentData().toString().toStdString(), {}, *m_now);
  if (one) insert(std::move(*one));
  const auto fit = std::ranges::count_if(m_tried, [](const auto& c) { return c.excluded.empty(); });
  m_said->setText(m_next < m_stages.size() ? tr("Trying: %1 of %2").arg(m_next).arg(m_stages.size())
                  : fit > 0                ? tr("%1 can drive it, best first").arg(plural(static_cast<int>(fit), tr("stage"), tr("stages")))
                                           : tr("No stage of the library can be put there as the bench is."));
  QTimer::singleShot(0, this, &StagesDialog::tryNext);
}

void StagesDialog::insert(choose::Candidate candidate) {
  const auto at = std::ranges::upper_bound(m_tried, candidate, choose::better) - m_tried.begin();
  const auto& h = m_session.document.harness();
  const auto* shared = h.device(candidate.stage);
  const auto part = m_session.document.library().find(candidate.stage);
  auto* item = new QTreeWidgetItem;
  item->setText(Stage,
                shared ? tr("%1, which is on the bench").arg(qs(harness::shownName(h, *shared))) : qs(part ? part->name : candidate.stage));
  item->setData(Stage, Qt::UserRole, qs(candidate.stage));
  if (candidate.excluded.empty()) {
    const auto verdict = headline(candidate.verdict);
    item->setText(Verdict, qs(std::string(verdict)));
    item->setForeground(Verdict, inkOf(candidate.verdict));
    if (candidate.tightest) item->setText(Tightest, qs(checks::percentUsed(*candidate.tightest) + "  " + candidate.tightest->quantity));
    item->setText(Besides,
                  tr("%1, %2").arg(plural(candidate.pins, tr("pin"), tr("pins")), plural(candidate.parts, tr("part"), tr("parts"))));
  } else {
    item->setText(Verdict, tr("cannot"));
    for (int c = 0; c < kColumns; ++c) item->setForeground(c, gui::palette().inkSoft);
  }
  m_tried.insert(m_tried.begin() + at, std::move(candidate));
  m_list->insertTopLevelItem(static_cast<int>(at), item);
  // Until somebody picks one it is the best.
  if (!m_list->currentItem() || (at == 0 && m_list->indexOfTopLevelItem(m_list->currentItem()) == 1))
    m_list->setCurrentItem(m_list->topLevelItem(0));
  showChosen();
}

void StagesDialog::showChosen() {
  const int at = m_list->currentItem() ? m_list->indexOfTopLevelItem(m_list->currentItem()) : -1;
  const auto* c = at >= 0 && at < static_cast<int>(m_tried.size()) ? &m_tried[static_cast<std::size_t>(at)] : nullptr;
  m_put->setEnabled(c && c->excluded.empty() && !m_session.document.readOnly());
  if (!c) return m_why->setText({});
  QStringList lines;
  if (!c->excluded.empty()) lines << qs(c->excluded);
  for (const auto& f : c->against) lines << qs(f.text);
  if (c->excluded.empty() && c->against.empty()) lines << tr("Nothing is said against it.");
  m_why->setText(lines.join("\n"));
}

void StagesDialog::put() {
  if (!m_put->isEnabled() || !m_list->currentItem()) return;
  const auto stage = m_list->currentItem()->data(Stage, Qt::UserRole).toString().toStdString();
  const auto edit = choose::wireStage(m_session.document.harness(), m_session.document.library(),
                                      {m_motor, stage, m_supply->currentData().toString().toStdString()});
  if (!edit) return m_why->setText(qs(edit.error().what));
  m_session.document.apply(*edit);  // and the bench has changed: it closes
  m_session.selection.select(qs(m_motor));
}

}  // namespace bold::gui
