#pragma once

#include "core/bench/motors.h"

namespace bold::bench {

/// What can switch a motor or load, told by the wires.
enum class Steering {
  Pins,     ///< a controller's pin, or nobody knows: a control that nothing gets to
  ByHand,   ///< every control of its stage stands on rails, by way of switches and resistors at most
  AlwaysOn  ///< nothing but copper, switches and fuses lies between it and its supply
};

Steering steeringOf(const Bench& bench, const Nets& nets, const Motor& motor);

}  // namespace bold::bench
