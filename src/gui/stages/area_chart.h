#pragma once

#include <QWidget>
#include <vector>

#include "core/charts/operating_area.h"

namespace bold::gui {

/// What stages stand, volts against amperes: for long, with a heat sink, for a moment; and what the motor asks of them, from running to
/// stalled, at a full and a nearly empty supply.
class AreaChart : public QWidget {
  Q_OBJECT
 public:
  explicit AreaChart(QWidget* parent);
  void show(std::vector<charts::OperatingArea> areas, std::vector<charts::Whisker> whiskers);
  QSize sizeHint() const override { return {240, 230}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::vector<charts::OperatingArea> m_areas;  ///< the current one first
  std::vector<charts::Whisker> m_whiskers;
};

}  // namespace bold::gui
