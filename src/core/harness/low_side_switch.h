#pragma once

#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::harness {

/// What a low-side switch is built from.
struct LowSideSwitch {
  std::string motor;       ///< device with the leads P and N
  Address pin;             ///< controller pin that will drive it
  Address ground;          ///< controller ground
  std::string supply;      ///< device with the poles P and N that feeds the motor
  std::string transistor;  ///< part with one low-side channel
};

/// Transistor, series resistor, pull-down for a gate, clamp diode across the motor, and all wires, as one edit.
/// Errors: a part or device that is missing or does not fit, in one sentence.
[[nodiscard]] Result<Edit> lowSideSwitch(const Harness& harness, const parts::Library& library, const LowSideSwitch& what);

}  // namespace bold::harness
