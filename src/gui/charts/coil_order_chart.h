#pragma once

#include <QWidget>
#include <optional>

#include "core/bench/coil_order.h"

namespace bold::gui {

/// The coils over the steps of the sequence: as intended above, as wired below, differences marked.
class CoilOrderChart : public QWidget {
  Q_OBJECT
 public:
  explicit CoilOrderChart(QWidget* parent = nullptr);
  void show(std::optional<bench::CoilOrder> order);
  QSize sizeHint() const override { return {360, 190}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::optional<bench::CoilOrder> m_order;
};

}  // namespace bold::gui
