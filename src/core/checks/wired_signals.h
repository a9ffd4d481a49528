#pragma once

#include <string>
#include <vector>

#include "core/checks/queries.h"

namespace bold::checks {

/// What the wires say of a role of a motor's stage: the pin that reaches its input.
struct WiredSignal {
  std::string role;
  Address pin;               ///< of a controller; empty device: none, or more than one
  TerminalIndex input = -1;  ///< that the role is for, where it is known
  std::string tied;          ///< "high" or "low" where the input stands at a rail instead; empty: it does not
};

/// One for each role that the motor's intent may have signals for, in their order; of a motor without a stage none has a pin.
std::vector<WiredSignal> wiredSignals(const SolvedBench& solved, const Motor& motor);

/// The same of a button, switch or sensor: one for each end of its contacts that a pin stands on.
std::vector<WiredSignal> wiredReads(const SolvedBench& solved, int device);

/// The edit that states "the program uses these pins": of a motor or sensor (its device id) every role that the wires lead to a pin and
/// that nobody stated yet. Nothing where there is no such role.
std::optional<harness::Edit> stateAsWired(const harness::Harness& harness, const SolvedBench& solved, const std::string& motor);

}  // namespace bold::checks
