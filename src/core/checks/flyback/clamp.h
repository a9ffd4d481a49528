#pragma once

#include "core/checks/queries.h"

namespace bold::checks {

/// The point just after a motor's switch opened; nullptr when there is none.
const OperatingPoint* justOpened(const SolvedBench& s, int motor);

/// The one of those points, over directions and coils, where most of a current finds no path.
const OperatingPoint* worstOpened(const SolvedBench& s, int motor);

/// The lead of a two-lead motor that stays on a supply while the other is switched; -1 when there is none.
TerminalIndex supplyLead(const SolvedBench& s, const Motor& motor);

/// A device that is nothing but one diode.
struct LooseDiode {
  int device, element;
  TerminalIndex anode, cathode;
};
std::vector<LooseDiode> looseDiodes(const SolvedBench& s);

}  // namespace bold::checks
