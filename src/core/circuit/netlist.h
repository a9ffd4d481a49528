#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/circuit/command.h"
#include "core/circuit/nets.h"
#include "core/circuit/operating_point.h"
#include "core/circuit/solver.h"

namespace bold::circuit {

/// The state of everything that is decided outside Newton's method: which switches are closed, what choppers draw,
/// where transistors stand on their data-sheet rows. Improved pass by pass until it stands still.
struct OuterState {
  std::map<std::pair<int, int>, bool> closed;       ///< (device, element)
  std::map<std::pair<int, int>, double> draw;       ///< chopper supply current, A
  std::map<std::pair<int, int>, double> supply;     ///< chopper supply voltage, V
  std::map<std::pair<int, int>, double> collector;  ///< bipolar collector current, A
  struct Tried {
    double put, got;  ///< A
  };
  std::map<std::pair<int, int>, Tried> tried;  ///< the collector current last put in, and what came out
};

/// Where the branches of an element ended up in the circuit.
struct Netlist {
  Circuit circuit;
  std::vector<int> node;                                           ///< per terminal; -1: touched by nothing
  std::vector<int> links;                                          ///< per link: branch
  std::map<std::pair<int, int>, int> main, base;                   ///< (device, element): branch
  std::map<std::pair<int, int>, std::vector<int>> coils;           ///< chopper: branch of each coil
  std::map<TerminalIndex, std::vector<std::pair<int, int>>> pins;  ///< branches at a controller pin, and sign
  std::map<std::pair<int, int>, std::pair<int, int>> arcs;         ///< opened winding: arc branches, forward and back
};

struct NetlistInput {
  const Bench& bench;
  const Nets& nets;
  const std::vector<Motor>& motors;
  const Command& command;
  Charge charge;
  const std::map<std::pair<int, int>, double>& opened;  ///< winding currents that keep flowing, A
  const std::map<std::pair<int, int>, double>& emf;     ///< of windings that still turn, V from a to b
};

Netlist makeNetlist(const NetlistInput& input, const OuterState& state);

/// The circuit behind a solved point and what came out of it: for tests that hold it against physics.
struct Behind {
  const Circuit& circuit;
  const Solution& solution;
};
Behind behind(const OperatingPoint& point);

inline constexpr double kArcVolts = 200.0;  // where the air gap of an opening contact gives way, in the model

}  // namespace bold::circuit
