#pragma once

#include <QWidget>

#include "core/figures/level_ladder.h"

namespace bold::gui {

/// A volts axis for each signal: what the pin gives for low and high on one side, what the input needs on the other; the
/// gap between is the margin, or the violation.
class LevelLadderFigure : public QWidget {
  Q_OBJECT
 public:
  explicit LevelLadderFigure(QWidget* parent = nullptr);
  void show(std::vector<figures::Rung> rungs);
  QSize sizeHint() const override;

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<figures::Rung> m_rungs;
};

}  // namespace bold::gui
