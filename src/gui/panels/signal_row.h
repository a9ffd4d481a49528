#pragma once

#include <QWidget>
#include <string>

#include "core/harness/intent.h"

class QComboBox;
class QLineEdit;
class QToolButton;

namespace bold::gui {

/// The fields of one role of a motor's stage: the pin that the program uses; on request which level is active and how pins are numbered.
class SignalRow : public QWidget {
  Q_OBJECT
 public:
  explicit SignalRow(const std::string& role, QWidget* parent = nullptr);
  const std::string& role() const { return m_role; }
  QLineEdit* pin() const { return m_pin; }
  /// @param signal what is stated; @param pin how its pin is called; @param grey stands in the field where nothing is
  void show(const harness::Signal& signal, const QString& pin, const QString& grey, bool readOnly);
  /// "active" or "numbering": opens the second line and gives the field the focus; else the pin has it.
  void focusField(const QString& name);
  /// Its fields, in the order of Tab.
  QList<QWidget*> inOrder() const;

 Q_SIGNALS:
  void pinTyped(const QString& text);
  void activeChosen(bold::harness::Active active);
  void numberingChosen(const QString& numbering);

 private:
  std::string m_role;
  QLineEdit* m_pin;
  QToolButton* m_more;
  QWidget* m_second;
  QComboBox *m_active, *m_numbering;
};

}  // namespace bold::gui
