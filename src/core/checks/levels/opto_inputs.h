#pragma once

#include <vector>

#include "core/checks/queries.h"

namespace bold::checks {

/// An LED of an isolated input, with its two terminals and the currents it has over every command.
struct OptoInput {
  int device, element;
  const parts::Diode* led;
  TerminalIndex plus, minus;
  double least, most;  ///< A over the everyday commands in which the program drives it
  bool driven;         ///< a controller pin reaches it
  bool switched;       ///< and is written both high and low in those commands
};
std::vector<OptoInput> optoInputs(const SolvedBench& s);

/// The other terminal of the isolated input that one is of; -1: it is of none.
TerminalIndex otherOfOpto(const SolvedBench& s, TerminalIndex t);

/// Below this an isolated input is off.
inline constexpr Amps kOptoOff{0.3e-3};

}  // namespace bold::checks
