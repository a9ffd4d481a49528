#include "gui/panels/device_details.h"

#include <QComboBox>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QVBoxLayout>
#include <algorithm>

#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/remove_device.h"
#include "core/harness/turn_round.h"
#include "core/parts/part_card.h"
#include "core/parts/roles.h"
#include "gui/field_manners.h"
#include "gui/half_typed.h"
#include "gui/panels/intent_editor.h"
#include "gui/panels/part_card_dialog.h"
#include "gui/panels/spoken.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {

// The part itself and every row that is made for it: another part, or another edition of the same one, has others.
std::vector<std::string> rowsFor(const parts::Library& library, const std::string& part) {
  std::vector<std::string> out{part};
  const auto found = library.find(part);
  if (!found) return out;
  out.push_back(found->kind + " " + found->name);
  for (const auto& s : found->settings) {
    out.push_back(s.id + " " + s.label);
    out.insert(out.end(), s.values.begin(), s.values.end());
  }
  for (const auto& f : found->figures) out.push_back(f.id);
  return out;
}

}  // namespace

DeviceDetails::DeviceDetails(Session& session, std::string device, QWidget* parent)
    : QWidget(parent), m_session(session), m_device(std::move(device)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 4, 6, 4);
  column->setSpacing(8);
  const auto* d = m_session.document.harness().device(m_device);
  const auto part = m_session.document.library().find(d->part);
  m_rows = rowsFor(m_session.document.library(), d->part);
  auto* form = new QFormLayout;
  form->setHorizontalSpacing(12);
  auto* name = new QLineEdit(qs(d->name), this);
  declareField(name, FieldKind::Value, tr("the name of a device"));
  name->setMaxLength(kMostLetters);
  name->setObjectName("deviceName");
  name->setPlaceholderText(qs(d->id));
  name->setAccessibleName(tr("Name of the device"));
  name->setToolTip(tr("What you call it: shown in the picture and in findings, and understood where wires are typed"));
  name->setEnabled(!m_session.document.readOnly());
  connect(name, &QLineEdit::editingFinished, this, [this, name] {
    const auto* now = m_session.document.harness().device(m_device);
    if (!name->isModified()) return;
    name->setModified(false);
    if (!now || now->name == name->text().trimmed().toStdString()) return;
    auto changed = *now;
    changed.name = name->text().trimmed().toStdString();
    m_session.document.apply({"Rename " + shownName(m_session.document.harness(), *now), {harness::Put<harness::Device>{changed, {}}}});
  });
  plainRow(*form, tr("Name"), name);
  auto* kind = plainLabel(part ? qs(part->name) : qs(d->part), this);
  kind->setWordWrap(true);
  plainRow(*form, tr("Part"), kind);
  if (part) buildSettings(form);
  column->addLayout(form);
  if (part && parts::isMotor(*part)) {
    auto* stage = new QPushButton(tr("Choose a stage…"), this);
    stage->setObjectName("chooseStage");
    stage->setEnabled(!m_session.document.readOnly());
    connect(stage, &QPushButton::clicked, this, [this] { m_session.selection.chooseStage(qs(m_device)); });
    column->addWidget(stage, 0, Qt::AlignLeft);
  }
  m_said = plainLabel(this);
  m_said->setWordWrap(true);
  m_said->hide();
  column->addWidget(m_said);
  if (part && !part->figures.empty()) {
    m_figures = new QTableWidget(static_cast<int>(part->figures.size()), 3, this);
    m_figures->setObjectName("figures");
    m_figures->setAccessibleName(tr("Figures; type a value with its unit to replace one"));
    m_figures->setHorizontalHeaderLabels({tr("Figure"), tr("Value"), tr("Source")});
    m_figures->verticalHeader()->hide();
    m_figures->verticalHeader()->setDefaultSectionSize(26);
    m_figures->horizontalHeader()->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    m_figures->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
    m_figures->horizontalHeader()->setSectionResizeMode(1, QHeaderView::ResizeToContents);
    m_figures->horizontalHeader()->setSectionResizeMode(2, QHeaderView::Stretch);
    m_figures->setShowGrid(false);
    m_figures->setTabKeyNavigation(false);
    m_figures->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_figures->setFixedHeight(34 + 26 * m_figures->rowCount());
    m_figures->setEditTriggers(m_session.document.readOnly() ? QAbstractItemView::NoEditTriggers : QAbstractItemView::AllEditTriggers);
    connect(m_figures, &QTableWidget::cellChanged, this, [this](int row, int col) {
      if (!m_filling && col == 1) replaceFigure(row);
    });
    connect(m_figures, &QTableWidget::currentCellChanged, this, &DeviceDetails::sayHowToMeasure);
    column->addWidget(m_figures);
    m_how = plainLabel(this);
    m_how->setObjectName("howToMeasure");
    m_how->setWordWrap(true);
    column->addWidget(m_how);
  }
  if (part && (parts::isMotor(*part) || parts::isPeripheral(*part))) {
    m_intent = new IntentEditor(m_session, m_device, this);
    column->addWidget(m_intent);
  }
  if (part)
    for (const auto& p : part->pitfalls) {
      auto* l = plainLabel(qs(p), this);
      l->setWordWrap(true);
      l->setForegroundRole(QPalette::PlaceholderText);
      column->addWidget(l);
    }
  auto* row = new QHBoxLayout;
  auto* remove = new QPushButton(tr("Take it off the bench"), this);
  remove->setObjectName("deviceRemove");
  remove->setEnabled(!m_session.document.readOnly());
  connect(remove, &QPushButton::clicked, this,
          [this] { m_session.document.apply(harness::removeDevice(m_session.document.harness(), m_device)); });
  row->addWidget(remove);
  auto* card = new QPushButton(tr("About this part"), this);
  card->setObjectName("aboutPart");
  connect(card, &QPushButton::clicked, this, [this] {
    if (const auto* now = m_session.document.harness().device(m_device))
      (new PartCardDialog(m_session, now->part, now->id, window()))->show();
  });
  row->addWidget(card);
  row->addStretch();
  column->addLayout(row);
  row = new QHBoxLayout;
  m_turn = new QPushButton(tr("Turn it round"), this);
  m_turn->setObjectName("deviceTurn");
  m_turn->setToolTip(tr("It was put in the other way round: what hung on its first leg hangs on its last"));
  connect(m_turn, &QPushButton::clicked, this, [this] {
    if (const auto edit = harness::turnRound(m_session.document.harness(), m_session.document.library(), m_device))
      m_session.document.apply(*edit);
  });
  row->addWidget(m_turn);
  m_done = new QPushButton(tr("It is done"), this);
  m_done->setObjectName("deviceDone");
  connect(m_done, &QPushButton::clicked, this,
          [this] { m_session.document.apply(harness::markDone(m_session.document.harness(), m_device)); });
  row->addWidget(m_done);
  row->addStretch();
  column->addLayout(row);
  column->addStretch();
  refresh();
}

namespace {

const QString kNotStated = QStringLiteral("not stated");  // data of the entry that stands for it

// What is set by hand is shown as not stated until somebody has looked; it is taken as the part comes.
void showSetting(QComboBox& box, const parts::Setting& s, const harness::Device& d) {
  const auto it = d.settings.find(s.id);
  const bool stated = it != d.settings.end() && !it->second.value.empty();  // a change may be planned of what nobody has stated
  const int open = box.findData(kNotStated);
  if (stated || !s.byHand) {
    if (open >= 0) box.removeItem(open);
    box.setCurrentText(qs(stated ? it->second.value : s.standard));
    return;
  }
  if (open < 0) box.addItem(DeviceDetails::tr("not stated: taken as %1").arg(qs(s.standard)), kNotStated);
  box.setCurrentIndex(box.findData(kNotStated));
}

}  // namespace

void DeviceDetails::buildSettings(QFormLayout* form) {
  const auto* d = m_session.document.harness().device(m_device);
  const auto part = m_session.document.library().find(d->part);
  for (const auto& s : part->settings) {
    auto* box = new QComboBox(this);
    box->setObjectName("setting-" + qs(s.id));
    speak(box, qs(s.label));
    box->setToolTip(tr("As it stands on the bench"));
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    for (const auto& v : s.values) box->addItem(qs(v));
    showSetting(*box, s, *d);
    box->setEnabled(!m_session.document.readOnly());
    connect(box, &QComboBox::activated, this, [this, box, id = s.id](int index) {
      if (index == box->findData(kNotStated)) return;
      const auto v = box->itemText(index);
      auto changed = *m_session.document.harness().device(m_device);
      changed.settings[id] = {v.toStdString(), {}};
      m_session.document.apply(
          {"Set " + id + " of " + shownName(m_session.document.harness(), changed), {harness::Put<harness::Device>{changed, {}}}});
    });
    plainRow(*form, qs(s.label), box);
  }
}

bool DeviceDetails::isFor(const harness::Device& device) const {
  return device.id == m_device && m_rows == rowsFor(m_session.document.library(), device.part);
}

void DeviceDetails::refresh() {
  const auto* d = m_session.document.harness().device(m_device);
  if (!d) return;
  if (const auto part = m_session.document.library().find(d->part))
    for (const auto& s : part->settings)
      if (auto* box = findChild<QComboBox*>("setting-" + qs(s.id))) showSetting(*box, s, *d);
  if (auto* name = findChild<QLineEdit*>("deviceName"); name && !name->isModified() && name->text() != qs(d->name))
    name->setText(qs(d->name));
  if (m_intent) m_intent->refresh();
  m_turn->setVisible(harness::turnRound(m_session.document.harness(), m_session.document.library(), m_device).has_value());
  m_turn->setEnabled(!m_session.document.readOnly());
  m_done->setVisible(d->state != harness::State::OnBench ||
                     std::ranges::any_of(d->settings, [](const auto& s) { return !s.second.planned.empty(); }));
  showFigures(*d);
}

// Cell by cell, so that the one that is typed in stays.
void DeviceDetails::showFigures(const harness::Device& d) {
  if (!m_figures) return;
  m_filling = true;
  std::vector<Problem> ignored;  // refused values never get into the document from here
  const auto part = m_session.document.library().withOverrides(d.part, d.overrides, ignored);
  const auto cell = [this](int row, int column) {
    auto* item = m_figures->item(row, column);
    if (!item) m_figures->setItem(row, column, item = new QTableWidgetItem);
    return item;
  };
  for (int i = 0; part && i < m_figures->rowCount(); ++i) {
    const auto& f = part->figures[i];
    auto* label = cell(i, 0);
    label->setText(qs(f.label));
    label->setFlags(Qt::ItemIsEnabled);
    label->setData(Qt::UserRole, qs(f.id));
    label->setToolTip(plainTip(qs(f.label)));
    auto* value = cell(i, 1);
    if (value->text() != qs(displayText(f.figure))) value->setText(qs(displayText(f.figure)));
    QFont mono("DejaVu Sans");
    mono.setPixelSize(12);
    mono.setBold(f.figure.overridden);
    value->setFont(mono);
    value->setForeground(f.figure.known() ? gui::palette().ink : gui::palette().caution);
    auto* source = cell(i, 2);
    source->setText(qs(f.figure.source));
    source->setFlags(Qt::ItemIsEnabled);
    source->setForeground(gui::palette().inkSoft);
    source->setToolTip(plainTip(qs(f.figure.source + (f.figure.condition.empty() ? "" : "; " + f.figure.condition))));
  }
  m_filling = false;
  sayHowToMeasure();
}

bool DeviceDetails::focusField(const QString& name) {
  const auto kind = name.section(' ', 0, 0);
  const auto id = name.section(' ', 1);
  if (name.isEmpty()) {
    findChild<QLineEdit*>("deviceName")->setFocus(Qt::OtherFocusReason);
    return true;
  }
  if (kind == "setting")
    if (auto* box = findChild<QComboBox*>("setting-" + id)) {
      box->setFocus(Qt::OtherFocusReason);
      return true;
    }
  if (kind == "figure" && m_figures)
    for (int i = 0; i < m_figures->rowCount(); ++i)
      if (m_figures->item(i, 0)->data(Qt::UserRole).toString() == id) {
        m_figures->setFocus(Qt::OtherFocusReason);
        m_figures->setCurrentCell(i, 1);
        return true;
      }
  return m_intent && m_intent->focusField(name);
}

// Of the figure that is looked at, and of every unknown one: that is the moment a meter is at hand.
void DeviceDetails::sayHowToMeasure() {
  const auto* d = m_session.document.harness().device(m_device);
  if (!d || m_filling || !m_figures) return;
  std::vector<Problem> ignored;
  const auto part = m_session.document.library().withOverrides(d->part, d->overrides, ignored);
  QStringList lines;
  for (int i = 0; part && i < m_figures->rowCount(); ++i) {
    const auto& f = part->figures[i];
    const bool unknown = !f.figure.known();
    if (!unknown && i != m_figures->currentRow()) continue;
    const auto how = parts::howToMeasure(f.id, *part);
    auto name = unknown ? tr("%1 is unknown").arg(qs(f.label)) : qs(f.label);
    name[0] = name[0].toUpper();
    if (!how.empty())
      lines << tr("%1. To measure: %2").arg(name, QString::fromUtf8(how.data(), static_cast<qsizetype>(how.size())));
    else if (unknown)
      lines << tr("%1. Look it up in the data sheet and type it in.").arg(name);
  }
  m_how->setText(lines.join("\n"));
  m_how->setVisible(!lines.isEmpty());
}

void DeviceDetails::say(const QString& sentence) {
  m_said->setText(sentence);
  m_said->setVisible(!sentence.isEmpty());
  auto p = m_said->palette();
  p.setColor(QPalette::WindowText, gui::palette().stop);
  m_said->setPalette(p);
}

// An empty cell gives the library's figure back.
void DeviceDetails::replaceFigure(int row) {
  const auto* d = m_session.document.harness().device(m_device);
  if (!d) return;
  const auto id = m_figures->item(row, 0)->data(Qt::UserRole).toString().toStdString();
  const auto typed = m_figures->item(row, 1)->text().trimmed().toStdString();
  auto changed = *d;
  if (typed.empty()) {
    changed.overrides.erase(id);
  } else {
    changed.overrides[id] = typed;
    std::vector<Problem> problems;
    (void)m_session.document.library().withOverrides(d->part, {{id, typed}}, problems);
    if (!problems.empty()) {
      say(qs(text(problems.front())));
      refuseCell(m_figures, qs(text(problems.front())));
      refresh();
      return;
    }
  }
  say({});
  // The table must not be refilled while it still delivers this change.
  QTimer::singleShot(0, this, [this, changed, id] {
    m_session.document.apply(
        {"Set " + id + " of " + shownName(m_session.document.harness(), changed), {harness::Put<harness::Device>{changed, {}}}});
  });
}

}  // namespace bold::gui
