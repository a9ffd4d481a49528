#pragma once

#include <optional>

#include "core/bench/motors.h"

namespace bold::bench {

/// The level of a pin at which a stage with isolated inputs runs, where that pin decides about the current through one of them: such an
/// input has no level of its own, what counts is which of its two ends the pin is wired to. Nothing for any other input.
/// @param input the end that the part names for the role
std::optional<parts::Level> runsAt(const Bench& bench, const Nets& nets, const Motor& motor, TerminalIndex input, TerminalIndex pin);

}  // namespace bold::bench
