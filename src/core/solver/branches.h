#pragma once

#include "core/solver/circuit.h"

/// The plain kinds of branches by their figures, SI; resistances and limits are kept above zero.
namespace bold::solver {

Branch conductance(int a, int b, double siemens);
/// Conducts from a to b above v0.
Branch knee(int a, int b, double v0, double ohms);
/// A resistance that bends over to `limit` amperes both ways.
Branch saturating(int a, int b, double ohms, double limit);
/// Delivers out of a.
/// @param limit most that it gives, @param taken most that it takes back, A
Branch source(int a, int b, double volts, double ohms, double limit, double taken);
/// Keeps a current flowing from a to b, arc or not.
Branch current(int a, int b, double amps);

inline constexpr double kNoLimit = 1e6;  // A

}  // namespace bold::solver
