#include "gui/panels/intent_editor.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>
#include <algorithm>

#include "core/harness/recipe.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"

namespace bold::gui {
namespace {
QString qs(const std::string& s) {
  return QString::fromStdString(s);
}
}  // namespace

IntentEditor::IntentEditor(Session& session, std::string motor, QWidget* parent)
    : QWidget(parent), m_session(session), m_motor(std::move(motor)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* head = new QLabel(tr("What the program does with it"), this);
  QFont f = head->font();
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  column->addWidget(head);
  m_both = new QCheckBox(tr("both directions"), this);
  m_speed = new QCheckBox(tr("speed by PWM"), this);
  m_hold = new QCheckBox(tr("holds its position"), this);
  for (auto* box : {m_both, m_speed, m_hold}) column->addWidget(box);
  auto* form = new QFormLayout;
  m_channel = new QComboBox(this);
  m_channel->setObjectName("intentChannel");
  form->addRow(tr("Stage"), m_channel);
  column->addLayout(form);
  m_signals = new QFormLayout;
  column->addLayout(m_signals);
  m_said = new QLabel(this);
  m_said->setWordWrap(true);
  m_said->hide();
  column->addWidget(m_said);
  connect(m_both, &QCheckBox::clicked, this, [this](bool on) { change("directions", [on](auto& i) { i.bothDirections = on; }); });
  connect(m_speed, &QCheckBox::clicked, this, [this](bool on) { change("speed", [on](auto& i) { i.speedControl = on; }); });
  connect(m_hold, &QCheckBox::clicked, this, [this](bool on) { change("hold", [on](auto& i) { i.hold = on; }); });
  connect(m_channel, &QComboBox::activated, this, [this](int index) {
    const auto both = m_channel->itemData(index).toStringList();
    change("stage", [&](auto& i) {
      i.stage = both.value(0).toStdString();
      i.channel = both.value(1).toStdString();
    });
  });
  refresh();
}

harness::Intent IntentEditor::current() const {
  if (const auto* i = m_session.harness().intentOf(m_motor)) return *i;
  harness::Intent fresh;
  fresh.id = m_session.harness().freeId("i");
  fresh.motor = m_motor;
  return fresh;
}

void IntentEditor::change(const std::string& what, const std::function<void(harness::Intent&)>& f) {
  auto intent = current();
  f(intent);
  m_session.apply({"Change " + what + " of " + m_motor, {harness::Put<harness::Intent>{intent, {}}}});
}

void IntentEditor::refresh() {
  const auto intent = current();
  m_both->setChecked(intent.bothDirections);
  m_speed->setChecked(intent.speedControl);
  m_hold->setChecked(intent.hold);
  for (auto* box : {m_both, m_speed, m_hold}) box->setEnabled(!m_session.readOnly());
  m_channel->clear();
  m_channel->addItem(tr("the one its leads reach"), QStringList{QString(), QString()});
  for (const auto& d : m_session.harness().devices) {
    const auto part = m_session.library().find(d.part);
    if (!part) continue;
    for (const auto& c : part->channels) {
      m_channel->addItem(part->channels.size() > 1 ? tr("%1 channel %2").arg(qs(d.called()), qs(c.id)) : qs(d.called()),
                         QStringList{qs(d.id), qs(c.id)});
      if (d.id == intent.stage && (intent.channel.empty() || intent.channel == c.id)) m_channel->setCurrentIndex(m_channel->count() - 1);
    }
  }
  rebuildSignals();
}

// One line for each role that the stage's channel has; those of the plan that it has not are kept and shown too.
void IntentEditor::rebuildSignals() {
  const auto intent = current();
  std::vector<std::string> roles;
  const auto* stage = m_session.harness().device(intent.stage);
  const auto part = stage ? m_session.library().find(stage->part) : nullptr;
  if (part)
    for (const auto& c : part->channels)
      if (intent.channel.empty() || c.id == intent.channel)
        for (const auto& [role, t] : c.signals)
          if (std::ranges::count(roles, role) == 0) roles.push_back(role);
  for (const auto& s : intent.signals)
    if (std::ranges::count(roles, s.role) == 0) roles.push_back(s.role);
  // Keep the fields when the roles are the same: one of them may be typed in right now.
  QStringList have;
  for (int i = 0; i < m_signals->rowCount(); ++i)
    if (auto* edit = qobject_cast<QLineEdit*>(m_signals->itemAt(i, QFormLayout::FieldRole)->widget())) have << edit->objectName().mid(7);
  QStringList want;
  for (const auto& r : roles) want << qs(r);
  if (have != want) {
    while (m_signals->rowCount() > 0) m_signals->removeRow(0);
    for (const auto& role : roles) {
      auto* edit = new QLineEdit(this);
      edit->setObjectName("signal-" + qs(role));
      edit->setAccessibleName(tr("Pin for %1").arg(qs(role)));
      edit->setPlaceholderText(tr("tied on the bench, or a pin: d9"));
      edit->setEnabled(!m_session.readOnly());
      connect(edit, &QLineEdit::editingFinished, this, [this, role, edit] { setPin(role, edit->text().trimmed()); });
      m_signals->addRow(qs(role), edit);
    }
  }
  for (const auto& role : roles) {
    auto* edit = findChild<QLineEdit*>("signal-" + qs(role));
    const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
    if (edit && !edit->hasFocus()) edit->setText(it == intent.signals.end() ? QString() : qs(it->pin.text()));
  }
}

void IntentEditor::setPin(const std::string& role, const QString& typed) {
  const auto intent = current();
  const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
  const auto old = it == intent.signals.end() ? std::string() : it->pin.text();
  if (typed.toStdString() == old) return;
  harness::Signal signal;
  if (!typed.isEmpty()) {
    auto pin = harness::parseTypedEnd(m_session.harness(), m_session.library(), typed.toStdString());
    if (!pin) {
      m_said->setText(qs(pin.error().what));
      m_said->show();
      return;
    }
    signal = {role, *pin, "label", false};
  }
  m_said->hide();
  change(role, [&](harness::Intent& i) {
    const auto at = std::ranges::find(i.signals, role, &harness::Signal::role);
    if (typed.isEmpty()) {
      if (at != i.signals.end()) i.signals.erase(at);
    } else if (at != i.signals.end()) {
      *at = signal;
    } else {
      i.signals.push_back(signal);
    }
  });
}

}  // namespace bold::gui
