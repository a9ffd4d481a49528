#pragma once

#include <QWidget>

#include "core/charts/curve.h"

class QCustomPlot;
class QLabel;

namespace bold::gui {

/// A curve with its limits, drawn by the plotting library in our own colours.
class CurvePlot : public QWidget {
  Q_OBJECT
 public:
  explicit CurvePlot(QWidget* parent = nullptr);
  void show(const charts::Curve& curve);
  QSize sizeHint() const override { return {360, 280}; }

 private:
  QLabel *m_title, *m_note;
  QCustomPlot* m_plot;
};

}  // namespace bold::gui
