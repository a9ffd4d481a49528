#pragma once

#include <map>
#include <optional>
#include <set>

#include "core/program/follow.h"

/// What follows from the order in which pins get their levels, and from the waits between.
namespace bold::program {

struct Pulses {
  std::optional<double> shortest;  ///< s that it is high between two waits
  std::optional<double> period;    ///< s, the shortest from rise to rise
  bool falls = false;              ///< it rises and falls at all
};
/// Of every pin that rises and falls with a wait of known length in between.
std::map<std::string, Pulses> pulsesOf(const std::vector<Moment>& moments);

/// Four pins that take turns: a stepper's coils, written out by the program.
struct CoilSequence {
  std::vector<std::string> pins;    ///< in the order in which a state writes them
  std::vector<std::string> states;  ///< one digit a pin, each once until they repeat
  std::optional<double> wait;       ///< s, the shortest between two states
  int event = -1;                   ///< the first that writes one of them
};
/// @param known pins that belong to something else already
std::vector<CoilSequence> coilSequences(const std::vector<Moment>& moments, const std::set<std::string>& known);

}  // namespace bold::program
