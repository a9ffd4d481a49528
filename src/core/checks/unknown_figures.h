#pragma once

#include <set>
#include <vector>

#include "core/checks/queries.h"

/// What nobody has said yet and everything else follows from: the voltage of a supply, the value of a loose resistor.
/// The solver leaves them open; what then seems to happen is nobody's doing.
namespace bold::checks {

/// Wired sources and converters without a voltage, and wired resistors without a resistance: devices, in bench order.
std::vector<int> unknownSources(const SolvedBench& s);
std::vector<int> unknownResistors(const SolvedBench& s);

/// Parts that no library knows: devices.
std::vector<int> unknownParts(const SolvedBench& s);
/// The nets whose voltages follow from those parts and sources.
std::set<int> unknownNets(const SolvedBench& s);

/// Whether what a motor does hangs on any of those.
bool hangsOnUnknown(const SolvedBench& s, const Motor& motor);

}  // namespace bold::checks
