#pragma once

#include <string>

#include "core/harness/edit.h"
#include "core/parts/library.h"

namespace bold::harness {

/// Puts a part on the bench, with the jumpers that come fitted on it.
/// @param id the device's id; empty: made from the part's kind ("s1", "q1", "m1")
/// Errors: the part is not in the library.
[[nodiscard]] Result<Edit> addPart(const Harness& harness, const parts::Library& library, const std::string& part, std::string id = {},
                                   const std::string& name = {});

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

/// Takes a device away with every connection that ends on it.
Edit removeDevice(const Harness& harness, const std::string& id);

/// A new wire; its colour follows what it joins (red: supply, black: ground), else the next of a fixed row.
Edit addWire(const Harness& harness, const parts::Library& library, const Address& a, const Address& b);

/// Everything planned that an id names becomes real: a planned thing is on the bench, one to be removed is gone.
Edit markDone(const Harness& harness, const std::string& id);
/// All of it at once.
Edit markAllDone(const Harness& harness);

}  // namespace bold::harness
