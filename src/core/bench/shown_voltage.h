#pragma once

#include "core/bench/solved_bench.h"

namespace bold::bench {

/// A terminal's voltage as it is shown to people: against the minus of the first source that shares a current path with
/// it; nothing when none does.
std::optional<Volts> shownVoltage(const SolvedBench& solved, const OperatingPoint& point, TerminalIndex t);

}  // namespace bold::bench
