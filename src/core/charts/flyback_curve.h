#pragma once

#include "core/bench/solved_bench.h"
#include "core/charts/curve.h"

namespace bold::charts {

/// Voltage at the opening switch of a motor with one winding: as the bench is wired, and with (or without) a clamp beside
/// it. Winding, switch capacitance and clamp are integrated in time; nothing when inductance, resistance or current is
/// unknown.
std::optional<Curve> flybackCurve(const bench::SolvedBench& solved, int motor);

/// The transient itself, SI: inductance, resistance, supply, current at the opening, voltage above the supply at which
/// something conducts, and the switch's own capacitance.
struct Opening {
  double henries, ohms, volts, amps, clampAbove, farads;
};
Series openingTransient(const Opening& opening, double seconds, int steps);

}  // namespace bold::charts
