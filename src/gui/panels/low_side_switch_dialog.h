#pragma once

#include <QDialog>

#include "core/harness/edit.h"

class QComboBox;
class QLabel;
class QLineEdit;
class QPushButton;

namespace bold::gui {

class Session;

/// Asks for what a low-side switch needs and makes the edit that builds it.
class LowSideSwitchDialog : public QDialog {
  Q_OBJECT
 public:
  explicit LowSideSwitchDialog(Session& session, QWidget* parent = nullptr);
  const harness::Edit& edit() const { return m_edit; }

 private:
  Session& m_session;
  QComboBox *m_motor, *m_supply, *m_transistor;
  QLineEdit *m_pin, *m_ground;
  QLabel* m_said;
  QPushButton* m_ok;
  harness::Edit m_edit;

  void check();
};

}  // namespace bold::gui
