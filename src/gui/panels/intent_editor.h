#pragma once

#include <QWidget>
#include <functional>
#include <string>

#include "core/harness/intent.h"

class QCheckBox;
class QComboBox;
class QFormLayout;
class QLabel;
class QLineEdit;

namespace bold::gui {

class Session;

/// What a motor is meant to do, and which pin the program uses for each signal.
class IntentEditor : public QWidget {
  Q_OBJECT
 public:
  IntentEditor(Session& session, std::string motor, QWidget* parent = nullptr);
  void refresh();

 private:
  Session& m_session;
  std::string m_motor;
  QCheckBox *m_both, *m_speed, *m_hold, *m_ramp, *m_together;
  QComboBox* m_channel;
  QFormLayout *m_numbers, *m_signals;
  QLabel* m_said;
  bool m_filling = false;

  harness::Intent current() const;
  void change(const std::string& what, const std::function<void(harness::Intent&)>& f);
  void addNumbers();
  void showNumbers();
  void rebuildSignals();
  void arrangeRows(const std::vector<std::string>& roles);
  QLineEdit* fieldOf(const std::string& role) const;
  QLineEdit* newField(const std::string& role);
  std::vector<std::string> roles(const harness::Intent& intent) const;
  void setPin(const std::string& role, const QString& typed);
};

}  // namespace bold::gui
