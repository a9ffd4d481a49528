#pragma once

#include <QWidget>
#include <memory>
#include <vector>

#include "core/bench/solved_bench.h"

class QComboBox;
class QLabel;
class QScrollArea;
class QVBoxLayout;

namespace bold::gui {

class BridgeChart;
class CoilOrderChart;
class CurvePlot;
class LevelLadderChart;
class Session;

/// One command at one supply state: what the motors do, the stage's switches, signal levels and curves over time. The
/// picture shows the same operating point.
class CurrentsPanel : public QWidget {
  Q_OBJECT
 public:
  explicit CurrentsPanel(Session& session, QWidget* parent = nullptr);
  /// The next (or previous) command of the list.
  void step(int by);

 protected:
  void showEvent(QShowEvent* event) override;

 private:
  Session& m_session;
  QComboBox *m_command, *m_corner;
  QLabel *m_does, *m_none, *m_levelsHead, *m_curvesHead;
  BridgeChart* m_bridge;
  CoilOrderChart* m_coils;
  LevelLadderChart* m_levels;
  std::vector<CurvePlot*> m_curves;
  bool m_filling = false;
  std::shared_ptr<const bench::SolvedBench> m_drawn;  ///< what levels and curves were drawn from
  int m_drawnMotor = -1;

  void fillCommands();
  void fillCorners();
  void refresh();
  void refreshFigures();
  int motorShown() const;
};

}  // namespace bold::gui
