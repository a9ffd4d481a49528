#pragma once

#include "core/bench/netlist.h"

namespace bold::bench {

/// What the windings and capacitors of the commanded motor (and of those that go together with it) still have from while it ran: the
/// current of an opened winding, the voltage of the capacitors it is opened onto, the own voltage of one that is told to brake, coast or
/// turn round.
/// @param running the point that the command begins from; nullptr: none
CarriedOn carriedOn(const Bench& bench, const std::vector<Motor>& motors, const Command& command, const OperatingPoint* running);

}  // namespace bold::bench
