#pragma once

#include <vector>

#include "core/checks/queries.h"

namespace bold::checks {

/// What a package turns into heat at an operating point; elements without a package are left out.
Watts packagePower(const SolvedBench& s, const OperatingPoint& p, int device, const std::string& package);
/// K/W for the heat sink really fitted; nothing when unknown.
std::optional<double> thermalOf(const Bench& bench, int device, const parts::Package& package, bool worst);
/// The document's ambient, 30 degC where it says nothing.
double ambient(const Bench& bench);
/// The margin of a temperature: nothing is used at ambient.
Margin heatMargin(const Bench& bench, std::string quantity, std::vector<std::string> subjects, std::optional<double> celsius,
                  std::vector<Limit> limits, const OperatingPoint* at);
/// What a junction should keep below its greatest temperature, in kelvin.
inline constexpr double kToSpare = 25;
/// Of a package: a stop at its greatest, a caution nearer to it than that.
std::vector<Limit> heatLimits(const parts::Package& package);
/// Ambient of the pessimistic corner: the larger of 40 degC and 10 K more.
double hotAmbient(const Bench& bench);

}  // namespace bold::checks
