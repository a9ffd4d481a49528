#pragma once

#include <QWidget>

#include "gui/steps.h"

class QButtonGroup;

namespace bold::gui {

/// The steps of the work, with where each of them stands.
class StepRail : public QWidget {
  Q_OBJECT
 public:
  explicit StepRail(Session& session, QWidget* parent = nullptr);
  Step step() const { return m_step; }
  void setStep(Step step);
  void setNarrow(bool narrow);

 Q_SIGNALS:
  void stepChanged(Step step);

 private:
  Session& m_session;
  bool m_narrow = false;
  Step m_step = Step::Limits;
  QButtonGroup* m_buttons;
  void refresh();
};

}  // namespace bold::gui
