#pragma once

#include "core/bench/motors.h"

namespace bold::bench {

/// A switch or sensor that is closed at rest and lies in a lead of a motor: it is meant to stop it at the end of its way.
struct EndSwitch {
  int motor;                                  ///< into the motors
  int device;                                 ///< the switch
  std::vector<std::pair<int, int>> contacts;  ///< all that are moved with it: device, element
};

/// Told by copper: one end of its contact is on a lead, or on another such switch in that lead. Of motors with two leads.
std::vector<EndSwitch> endSwitches(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors);

}  // namespace bold::bench
