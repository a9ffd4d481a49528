#include "gui/panels/signal_row.h"

#include <QComboBox>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QToolButton>
#include <QVBoxLayout>

#include "gui/half_typed.h"
#include "gui/panels/spoken.h"
#include "gui/theme/plain_text.h"

namespace bold::gui {

SignalRow::SignalRow(const std::string& role, QWidget* parent) : QWidget(parent), m_role(role) {
  const auto name = QString::fromStdString(role);
  setObjectName("signalRow-" + name);
  auto* column = new QVBoxLayout(this);
  column->setContentsMargins(0, 0, 0, 0);
  column->setSpacing(4);
  auto* first = new QHBoxLayout;
  m_pin = new QLineEdit(this);
  declareField(m_pin, FieldKind::Value, tr("the pin for %1").arg(name));
  m_pin->setObjectName("signal-" + name);
  m_pin->setAccessibleName(tr("Pin for %1").arg(name));
  m_pin->setToolTip(tr("The pin that the program uses for %1. Grey is what the wires say: it is not stated until you state it.").arg(name));
  m_more = new QToolButton(this);
  m_more->setObjectName("more-" + name);
  m_more->setText(QString::fromUtf8("…"));
  m_more->setCheckable(true);
  m_more->setAccessibleName(tr("More about the pin for %1").arg(name));
  m_more->setToolTip(tr("Which level is active, and how the program numbers its pins"));
  first->addWidget(m_pin, 1);
  first->addWidget(m_more);
  column->addLayout(first);
  m_second = new QWidget(this);
  auto* second = new QHBoxLayout(m_second);
  second->setContentsMargins(0, 0, 0, 0);
  m_active = new QComboBox(m_second);
  m_active->setObjectName("active-" + name);
  speak(m_active, tr("Active level of %1").arg(name));
  m_active->setToolTip(tr("The level at which the program means \"on\". Unsaid it follows from the stage's truth table."));
  m_active->addItem(tr("active as the stage has it"), static_cast<int>(harness::Active::Unsaid));
  m_active->addItem(tr("active high"), static_cast<int>(harness::Active::High));
  m_active->addItem(tr("active low"), static_cast<int>(harness::Active::Low));
  m_numbering = new QComboBox(m_second);
  m_numbering->setObjectName("numbering-" + name);
  speak(m_numbering, tr("Numbering of %1").arg(name));
  m_numbering->setToolTip(tr("By which numbers the program names its pins"));
  m_numbering->addItem(tr("numbering unsaid"), "");
  m_numbering->addItem(tr("by the label"), "label");
  m_numbering->addItem(tr("by the position"), "position");
  m_numbering->addItem(tr("by the chip"), "chip");
  m_numbering->addItem(tr("as programs count"), "program");
  for (auto* box : {m_active, m_numbering}) {
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    second->addWidget(box, 1);
  }
  column->addWidget(m_second);
  m_second->hide();
  connect(m_more, &QToolButton::toggled, m_second, &QWidget::setVisible);
  connect(m_pin, &QLineEdit::editingFinished, this, [this] {
    if (m_pin->isModified()) Q_EMIT pinTyped(m_pin->text().trimmed());  // only what a hand typed is taken
  });
  connect(m_active, &QComboBox::activated, this,
          [this] { Q_EMIT activeChosen(static_cast<harness::Active>(m_active->currentData().toInt())); });
  connect(m_numbering, &QComboBox::activated, this, [this] { Q_EMIT numberingChosen(m_numbering->currentData().toString()); });
}

void SignalRow::show(const harness::Signal& signal, const QString& pin, const QString& grey, bool readOnly) {
  const bool stated = !signal.pin.device.empty();
  m_pin->setPlaceholderText(grey);
  if (!m_pin->isModified() && m_pin->text() != pin) m_pin->setText(pin);
  m_pin->setEnabled(!readOnly);
  for (auto* box : {m_active, m_numbering}) box->setEnabled(stated && !readOnly);
  m_active->setCurrentIndex(m_active->findData(static_cast<int>(signal.active)));
  m_numbering->setCurrentIndex(std::max(0, m_numbering->findData(QString::fromStdString(signal.numbering))));
  const bool special = signal.active != harness::Active::Unsaid || (!signal.numbering.empty() && signal.numbering != "label");
  if (special) m_more->setChecked(true);
}

void SignalRow::focusField(const QString& name) {
  QWidget* field = name == "active" ? static_cast<QWidget*>(m_active) : name == "numbering" ? static_cast<QWidget*>(m_numbering) : m_pin;
  if (field != m_pin) m_more->setChecked(true);
  field->setFocus(Qt::OtherFocusReason);
  if (field == m_pin) m_pin->selectAll();
}

QList<QWidget*> SignalRow::inOrder() const {
  return {m_pin, m_more, m_active, m_numbering};
}

}  // namespace bold::gui
