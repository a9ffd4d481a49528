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
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
QString qs(const std::string& s) {
  return QString::fromStdString(s);
}

std::ptrdiff_t windings(const parts::Part& part) {
  return std::ranges::count_if(part.elements, [](const parts::Element& e) { return std::holds_alternative<parts::Winding>(e.body); });
}

// A number of the plan: how it is shown, and how what was typed is taken in. Empty text clears it.
struct Number {
  const char* id;
  QString label, example;
  bool stepper;  // of steppers, or of motors whose speed is set by PWM
  std::function<QString(const harness::Intent&)> show;
  std::function<std::optional<Problem>(harness::Intent&, const std::string&)> take;
};

template <class Q>
Number quantity(const char* id, const QString& label, const QString& example, bool stepper, std::optional<Q> harness::Intent::*field) {
  return {id,
          label,
          example,
          stepper,
          [field](const harness::Intent& i) { return i.*field ? qs(displayText(*(i.*field))) : QString(); },
          [field](harness::Intent& i, const std::string& text) -> std::optional<Problem> {
            if (text.empty()) {
              (i.*field).reset();
              return std::nullopt;
            }
            const auto q = parse<Q>(text);
            if (!q) return q.error();
            if (q->value <= 0) return Problem{"It has to be above zero.", {}, {}};
            i.*field = *q;
            return std::nullopt;
          }};
}

const std::vector<Number>& numbers() {
  using harness::Intent;
  static const std::vector<Number> all{quantity<Hertz>("pwm", QObject::tr("PWM"), QObject::tr("490 Hz"), false, &Intent::pwm),
                                       {"duty", QObject::tr("greatest duty"), QObject::tr("80 %"), false,
                                        [](const Intent& i) { return i.dutyCap ? QString("%1 %").arg(*i.dutyCap * 100) : QString(); },
                                        [](Intent& i, const std::string& text) -> std::optional<Problem> {
                                          if (text.empty()) {
                                            i.dutyCap.reset();
                                            return std::nullopt;
                                          }
                                          bool ok = false;
                                          const double percent = qs(text).remove('%').trimmed().toDouble(&ok);
                                          if (!ok || percent <= 0 || percent > 100)
                                            return Problem{"The greatest duty is a share between 0 and 100 %.", {}, {}};
                                          i.dutyCap = percent / 100;
                                          return std::nullopt;
                                        }},
                                       quantity<Hertz>("rate", QObject::tr("step rate"), QObject::tr("800 Hz"), true, &Intent::rate),
                                       {"steps", QObject::tr("steps a turn"), QObject::tr("200, or 1600 with eighth steps"), true,
                                        [](const Intent& i) { return i.stepsPerTurn ? QString::number(*i.stepsPerTurn) : QString(); },
                                        [](Intent& i, const std::string& text) -> std::optional<Problem> {
                                          if (text.empty()) {
                                            i.stepsPerTurn.reset();
                                            return std::nullopt;
                                          }
                                          bool ok = false;
                                          const int steps = qs(text).toInt(&ok);
                                          if (!ok || steps < 1 || steps > 1000000)
                                            return Problem{"Steps a turn are a whole number from 1 to 1000000.", {}, {}};
                                          i.stepsPerTurn = steps;
                                          return std::nullopt;
                                        }},
                                       quantity<Seconds>("pulse", QObject::tr("step pulse"), QObject::tr("2 us"), true, &Intent::pulse)};
  return all;
}
}  // namespace

IntentEditor::IntentEditor(Session& session, std::string motor, QWidget* parent)
    : QWidget(parent), m_session(session), m_motor(std::move(motor)) {
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(6);
  auto* head = plainLabel(tr("What the program does with it"), this);
  QFont f = head->font();
  f.setWeight(QFont::DemiBold);
  head->setFont(f);
  column->addWidget(head);
  m_both = new QCheckBox(tr("both directions"), this);
  m_speed = new QCheckBox(tr("speed by PWM"), this);
  m_hold = new QCheckBox(tr("holds its position"), this);
  m_ramp = new QCheckBox(tr("starts and turns round gently"), this);
  m_together = new QCheckBox(tr("starts at the same moment as others that do"), this);
  m_ramp->setObjectName("intentRamp");
  m_together->setObjectName("intentTogether");
  for (auto* box : {m_both, m_speed, m_hold, m_ramp, m_together}) column->addWidget(box);
  auto* form = new QFormLayout;
  m_channel = new QComboBox(this);
  m_channel->setObjectName("intentChannel");
  plainRow(*form, tr("Stage"), m_channel);
  column->addLayout(form);
  m_numbers = new QFormLayout;
  column->addLayout(m_numbers);
  addNumbers();
  m_signals = new QFormLayout;
  column->addLayout(m_signals);
  m_said = plainLabel(this);
  m_said->setWordWrap(true);
  m_said->hide();
  column->addWidget(m_said);
  connect(m_both, &QCheckBox::clicked, this, [this](bool on) { change("directions", [on](auto& i) { i.bothDirections = on; }); });
  connect(m_speed, &QCheckBox::clicked, this, [this](bool on) { change("speed", [on](auto& i) { i.speedControl = on; }); });
  connect(m_hold, &QCheckBox::clicked, this, [this](bool on) { change("hold", [on](auto& i) { i.hold = on; }); });
  connect(m_ramp, &QCheckBox::clicked, this, [this](bool on) { change("starting", [on](auto& i) { i.ramp = on; }); });
  connect(m_together, &QCheckBox::clicked, this, [this](bool on) { change("starting", [on](auto& i) { i.together = on; }); });
  connect(m_channel, &QComboBox::activated, this, [this](int index) {
    const auto both = m_channel->itemData(index).toStringList();
    change("stage", [&](auto& i) {
      i.stage = both.value(0).toStdString();
      i.channel = both.value(1).toStdString();
    });
  });
  connect(&m_session, &Session::analysisChanged, this, &IntentEditor::rebuildSignals);
  refresh();
}

harness::Intent IntentEditor::current() const {
  if (auto intent = harness::intentOf(m_session.harness(), m_motor)) return std::move(*intent);
  harness::Intent fresh;
  fresh.motor = m_motor;
  return fresh;
}

void IntentEditor::change(const std::string& what, const std::function<void(harness::Intent&)>& f) {
  auto intent = current();
  f(intent);
  m_session.apply(harness::stating(m_session.harness(), intent, "Change " + what + " of " + m_motor));
}

void IntentEditor::refresh() {
  const auto intent = current();
  m_both->setChecked(intent.bothDirections);
  m_speed->setChecked(intent.speedControl);
  m_hold->setChecked(intent.hold);
  m_ramp->setChecked(intent.ramp);
  m_together->setChecked(intent.together);
  for (auto* box : {m_both, m_speed, m_hold, m_ramp, m_together}) box->setEnabled(!m_session.readOnly());
  showNumbers();
  m_channel->clear();
  m_channel->addItem(tr("the one its leads reach"), QStringList{QString(), QString()});
  for (const auto& d : m_session.harness().devices) {
    const auto part = m_session.library().find(d.part);
    if (!part) continue;
    if (part->channels.size() > 1) {
      m_channel->addItem(tr("%1, as it is wired").arg(qs(d.called())), QStringList{qs(d.id), QString()});
      if (d.id == intent.stage && intent.channel.empty()) m_channel->setCurrentIndex(m_channel->count() - 1);
    }
    for (const auto& c : part->channels) {
      m_channel->addItem(part->channels.size() > 1 ? tr("%1 channel %2").arg(qs(d.called()), qs(c.id)) : qs(d.called()),
                         QStringList{qs(d.id), qs(c.id)});
      const bool only = part->channels.size() == 1 && intent.channel.empty();
      if (d.id == intent.stage && (only || intent.channel == c.id)) m_channel->setCurrentIndex(m_channel->count() - 1);
    }
  }
  rebuildSignals();
}

void IntentEditor::addNumbers() {
  for (const auto& n : numbers()) {
    auto* edit = new QLineEdit(this);
    edit->setObjectName(QString("number-") + n.id);
    edit->setAccessibleName(n.label);
    edit->setPlaceholderText(n.example);
    connect(edit, &QLineEdit::editingFinished, this, [this, &n, edit] {
      auto intent = current();
      const auto typed = edit->text().trimmed();
      if (typed == n.show(intent)) return;
      if (const auto wrong = n.take(intent, typed.toStdString())) {
        m_said->setText(qs(wrong->what));
        m_said->show();
        return;
      }
      m_said->hide();
      m_session.apply(harness::stating(m_session.harness(), intent, "Change " + std::string(n.id) + " of " + m_motor));
    });
    plainRow(*m_numbers, n.label, edit);
  }
}

// Only the numbers that mean something for this motor; one that is set is never hidden.
void IntentEditor::showNumbers() {
  const auto intent = current();
  const auto* device = m_session.harness().device(m_motor);
  const auto part = device ? m_session.library().find(device->part) : nullptr;
  const bool stepper = part && windings(*part) > 1;
  for (const auto& n : numbers()) {
    auto* edit = findChild<QLineEdit*>(QString("number-") + n.id);
    const auto text = n.show(intent);
    const bool shown = !text.isEmpty() || (n.stepper ? stepper : intent.speedControl);
    edit->setVisible(shown);
    m_numbers->labelForField(edit)->setVisible(shown);
    edit->setEnabled(!m_session.readOnly());
    if (!edit->hasFocus()) edit->setText(text);
  }
  m_ramp->setVisible(intent.ramp || (part && !stepper));
  m_together->setVisible(intent.together || (part && !stepper));
}

// The roles that a plan for this motor has signals for: as it is wired, else as the stage that was named has them.
// Until an edit is worked out, as it was wired before.
std::vector<std::string> IntentEditor::roles(const harness::Intent& intent) const {
  if (const auto& solved = m_session.analysis().solved)
    for (const auto& m : solved->motors)
      if (solved->bench.devices[static_cast<std::size_t>(m.device)].doc.id == m_motor)
        if (auto roles = circuit::rolesOf(solved->bench, m); !roles.empty() || m_session.analysisCurrent()) return roles;
  std::vector<std::string> roles;
  const auto* stage = m_session.harness().device(intent.stage);
  const auto part = stage ? m_session.library().find(stage->part) : nullptr;
  if (part)
    for (const auto& c : part->channels)
      if (intent.channel.empty() || c.id == intent.channel)
        for (const auto& [role, t] : c.signals)
          if (std::ranges::count(roles, role) == 0) roles.push_back(role);
  return roles;
}

// One line for each of them; those of the plan that are none of them are kept and shown too.
void IntentEditor::rebuildSignals() {
  const auto intent = current();
  auto roles = this->roles(intent);
  for (const auto& s : intent.signals)
    if (std::ranges::count(roles, s.role) == 0) roles.push_back(s.role);
  arrangeRows(roles);
  for (const auto& role : roles) {
    auto* edit = fieldOf(role);
    const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
    if (edit && !edit->hasFocus()) edit->setText(it == intent.signals.end() ? QString() : qs(it->pin.text()));
  }
}

QLineEdit* IntentEditor::fieldOf(const std::string& role) const {
  for (int i = 0; i < m_signals->rowCount(); ++i)
    if (auto* edit = qobject_cast<QLineEdit*>(m_signals->itemAt(i, QFormLayout::FieldRole)->widget()))
      if (edit->objectName() == "signal-" + qs(role)) return edit;
  return nullptr;
}

// Row by row: the field that is typed in stays, whatever comes or goes beside it. What goes may be the very field whose change is
// being told, so it ends later.
void IntentEditor::arrangeRows(const std::vector<std::string>& roles) {
  for (int i = m_signals->rowCount() - 1; i >= 0; --i) {
    auto* edit = m_signals->itemAt(i, QFormLayout::FieldRole)->widget();
    if (std::ranges::count(roles, edit->objectName().mid(7).toStdString()) > 0) continue;
    const auto row = m_signals->takeRow(i);
    for (auto* item : {row.labelItem, row.fieldItem}) {
      item->widget()->hide();
      item->widget()->deleteLater();
      delete item;
    }
  }
  int at = 0;
  for (const auto& role : roles) {
    auto* edit = fieldOf(role);
    int row = 0;
    QFormLayout::ItemRole column{};
    if (edit) m_signals->getWidgetPosition(edit, &row, &column);
    if (!edit) {
      plainRow(*m_signals, qs(role), newField(role), at);
    } else if (row != at) {
      const auto moved = m_signals->takeRow(row);
      m_signals->insertRow(at, moved.labelItem->widget(), moved.fieldItem->widget());
      delete moved.labelItem;
      delete moved.fieldItem;
    }
    ++at;
  }
}

QLineEdit* IntentEditor::newField(const std::string& role) {
  auto* edit = new QLineEdit(this);
  edit->setObjectName("signal-" + qs(role));
  edit->setAccessibleName(tr("Pin for %1").arg(qs(role)));
  edit->setPlaceholderText(tr("tied on the bench, or a pin: d9"));
  edit->setEnabled(!m_session.readOnly());
  connect(edit, &QLineEdit::editingFinished, this, [this, role, edit] { setPin(role, edit->text().trimmed()); });
  return edit;
}

void IntentEditor::setPin(const std::string& role, const QString& typed) {
  const auto intent = current();
  const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
  const auto old = it == intent.signals.end() ? std::string() : it->pin.text();
  if (typed.toStdString() == old) return;
  // What is said of the signal besides (active level, numbering) stays.
  harness::Signal signal = it == intent.signals.end() ? harness::Signal{role, {}, "label"} : *it;
  if (!typed.isEmpty()) {
    auto pin = harness::parseTypedEnd(m_session.harness(), m_session.library(), typed.toStdString());
    if (!pin) {
      m_said->setText(qs(pin.error().what));
      m_said->show();
      return;
    }
    signal.pin = *pin;
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
