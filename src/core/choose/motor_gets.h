#pragma once

#include <optional>
#include <string>

#include "core/bench/solved_bench.h"

namespace bold::choose {

/// What is left for a motor behind its stage, its supply nominal but for `most`.
struct MotorGets {
  std::optional<Volts> most;     ///< running, with a full supply
  std::optional<Volts> running;  ///< of a stepper across a coil: not said where a chopper regulates its current
  std::optional<Volts> stalled;
  std::optional<double> speed;  ///< share of the speed that the supply would give without a stage; of brushed motors
};

/// @param motor device; one that is not there gets nothing that is known
MotorGets motorGets(const bench::SolvedBench& solved, const std::string& motor);

}  // namespace bold::choose
