#pragma once

#include "core/bench/solved_bench.h"

namespace bold::charts {

/// One leg of a stage: what its two switches do and what leaves it.
struct Leg {
  std::string output;             ///< "OUT1"
  std::optional<bool> high, low;  ///< whether the switch is on; nothing when an input floats
  bool hasHigh = false, hasLow = false;
  Amps current{0};               ///< out of the output
  std::optional<Volts> voltage;  ///< against the stage's return
};

/// The switches around one motor for one command: what the chart of the bridge is drawn of.
struct BridgeState {
  std::string stage, motor;  ///< names
  std::string does;          ///< "runs forward"
  std::vector<Leg> legs;     ///< two for a bridge, one for a switch or half a bridge, four for the switches of coils
  Amps motorCurrent{0};      ///< from the first leg's side into the motor
  bool shootThrough = false;
  bool toReturn = false;  ///< with one leg: the motor's other lead is on the return, not on the supply
};

/// Nothing when the motor has no stage with switches.
std::optional<BridgeState> bridgeState(const bench::SolvedBench& solved, int motor, const bench::OperatingPoint& point);

}  // namespace bold::charts
