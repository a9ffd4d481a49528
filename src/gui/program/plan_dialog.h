#pragma once

#include <QDialog>

#include "core/wiring/program_plan.h"

class QListWidget;
class QPushButton;

namespace bold::gui {

class Session;

/// What a program tells of goals and pins, to be confirmed one by one.
class PlanDialog : public QDialog {
  Q_OBJECT
 public:
  PlanDialog(Session& session, std::vector<wiring::PlanProposal> proposals, QWidget* parent);

 private:
  Session& m_session;
  std::vector<wiring::PlanProposal> m_proposals;
  QListWidget* m_list;
  QPushButton* m_take;
  void refresh();
  void take();
};

}  // namespace bold::gui
