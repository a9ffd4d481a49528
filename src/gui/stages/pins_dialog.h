#pragma once

#include <QDialog>

#include "core/choose/pin_plan.h"

class QComboBox;
class QLabel;
class QPushButton;
class QTreeWidget;

namespace bold::gui {

class Session;

/// Where the signals of a motor, or of all of them, go on the controller, and why there; put on the plan as one edit.
class PinsDialog : public QDialog {
  Q_OBJECT
 public:
  PinsDialog(Session& session, QWidget* parent);

 private:
  Session& m_session;
  QComboBox* m_motor;
  QTreeWidget *m_list, *m_others;
  QLabel* m_said;
  QPushButton* m_put;
  choose::PinPlan m_plan;

  void refresh();
  void showOthers();
  void put();
};

}  // namespace bold::gui
