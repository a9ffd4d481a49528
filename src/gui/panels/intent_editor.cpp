#include "gui/panels/intent_editor.h"

#include <QCheckBox>
#include <QComboBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>
#include <algorithm>

#include "core/checks/wired_signals.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/parts/roles.h"
#include "gui/half_typed.h"
#include "gui/panels/fill_combo.h"
#include "gui/panels/intent_numbers.h"
#include "gui/panels/signal_row.h"
#include "gui/panels/spoken.h"
#include "gui/panels/tab_order.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/palette.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {
std::ptrdiff_t windings(const parts::Part& part) {
  return std::ranges::count_if(part.elements, [](const parts::Element& e) { return std::holds_alternative<parts::Winding>(e.body); });
}

QCheckBox* choice(const QString& text, const char* name, const QString& help, QWidget* parent) {
  auto* box = new QCheckBox(text, parent);
  box->setObjectName(name);
  box->setToolTip(help);
  return box;
}

enum class Kind { Sensor, Brushed, Still, Stepper, Unipolar, Servo };
Kind kindOf(const parts::Part* part) {
  if (!part) return Kind::Brushed;
  if (!parts::isMotor(*part)) return Kind::Sensor;
  if (windings(*part) == 0) return Kind::Servo;
  if (windings(*part) == 1) return parts::isStill(*part) ? Kind::Still : Kind::Brushed;
  return part->kind.starts_with("unipolar") ? Kind::Unipolar : Kind::Stepper;
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
  m_both = choice(tr("both directions"), "intentBoth", tr("It has to turn either way round"), this);
  m_speed = choice(tr("speed by PWM"), "intentSpeed", tr("The program sets its speed by PWM, not only on and off"), this);
  m_hold =
      choice(tr("holds its position"), "intentHold", tr("At rest it keeps its position under current: it gets warm all the time"), this);
  m_ramp = choice(tr("starts and turns round gently"), "intentRamp",
                  tr("The program speeds it up and slows it down in steps, and lets it stop before it turns it round"), this);
  m_together = choice(tr("starts at the same moment as others that do"), "intentTogether",
                      tr("Its start adds to that of the other motors that say so"), this);
  for (auto* box : {m_both, m_speed, m_hold, m_ramp, m_together}) column->addWidget(box);
  m_choices = new QFormLayout;
  const auto combo = [&](const char* name, const QString& label, const QString& help) {
    auto* box = new QComboBox(this);
    box->setObjectName(name);
    speak(box, label);
    box->setToolTip(help);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    plainRow(*m_choices, label, box);
    return box;
  };
  m_channel = combo("intentChannel", tr("Stage"), tr("The stage and channel that is meant to drive it"));
  m_forward = combo("intentForward", tr("Forward"), tr("The lead that is positive when the program says forward"));
  m_switched =
      combo("intentSwitched", tr("Switched"), tr("What switches it on and off. What is switched by hand or is always on needs no pins"));
  m_sequence = combo("intentSequence", tr("Sequence"), tr("Which coils the program has on at each step"));
  column->addLayout(m_choices);
  m_numbers = new QFormLayout;
  column->addLayout(m_numbers);
  addNumbers();
  m_signals = new QFormLayout;
  column->addLayout(m_signals);
  m_asWired = new QPushButton(tr("My program uses these pins"), this);
  m_asWired->setObjectName("stateAsWired");
  m_asWired->setToolTip(tr("States what stands in grey, as if you had typed it (Ctrl+U)"));
  column->addWidget(m_asWired, 0, Qt::AlignLeft);
  m_stated = plainLabel(this);
  m_stated->setWordWrap(true);
  m_stated->setForegroundRole(QPalette::PlaceholderText);
  column->addWidget(m_stated);
  m_said = plainLabel(this);
  m_said->setObjectName("intentSaid");
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
  connect(m_forward, &QComboBox::activated, this,
          [this] { change("forward", [this](auto& i) { i.forwardLead = m_forward->currentData().toString().toStdString(); }); });
  connect(m_switched, &QComboBox::activated, this, [this] {
    change("switching", [this](auto& i) { i.switched = static_cast<harness::Switched>(m_switched->currentData().toInt()); });
  });
  connect(m_sequence, &QComboBox::activated, this,
          [this] { change("sequence", [this](auto& i) { i.sequence = m_sequence->currentData().toString().toStdString(); }); });
  connect(m_asWired, &QPushButton::clicked, this, [this] {
    const auto& solved = m_session.analyser.analysis().solved;
    if (const auto edit = solved ? checks::stateAsWired(m_session.document.harness(), *solved, m_motor) : std::nullopt)
      m_session.document.apply(*edit);
  });
  connect(&m_session.analyser, &Analyser::changed, this, &IntentEditor::showSignals);
  refresh();
}

harness::Intent IntentEditor::current() const {
  if (auto intent = harness::intentOf(m_session.document.harness(), m_motor)) return std::move(*intent);
  harness::Intent fresh;
  fresh.motor = m_motor;
  return fresh;
}

void IntentEditor::change(const std::string& what, const std::function<void(harness::Intent&)>& f) {
  auto intent = current();
  f(intent);
  m_session.document.apply(harness::stating(m_session.document.harness(), intent, "Change " + what + " of " + name()));
}

std::string IntentEditor::name() const {
  const auto* d = m_session.document.harness().device(m_motor);
  return d ? shownName(m_session.document.harness(), *d) : m_motor;
}

void IntentEditor::say(const QString& sentence) {
  m_said->setText(sentence);
  m_said->setVisible(!sentence.isEmpty());
  auto p = m_said->palette();
  p.setColor(QPalette::WindowText, gui::palette().stop);
  m_said->setPalette(p);
}

void IntentEditor::refresh() {
  const auto intent = current();
  showChoices(intent);
  showNumbers();
  showStages(intent);
  showSignals();
}

void IntentEditor::showChoices(const harness::Intent& intent) {
  const auto* device = m_session.document.harness().device(m_motor);
  const auto part = device ? m_session.document.library().find(device->part) : nullptr;
  const auto kind = kindOf(part.get());
  const bool brushed = kind == Kind::Brushed;
  const bool stepper = kind == Kind::Stepper || kind == Kind::Unipolar;
  const auto show = [&](QCheckBox* box, bool on, bool fits) {
    box->setChecked(on);
    box->setVisible(on || fits);
    box->setEnabled(!m_session.document.readOnly());
  };
  show(m_both, intent.bothDirections, brushed);
  show(m_speed, intent.speedControl, brushed || kind == Kind::Still);
  show(m_hold, intent.hold, stepper);
  show(m_ramp, intent.ramp, brushed);
  show(m_together, intent.together, brushed);
  const auto row = [&](QComboBox* box, bool shown) {
    box->setVisible(shown);
    m_choices->labelForField(box)->setVisible(shown);
    box->setEnabled(!m_session.document.readOnly());
  };
  std::vector<std::pair<QString, QVariant>> leads{{tr("either way round"), QString()}};
  if (part)
    for (const auto& t : part->terminals) leads.emplace_back(tr("%1 positive").arg(qs(t.label)), qs(t.id));
  if (brushed) fillCombo(*m_forward, leads, qs(intent.forwardLead));
  row(m_forward, brushed);
  fillCombo(*m_switched,
            {{tr("as the wires have it"), static_cast<int>(harness::Switched::Unsaid)},
             {tr("by the program"), static_cast<int>(harness::Switched::ByProgram)},
             {tr("by hand"), static_cast<int>(harness::Switched::ByHand)},
             {tr("not at all: it is always on"), static_cast<int>(harness::Switched::AlwaysOn)}},
            static_cast<int>(intent.switched));
  row(m_switched, kind != Kind::Sensor && kind != Kind::Servo);
  fillCombo(
      *m_sequence,
      {{tr("unsaid: full steps"), QString()}, {tr("full steps"), "full"}, {tr("half steps"), "half"}, {tr("one coil at a time"), "wave"}},
      qs(intent.sequence));
  row(m_sequence, kind == Kind::Unipolar || !intent.sequence.empty());
  row(m_channel, (kind != Kind::Servo && kind != Kind::Sensor) || !intent.stage.empty());
  QStringList programs;
  const auto from = [&](const auto& statements) {
    for (const auto& x : statements)
      if (x.motor == m_motor && !x.source.typed())
        if (const auto name = x.source.line > 0 ? tr("%1, line %2").arg(qs(x.source.file)).arg(x.source.line) : qs(x.source.file);
            !programs.contains(name))
          programs << name;
  };
  from(m_session.document.harness().goals);
  from(m_session.document.harness().assignments);
  from(m_session.document.harness().program);
  m_stated->setText(tr("Partly stated by the program: %1. What you type here counts before it.").arg(programs.join("; ")));
  m_stated->setVisible(!programs.isEmpty());
}

void IntentEditor::showStages(const harness::Intent& intent) {
  std::vector<std::pair<QString, QVariant>> items{{tr("the one its leads reach"), QStringList{QString(), QString()}}};
  QVariant chosen = QStringList{qs(intent.stage), qs(intent.channel)};
  for (const auto& d : m_session.document.harness().devices) {
    const auto part = m_session.document.library().find(d.part);
    if (!part) continue;
    const auto name = qs(shownName(m_session.document.harness(), d));
    if (part->channels.size() > 1) items.emplace_back(tr("%1, as it is wired").arg(name), QStringList{qs(d.id), QString()});
    for (const auto& c : part->channels)
      items.emplace_back(part->channels.size() > 1 ? tr("%1 channel %2").arg(name, qs(c.id)) : name, QStringList{qs(d.id), qs(c.id)});
    if (d.id == intent.stage && part->channels.size() == 1 && intent.channel.empty())
      chosen = QStringList{qs(d.id), qs(part->channels.front().id)};
  }
  fillCombo(*m_channel, items, chosen);
}

void IntentEditor::addNumbers() {
  for (const auto& n : intentNumbers()) {
    auto* edit = new QLineEdit(this);
    declareField(edit, FieldKind::Value, n.label);
    edit->setObjectName(QString("number-") + n.id);
    edit->setAccessibleName(n.label);
    edit->setPlaceholderText(n.example);
    edit->setToolTip(n.help);
    connect(edit, &QLineEdit::editingFinished, this, [this, &n, edit] {
      if (!edit->isModified()) return;  // only what a hand typed is taken
      auto intent = current();
      const auto typed = edit->text().trimmed();
      if (typed == n.show(intent)) return;
      if (const auto wrong = n.take(intent, typed.toStdString())) {
        say(qs(wrong->what));
        return;
      }
      say({});
      edit->setModified(false);
      m_session.document.apply(harness::stating(m_session.document.harness(), intent, "Change " + std::string(n.id) + " of " + name()));
    });
    plainRow(*m_numbers, n.label, edit);
  }
}

// Only the numbers that mean something for this motor; one that is set, typed in or asked for is never hidden.
void IntentEditor::showNumbers() {
  const auto intent = current();
  const auto* device = m_session.document.harness().device(m_motor);
  const auto part = device ? m_session.document.library().find(device->part) : nullptr;
  const bool stepper = part && windings(*part) > 1;
  for (const auto& n : intentNumbers()) {
    auto* edit = findChild<QLineEdit*>(QString("number-") + n.id);
    const auto text = n.show(intent);
    const bool shown =
        !text.isEmpty() || m_wanted == n.id || edit->isModified() || (n.ofSteppers ? stepper : !stepper && intent.speedControl);
    edit->setVisible(shown);
    m_numbers->labelForField(edit)->setVisible(shown);
    edit->setEnabled(!m_session.document.readOnly());
    if (!edit->isModified() && edit->text() != text) edit->setText(text);
  }
}

// The roles that a plan for this motor has signals for: as it is wired, else as the stage that was named has them.
// Until an edit is worked out, as it was wired before.
std::vector<std::string> IntentEditor::roles(const harness::Intent& intent) const {
  if (const auto& solved = m_session.analyser.analysis().solved)
    for (const auto& m : solved->motors)
      if (solved->bench.devices[m.device].doc.id == m_motor)
        if (auto roles = bench::rolesOf(solved->bench, m); !roles.empty() || m_session.analyser.current()) return roles;
  std::vector<std::string> roles;
  // A sensor's ends: those that pins stand on, before anything is wired all of them.
  const auto* device = m_session.document.harness().device(m_motor);
  const auto own = device ? m_session.document.library().find(device->part) : nullptr;
  if (own && !parts::isMotor(*own)) {
    const auto& solved = m_session.analyser.analysis().solved;
    if (const int d = solved ? solved->bench.deviceIndex(m_motor) : -1; d >= 0)
      for (const auto& w : checks::wiredReads(*solved, d)) roles.push_back(w.role);
    return roles.empty() ? parts::peripheralLines(*own) : roles;
  }
  const auto* stage = m_session.document.harness().device(intent.stage);
  const auto part = stage ? m_session.document.library().find(stage->part) : nullptr;
  if (part)
    for (const auto& c : part->channels)
      if (intent.channel.empty() || c.id == intent.channel)
        for (const auto& [role, t] : c.signals)
          if (std::ranges::count(roles, role) == 0) roles.push_back(role);
  return roles;
}

// One line for each of them; those of the plan that are none of them are kept and shown too.
void IntentEditor::showSignals() {
  const auto intent = current();
  auto roles = this->roles(intent);
  for (const auto& s : intent.signals)
    if (std::ranges::count(roles, s.role) == 0) roles.push_back(s.role);
  arrangeRows(roles);
  std::vector<checks::WiredSignal> wired;
  const auto& solved = m_session.analyser.analysis().solved;
  if (solved)
    for (const auto& m : solved->motors)
      if (bench::idOf(solved->bench, m.device) == m_motor) wired = checks::wiredSignals(*solved, m);
  if (const int d = solved ? solved->bench.deviceIndex(m_motor) : -1; d >= 0 && wired.empty()) wired = checks::wiredReads(*solved, d);
  bool grey = false;
  const auto called = [this](const Address& pin) { return qs(shownEnd(m_session.document.harness(), m_session.document.library(), pin)); };
  for (const auto& role : roles) {
    const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
    const auto as = std::ranges::find(wired, role, &checks::WiredSignal::role);
    QString words = tr("a pin: d9");
    if (as != wired.end() && !as->pin.device.empty())
      words = tr("%1, as it is wired").arg(called(as->pin));
    else if (as != wired.end() && !as->tied.empty())
      words = tr("tied %1 on the bench").arg(qs(as->tied));
    grey = grey || (it == intent.signals.end() && as != wired.end() && !as->pin.device.empty());
    if (it == intent.signals.end())
      rowOf(role)->show({role, {}, {}, harness::Active::Unsaid}, {}, words, m_session.document.readOnly());
    else
      rowOf(role)->show(*it, called(it->pin), words, m_session.document.readOnly());
  }
  m_asWired->setVisible(grey && !m_session.document.readOnly());
  QList<QWidget*> chain{m_both, m_speed, m_hold, m_ramp, m_together, m_channel, m_forward, m_switched, m_sequence};
  for (const auto& n : intentNumbers()) chain << findChild<QLineEdit*>(QString("number-") + n.id);
  for (const auto& role : roles) chain << rowOf(role)->inOrder();
  chain << m_asWired;
  tabInOrder(chain);
}

SignalRow* IntentEditor::rowOf(const std::string& role) const {
  for (int i = 0; i < m_signals->rowCount(); ++i)
    if (auto* row = qobject_cast<SignalRow*>(m_signals->itemAt(i, QFormLayout::FieldRole)->widget()); row && row->role() == role)
      return row;
  return nullptr;
}

// Row by row: the field that is typed in stays, whatever comes or goes beside it. What goes may be the very field whose change is
// being told, so it ends later.
void IntentEditor::arrangeRows(const std::vector<std::string>& roles) {
  for (int i = m_signals->rowCount() - 1; i >= 0; --i) {
    const auto* here = qobject_cast<SignalRow*>(m_signals->itemAt(i, QFormLayout::FieldRole)->widget());
    if (std::ranges::count(roles, here->role()) > 0) continue;
    const auto row = m_signals->takeRow(i);
    for (auto* item : {row.labelItem, row.fieldItem}) {
      item->widget()->hide();
      item->widget()->deleteLater();
      delete item;
    }
  }
  int at = 0;
  for (const auto& role : roles) {
    auto* field = rowOf(role);
    int row = 0;
    QFormLayout::ItemRole column{};
    if (field) m_signals->getWidgetPosition(field, &row, &column);
    if (!field) {
      plainRow(*m_signals, qs(role), newRow(role), at);
    } else if (row != at) {
      const auto moved = m_signals->takeRow(row);
      m_signals->insertRow(at, moved.labelItem->widget(), moved.fieldItem->widget());
      delete moved.labelItem;
      delete moved.fieldItem;
    }
    ++at;
  }
}

SignalRow* IntentEditor::newRow(const std::string& role) {
  auto* row = new SignalRow(role, this);
  connect(row, &SignalRow::pinTyped, this, [this, role](const QString& text) { setPin(role, text); });
  connect(row, &SignalRow::activeChosen, this, [this, role](harness::Active a) { setSignal(role, [a](auto& s) { s.active = a; }); });
  connect(row, &SignalRow::numberingChosen, this,
          [this, role](const QString& n) { setSignal(role, [n](auto& s) { s.numbering = n.toStdString(); }); });
  return row;
}

void IntentEditor::setSignal(const std::string& role, const std::function<void(harness::Signal&)>& f) {
  change(role, [&](harness::Intent& i) {
    const auto at = std::ranges::find(i.signals, role, &harness::Signal::role);
    if (at != i.signals.end()) f(*at);
  });
}

void IntentEditor::setPin(const std::string& role, const QString& typed) {
  const auto intent = current();
  const auto it = std::ranges::find(intent.signals, role, &harness::Signal::role);
  const auto old =
      it == intent.signals.end() ? QString() : qs(shownEnd(m_session.document.harness(), m_session.document.library(), it->pin));
  const auto done = [&] {
    say({});
    if (auto* row = rowOf(role)) row->pin()->setModified(false);
  };
  if (typed == old) return done();
  // What is said of the signal besides (active level, numbering) stays.
  harness::Signal signal = it == intent.signals.end() ? harness::Signal{role, {}, "label", harness::Active::Unsaid} : *it;
  if (!typed.isEmpty()) {
    auto pin = harness::parseTypedEnd(m_session.document.harness(), m_session.document.library(), typed.toStdString());
    if (!pin) return say(qs(pin.error().what));
    signal.pin = *pin;
  }
  done();
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

bool IntentEditor::focusField(const QString& name) {
  const auto focus = [](QWidget* w) {
    w->show();
    w->setFocus(Qt::OtherFocusReason);
    return true;
  };
  const std::pair<const char*, QWidget*> plain[]{{"directions", m_both},      {"speed", m_speed},        {"hold", m_hold},
                                                 {"starting", m_ramp},        {"together", m_together},  {"stage", m_channel},
                                                 {"forward lead", m_forward}, {"switching", m_switched}, {"sequence", m_sequence}};
  for (const auto& [id, field] : plain)
    if (name == id) return focus(field);
  if (auto* edit = findChild<QLineEdit*>("number-" + name)) {
    m_wanted = name;
    showNumbers();
    edit->selectAll();
    return focus(edit);
  }
  const auto kind = name.section(' ', 0, 0);
  const auto role = name.section(' ', 1).toStdString();
  if (kind == "signals") {
    // The first that nobody stated.
    for (int i = 0; i < m_signals->rowCount(); ++i)
      if (auto* row = qobject_cast<SignalRow*>(m_signals->itemAt(i, QFormLayout::FieldRole)->widget());
          row && row->pin()->text().isEmpty()) {
        row->focusField("signal");
        return true;
      }
    auto* first = m_signals->rowCount() > 0 ? qobject_cast<SignalRow*>(m_signals->itemAt(0, QFormLayout::FieldRole)->widget()) : nullptr;
    if (first) first->focusField("signal");
    return first || focus(m_channel);  // without a stage there are none: that is what to state first
  }
  if (kind != "signal" && kind != "numbering" && kind != "active") return false;
  auto* row = rowOf(role);
  if (row) row->focusField(kind);
  return row;
}

}  // namespace bold::gui
