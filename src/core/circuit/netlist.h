#pragma once

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/circuit/command.h"
#include "core/circuit/nets.h"
#include "core/circuit/operating_point.h"
#include "core/circuit/solver.h"

namespace bold::circuit {

/// Which switches and choppers are on, by Bench::elementIndex: decided from levels, outside Newton's method, pass by pass
/// until it stands still.
using SwitchState = std::vector<char>;

/// Where the branches of an element ended up in the circuit; -1: it has none.
struct Netlist {
  struct Pin {
    int drive = -1, up = -1, down = -1;  ///< its transistor, its clamps to rail and ground
    bool high = false;                   ///< which way it drives
  };
  Circuit circuit;
  std::vector<int> links;                         ///< per link
  std::vector<int> main, base;                    ///< per element
  std::map<std::size_t, std::vector<int>> coils;  ///< per chopper: branch of each coil
  std::map<std::size_t, std::vector<int>> draws;  ///< per chopper: what it takes from its supply
  std::map<TerminalIndex, Pin> pins;              ///< per controller pin
};

struct NetlistInput {
  const Bench& bench;
  const Nets& nets;
  const std::vector<Motor>& motors;
  const Command& command;
  Charge charge;
  const std::map<std::size_t, double>& opened;  ///< winding currents that keep flowing, A, by element
  const std::map<std::size_t, double>& emf;     ///< of windings that still turn, V from a to b
  const std::map<std::size_t, double>& held;    ///< of capacitors that a pulse goes into, V from a to b, by element
};

/// What a capacitor is taken for that does not say, ohm.
inline constexpr double kElectrolyticOhms = 0.3, kCeramicOhms = 0.02;

Netlist makeNetlist(const NetlistInput& input, const SwitchState& on);

/// The circuit behind a solved point and what came out of it: for tests that hold it against physics.
struct Behind {
  const Circuit& circuit;
  const Solution& solution;
};
Behind behind(const OperatingPoint& point);

}  // namespace bold::circuit
