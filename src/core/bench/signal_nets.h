#pragma once

#include <set>

#include "core/bench/nets.h"

namespace bold::bench {

/// How far a signal is followed.
enum class Along {
  Copper,          ///< by copper and through resistors
  Transistors,     ///< and on from a base or gate to what that transistor switches, or through one whose control is on a rail
  TransistorsBack  ///< and back from what a transistor switches to its base or gate
};

/// Nets that a signal at a terminal gets to (or comes from). It ends at supplies and grounds.
std::set<int> signalNets(const Bench& bench, const Nets& nets, TerminalIndex from, Along along);

/// The pins that a program can drive and that get to an input: by copper and resistors, else back through transistors.
std::set<TerminalIndex> programPins(const Bench& bench, const Nets& nets, TerminalIndex input);

}  // namespace bold::bench
