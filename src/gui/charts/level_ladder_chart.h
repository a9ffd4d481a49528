#pragma once

#include <QWidget>

#include "core/charts/level_ladder.h"

namespace bold::gui {

/// A volts axis for each signal: what the pin gives for low and high on one side, what the input needs on the other; the
/// gap between is the margin, or the violation.
class LevelLadderChart : public QWidget {
  Q_OBJECT
 public:
  explicit LevelLadderChart(QWidget* parent = nullptr);
  void show(std::vector<charts::Rung> rungs);
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<charts::Rung> m_rungs;
};

}  // namespace bold::gui
