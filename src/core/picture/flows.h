#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/picture/layout.h"

namespace bold::picture {

/// A voltage beside a terminal, on the first leg of its thread.
struct VoltTag {
  Point at;  ///< middle of the text
  std::string text;
};

/// What one operating point adds to the picture: current along threads, voltage at nets.
struct Flows {
  std::map<std::string, double> amps;  ///< by connection, from its a to its b; plugs with several poles: the largest
  std::vector<VoltTag> volts;
};

/// Voltages are against the minus of the first source that shares a current path. A net is named once in each box, and
/// grounds (within 20 mV of zero) not at all.
Flows flowsOf(const Layout& layout, const bench::SolvedBench& solved, const bench::OperatingPoint& point);

/// Three sizes of chevron: from 10 mA, from 100 mA, from 1 A; 0: nothing to draw.
int chevronSize(double amps);

}  // namespace bold::picture
