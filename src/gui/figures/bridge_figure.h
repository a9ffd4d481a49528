#pragma once

#include <QWidget>
#include <optional>

#include "core/figures/bridge_state.h"

namespace bold::gui {

/// The switches around one motor for the chosen command: closed ones solid, the current path drawn through them, both
/// switches of a leg closed unmistakable.
class BridgeFigure : public QWidget {
  Q_OBJECT
 public:
  explicit BridgeFigure(QWidget* parent = nullptr);
  void show(std::optional<figures::BridgeState> state);
  QSize sizeHint() const override { return {360, 210}; }

 protected:
  void paintEvent(QPaintEvent* event) override;

 private:
  std::optional<figures::BridgeState> m_state;
};

}  // namespace bold::gui
