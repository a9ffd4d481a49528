#pragma once

#include "core/checks/queries.h"

namespace bold::checks {

/// Capacitance within `near` of wire at both ends of a supply input; ceramic ones counted apart.
struct NearCapacitance {
  Farads all{0}, electrolytic{0};
};
NearCapacitance nearCapacitance(const SolvedBench& s, const SupplyInput& input);

using bench::kNear;

/// Used: the stage drives a motor, and something feeds the input.
bool inUse(const SolvedBench& s, const SupplyInput& input);

}  // namespace bold::checks
