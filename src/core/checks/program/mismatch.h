#pragma once

#include "core/checks/program/on_bench.h"

namespace bold::checks {

/// A pin that the wires want driven and the program leaves alone, and one that it drives for nothing: one was meant by the other.
struct Slip {
  const WiredRole* role;
  const UsedPin* used;
  std::string name;    ///< by which the source calls it where it was meant
  harness::Spot spot;  ///< where that name stands; line 0: where the use says
  std::string how;     ///< "one off", "by another numbering"; empty: they fit by name, or nothing else is left
};

/// Which pins of the program and the wires have no partner.
struct Mismatch {
  std::vector<Slip> slips;
  std::vector<const WiredRole*> undriven;  ///< of the first role where a pin has several
  std::vector<const UsedPin*> unwired;
};
Mismatch mismatchOf(const ProgramOnBench& program);

/// Whether the program names pins that could not be told: what it seems to leave alone may be among them.
bool untold(const ProgramOnBench& program, int device);

}  // namespace bold::checks
