#include "gui/panels/low_side_switch_dialog.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFormLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "core/harness/low_side_switch.h"
#include "core/harness/typed_end.h"
#include "gui/panels/plural.h"
#include "gui/qs.h"
#include "gui/session/session.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {
namespace {}  // namespace

LowSideSwitchDialog::LowSideSwitchDialog(Session& session, QWidget* parent) : QDialog(parent), m_session(session) {
  setObjectName("lowSideSwitch");
  setWindowTitle(tr("Low-side switch"));
  setMinimumWidth(440);
  auto* column = new QVBoxLayout(this);
  auto* what =
      plainLabel(tr("A transistor between the motor and ground, with its resistors, a clamp diode across the motor, and all wires."), this);
  what->setWordWrap(true);
  column->addWidget(what);
  auto* form = new QFormLayout;
  m_motor = new QComboBox(this);
  m_motor->setObjectName("lowSideSwitchMotor");
  m_supply = new QComboBox(this);
  m_transistor = new QComboBox(this);
  for (const auto& d : m_session.document.harness().devices) {
    const auto part = m_session.document.library().find(d.part);
    if (!part) continue;
    bool motor = false;
    bool supply = false;
    for (const auto& e : part->elements) {
      if (const auto* w = std::get_if<parts::Winding>(&e.body)) motor = motor || w->brushed || w->still;
      supply = supply || std::holds_alternative<parts::Source>(e.body);
    }
    if (motor) m_motor->addItem(qs(d.called()), qs(d.id));
    if (supply) m_supply->addItem(qs(d.called()), qs(d.id));
  }
  if (m_supply->count() > 1) m_supply->setCurrentIndex(m_supply->count() - 1);
  for (const auto& p : m_session.document.library().search("low-side")) m_transistor->addItem(qs(p->name), qs(p->id));
  m_pin = new QLineEdit(this);
  m_pin->setObjectName("lowSideSwitchPin");
  m_pin->setPlaceholderText("d5");
  m_ground = new QLineEdit("gnd", this);
  plainRow(*form, tr("Motor"), m_motor);
  plainRow(*form, tr("Its supply"), m_supply);
  plainRow(*form, tr("Transistor"), m_transistor);
  plainRow(*form, tr("Pin"), m_pin);
  plainRow(*form, tr("Controller ground"), m_ground);
  column->addLayout(form);
  m_said = plainLabel(this);
  m_said->setWordWrap(true);
  column->addWidget(m_said);
  auto* buttons = new QDialogButtonBox(QDialogButtonBox::Ok | QDialogButtonBox::Cancel, this);
  m_ok = buttons->button(QDialogButtonBox::Ok);
  m_ok->setText(tr("Put it on the bench"));
  m_ok->setProperty("primary", true);
  connect(buttons, &QDialogButtonBox::accepted, this, &QDialog::accept);
  connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
  column->addWidget(buttons);
  for (auto* box : {m_motor, m_supply, m_transistor}) connect(box, &QComboBox::currentIndexChanged, this, &LowSideSwitchDialog::check);
  for (auto* line : {m_pin, m_ground}) connect(line, &QLineEdit::textChanged, this, &LowSideSwitchDialog::check);
  check();
}

void LowSideSwitchDialog::check() {
  const auto& h = m_session.document.harness();
  const auto refuse = [this](const QString& sentence) {
    m_said->setText(sentence);
    m_ok->setEnabled(false);
  };
  if (m_motor->count() == 0) return refuse(tr("Put a brushed motor on the bench first."));
  if (m_supply->count() == 0) return refuse(tr("Put a supply on the bench first."));
  if (m_pin->text().trimmed().isEmpty()) return refuse(tr("Which pin of the controller is to drive it?"));
  const auto pin = harness::parseTypedEnd(h, m_session.document.library(), m_pin->text().trimmed().toStdString());
  if (!pin) return refuse(qs(pin.error().what));
  const auto ground = harness::parseTypedEnd(h, m_session.document.library(), m_ground->text().trimmed().toStdString());
  if (!ground) return refuse(qs(ground.error().what));
  auto edit =
      harness::lowSideSwitch(h, m_session.document.library(),
                             {m_motor->currentData().toString().toStdString(), *pin, *ground,
                              m_supply->currentData().toString().toStdString(), m_transistor->currentData().toString().toStdString()});
  if (!edit) return refuse(qs(edit.error().what));
  m_edit = std::move(*edit);
  m_said->setText(
      tr("Adds %1; one undo takes all of it back.").arg(plural(static_cast<int>(m_edit.changes.size()), tr("thing"), tr("things"))));
  m_ok->setEnabled(true);
}

}  // namespace bold::gui
