#pragma once

#include <array>

#include "core/checks/program/on_bench.h"

namespace bold::checks {

/// Four pins that a program switches in turn, and the stepper whose coils the wires bring them to.
struct CoilGroup {
  const UsedPin* any;  ///< one of its pins
  const harness::PinGroup* group;
  int motor;
  std::vector<TerminalIndex> inputs;  ///< of its stage, in the order of the group's words
  /// What each input's coil does to the field while it is high: a quarter turn each, 0 .. 3; -1: nothing.
  std::array<int, 4> quarters;
};
std::vector<CoilGroup> coilGroups(const ProgramOnBench& program);

/// Where the field stands in each state, in eighths of its turn; -1: the coils cancel out, or none carries current.
std::vector<int> fieldOf(const std::vector<std::string>& states, const std::array<int, 4>& quarters);
/// Whether it goes round: always on by one eighth or one quarter, in one direction.
bool goesRound(const std::vector<int>& field);

}  // namespace bold::checks
