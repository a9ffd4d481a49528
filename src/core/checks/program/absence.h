#pragma once

#include <vector>

#include "core/checks/program/on_bench.h"

/// What a program never does is only known where nothing that could not be told may do it.
namespace bold::checks {

/// A finding that says of some pins what the program never does with them.
struct Absence {
  Finding finding;
  std::vector<TerminalIndex> pins;
  std::vector<int> motors;  ///< whose pins these are
};
using Absences = std::vector<Absence>;

/// Those of which nothing is open.
Findings standing(const ProgramOnBench& program, Absences absences);
/// What may make one untrue; nullptr: it stands.
const harness::Untold* openFor(const ProgramOnBench& program, const Absence& absence);

}  // namespace bold::checks
