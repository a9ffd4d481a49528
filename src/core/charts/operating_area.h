#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"

namespace bold::charts {

/// What one channel of a stage stands: a window of supply voltage, and currents. What is not known is not there.
struct OperatingArea {
  std::string name;                   ///< of the stage
  std::optional<double> least, most;  ///< V, recommended for its motor supply
  std::optional<double> absolute;     ///< V
  std::optional<double> continuous;   ///< A, for long, as the part stands
  std::optional<double> withSink;     ///< A, for long, with a heat sink
  std::optional<double> peak;         ///< A, for a moment
};

/// What a motor asks of it at one state of the supply.
struct Whisker {
  std::string name;                  ///< "full", "nearly empty"
  double volts = 0;                  ///< that the supply gives
  std::optional<double> run, stall;  ///< A through the channel; a stalled motor with the stage's own drops
};

/// Of the channel that a motor hangs on; nothing where it hangs on none.
std::optional<OperatingArea> operatingArea(const bench::SolvedBench& solved, const std::string& motor);
/// At a full and at a nearly empty supply; of a stepper the run alone.
std::vector<Whisker> whiskers(const bench::SolvedBench& solved, const std::string& motor);

}  // namespace bold::charts
