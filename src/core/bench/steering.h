#pragma once

#include "core/bench/motors.h"

namespace bold::bench {

/// What switches a motor or load.
enum class Steering {
  Pins,     ///< a controller's pin, or nobody knows: a control that nothing gets to
  ByHand,   ///< every control of its stage stands on rails, by way of switches and resistors at most, or is touched with a lead
  AlwaysOn  ///< nothing but copper, switches and fuses lies between it and its supply
};

/// Inputs, gates and bases that switch it, wherever they are wired to: of the channels that its leads reach, of transistors on them, and of
/// the stages of relays' coils.
std::vector<TerminalIndex> controlsOf(const Bench& bench, const Nets& nets, const Motor& motor);
/// By the wires alone.
Steering wiredSteering(const Bench& bench, const Nets& nets, const Motor& motor);
/// As it is stated, else by the wires. What pins are stated for, or a pin of a controller gets to, is never by hand.
Steering steeringOf(const Bench& bench, const Nets& nets, const Motor& motor);

}  // namespace bold::bench
