#pragma once

#include <QWidget>
#include <optional>

#include "core/charts/bridge_state.h"

namespace bold::gui {

/// The switches around one motor for the chosen command: closed ones solid, the current path drawn through them, both
/// switches of a leg closed unmistakable.
class BridgeChart : public QWidget {
  Q_OBJECT
 public:
  explicit BridgeChart(QWidget* parent = nullptr);
  void show(std::optional<charts::BridgeState> state);
  QSize sizeHint() const override { return {360, 210}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::optional<charts::BridgeState> m_state;
};

}  // namespace bold::gui
