#pragma once

#include "core/bench/solved_bench.h"
#include "core/charts/curve.h"

namespace bold::charts {

/// The voltage of the source that feeds a motor, over the start: from stalled to running. Between the two solved points
/// the current falls by the motor's mechanical time constant. Nothing when either was not solved.
std::optional<Curve> sagCurve(const bench::SolvedBench& solved, int motor);

}  // namespace bold::charts
