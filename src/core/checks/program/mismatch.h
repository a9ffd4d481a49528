#pragma once

#include "core/checks/program/on_bench.h"
#include "core/places/numbering.h"

namespace bold::checks {

/// A pin that the wires want driven and the program leaves alone, and one that it drives for nothing: one was meant by the other.
struct Slip {
  const WiredRole* role;
  const UsedPin* used;
  std::string name;    ///< by which the source calls it where it was meant
  harness::Spot spot;  ///< where that name stands; line 0: where the use says
  std::string how;     ///< "one off", "by another numbering"; empty: they fit by name, or nothing else is left
};

/// Numbers of one program that fit the wires in another numbering than the one they are taken in.
struct OtherNumbering {
  const harness::SourceRead* source;
  places::Numbering meant;
  std::vector<std::pair<const UsedPin*, TerminalIndex>> pins;  ///< and the terminal that each number names there
};
/// Of each program whose numbers fit better so, two or more of them; what these explain is no slip of a single pin.
/// ProgramOnBench::numberings keeps them.
std::vector<OtherNumbering> otherNumberings(const ProgramOnBench& program);

/// Which pins of the program and the wires have no partner.
struct Mismatch {
  std::vector<Slip> slips;
  std::vector<const WiredRole*> undriven;  ///< of the first role where a pin has several
  std::vector<const UsedPin*> unwired;
};
/// ProgramOnBench::mismatch keeps it.
Mismatch mismatchOf(const ProgramOnBench& program);

}  // namespace bold::checks
