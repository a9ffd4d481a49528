#pragma once

#include <QWidget>
#include <functional>
#include <string>
#include <vector>

#include "core/harness/intent.h"

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;
class QPushButton;

namespace bold::gui {

class Session;
class SignalRow;

/// Everything that is stated of a motor: what it is meant to do, what the program does with it, and which pin the program uses for each
/// signal. Fields are those that mean something for this kind of motor; one that is set is always shown. What follows from the wires
/// stands in grey until it is stated.
class IntentEditor : public QWidget {
  Q_OBJECT
 public:
  IntentEditor(Session& session, std::string motor, QWidget* parent = nullptr);
  void refresh();
  /// Shows a field by its name (checks::Field) and gives it the focus; false when there is no such field.
  bool focusField(const QString& name);

 private:
  Session& m_session;
  std::string m_motor;
  QCheckBox *m_both, *m_speed, *m_hold, *m_ramp, *m_together;
  QComboBox *m_channel, *m_forward, *m_switched, *m_sequence;
  QFormLayout *m_choices, *m_numbers, *m_signals;
  QPushButton* m_asWired;
  QLabel *m_said, *m_stated;
  QString m_wanted;  ///< a number that was asked for although it is usually not shown

  harness::Intent current() const;
  std::string name() const;
  void change(const std::string& what, const std::function<void(harness::Intent&)>& f);
  void addNumbers();
  void showChoices(const harness::Intent& intent);
  void showNumbers();
  void showStages(const harness::Intent& intent);
  void showSignals();
  void arrangeRows(const std::vector<std::string>& roles);
  SignalRow* rowOf(const std::string& role) const;
  SignalRow* newRow(const std::string& role);
  std::vector<std::string> roles(const harness::Intent& intent) const;
  void setSignal(const std::string& role, const std::function<void(harness::Signal&)>& f);
  void setPin(const std::string& role, const QString& typed);
  void say(const QString& sentence);
};

}  // namespace bold::gui
