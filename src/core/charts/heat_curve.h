#pragma once

#include "core/bench/solved_bench.h"
#include "core/charts/curve.h"

namespace bold::charts {

/// The junction of the stage that drives a motor, from running warm into a stall. Nothing when the stage states no
/// thermal resistance or time constant.
std::optional<Curve> heatCurve(const bench::SolvedBench& solved, int motor);

/// When a curve first passes a limit, s; nothing when it never does.
std::optional<double> reaches(const Series& series, double y);

}  // namespace bold::charts
