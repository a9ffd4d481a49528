#pragma once

#include <functional>
#include <optional>
#include <vector>

/// Signals on pins, exactly: whatever can be placed is placed. Numbers only; what they stand for is known to pin_plan.h.
namespace bold::choose {

/// Where a pin lies.
struct PinSpot {
  int side = 0;         ///< of the board
  int position = 0;     ///< those beside each other on a side differ by one
  bool scarce = false;  ///< can what not every pin can
};

/// Pins that together give no more than so much.
struct PinBudget {
  std::vector<int> pins;
  double most = 0;
};

struct PinPuzzle {
  std::vector<PinSpot> spots;          ///< of the pins, in printed order
  std::vector<std::vector<int>> fits;  ///< of each signal: pins that it may have
  std::vector<int> wired;              ///< of each signal: the pin that it has; -1: none
  std::vector<int> group;              ///< of each signal: signals of a group follow each other and should lie beside each other
  std::vector<bool> scarce;            ///< of each signal: it needs a scarce pin
  std::vector<double> current;         ///< of each signal
  std::vector<PinBudget> budgets;
  /// Two signals must not stand on these two pins. Nothing: there is no such rule.
  std::function<bool(int signal, int pin, int otherSignal, int otherPin)> clash{};
  std::vector<bool> clashes{};  ///< of each signal: that rule may be about it; empty: about all

  std::size_t size() const { return fits.size(); }
};

/// A pin for each signal, no two alike, no rule broken. Of all such the one with, in this order: as few wires moved as can be; then group
/// by group, in their order, the fewest steps from one signal to the next that do not lie beside each other, the fewest from side to
/// side, the fewest scarce pins for who needs none, the first pins in printed order. Nothing: there is none.
std::optional<std::vector<int>> assignPins(const PinPuzzle& puzzle);

/// Signals that cannot be placed together, and could if any one of them were left out; empty: all can.
std::vector<int> clashingSignals(const PinPuzzle& puzzle);

}  // namespace bold::choose
