#pragma once

#include <set>
#include <vector>

#include "core/bench/readings.h"

namespace bold::bench {

/// Whether a switch, chopper or selector of a part is on by its condition, at these voltages and levels of inputs.
/// @param supplied as if every supply of the part were there
parts::Level conditionOf(const Readings& readings, const std::vector<parts::Level>& levels, int device, int element, bool supplied = false);

/// Brings the switches of a bench in line with their conditions, pass by pass: every change makes another circuit, which is then solved
/// anew.
class Switching {
 public:
  explicit Switching(const Command& command) : m_command(command) {}

  /// @param on brought in line @return whether nothing had to change
  bool settle(const Readings& readings, const std::vector<parts::Level>& levels, SwitchState& on);

  /// A stage draws its own supply below what it works at, and would go off and on for ever: it was taken for on.
  bool hunts() const { return !m_held.empty(); }

 private:
  struct Flip {
    int device, element;
    std::size_t index;
  };
  const Command& m_command;
  int m_passes = 0;
  std::set<int> m_starving;             // devices that were below what they need in some pass
  std::set<std::size_t> m_out, m_held;  // switches that cannot hold themselves on: taken for off, or for on

  std::vector<Flip> flip(const Readings& readings, const std::vector<parts::Level>& levels, SwitchState& on) const;
  void settleHunting(const Readings& readings, const std::vector<parts::Level>& levels, const std::vector<Flip>& flipped, SwitchState& on);
};

}  // namespace bold::bench
