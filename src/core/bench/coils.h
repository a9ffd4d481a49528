#pragma once

#include "core/bench/motors.h"

namespace bold::bench {

/// A coil of a bipolar stepper as its stage sees it.
struct Coil {
  std::string name;
  TerminalIndex a, b;
};

/// One a winding; of a motor whose taps are open two halves in a row.
std::vector<Coil> coilsOf(const Bench& bench, const Motor& motor);
/// What a coil is made for, A: two halves in a row stand 0.707 of a half's current.
std::optional<double> ratedCurrent(const Bench& bench, const Motor& motor);

/// Terminals that two windings share: the taps of a unipolar motor.
std::vector<TerminalIndex> tapsOf(const Bench& bench, const Motor& motor);
/// A motor with a tap for each coil, all of them left open.
bool tapsOpen(const Bench& bench, const Motor& motor);

}  // namespace bold::bench
