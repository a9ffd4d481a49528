#pragma once

#include <array>

#include "core/checks/program/on_bench.h"

namespace bold::checks {

/// What an input does to the field of a stepper: a quarter of its turn each, 0 .. 3; -1: nothing.
struct CoilInput {
  int high = -1;  ///< while it is high
  int low = -1;   ///< while it is low
  int gate = -1;  ///< which of the four lets it act while high (a direction by its PWM input); -1: it always acts
};
using CoilInputs = std::array<CoilInput, 4>;

/// Four pins that a program switches in turn, and the stepper whose coils the wires bring them to.
struct CoilGroup {
  const UsedPin* any;  ///< one of its pins
  const harness::PinGroup* group;
  int motor;
  std::vector<TerminalIndex> inputs;  ///< of its stage, in the order of the group's words
  CoilInputs does;
};
std::vector<CoilGroup> coilGroups(const ProgramOnBench& program);

/// Where the field stands in each state, in eighths of its turn; -1: the coils cancel out, or none carries current.
std::vector<int> fieldOf(const std::vector<std::string>& states, const CoilInputs& does);
/// Whether it goes round: always on by one eighth or one quarter, in one direction.
bool goesRound(const std::vector<int>& field);

}  // namespace bold::checks
