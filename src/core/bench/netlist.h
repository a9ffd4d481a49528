#pragma once

#include <map>
#include <optional>
#include <set>
#include <string>
#include <vector>

#include "core/bench/command.h"
#include "core/bench/nets.h"
#include "core/bench/operating_point.h"
#include "core/bench/stand_ins.h"
#include "core/solver/solve.h"

namespace bold::bench {

/// Which switches and choppers are on, by Bench::elementIndex: decided from levels, outside Newton's method, pass by pass
/// until it stands still.
using SwitchState = std::vector<char>;

/// Where the branches of an element ended up in the circuit; -1: it has none.
struct Netlist {
  struct Pin {
    int drive = -1, up = -1, down = -1;  ///< its transistor, its clamps to rail and ground
    bool high = false;                   ///< which way it drives
  };
  solver::Circuit circuit;
  std::vector<int> links;                         ///< per link
  std::vector<int> main, base;                    ///< per element
  std::map<std::size_t, std::vector<int>> coils;  ///< per chopper: branch of each coil
  std::map<std::size_t, std::vector<int>> draws;  ///< per chopper: what it takes from its supply
  std::map<TerminalIndex, Pin> pins;              ///< per controller pin
};

/// What a point takes over from the one it comes from, by element: SI, from a to b.
struct CarriedOn {
  std::map<std::size_t, double> currents;  ///< of windings that were just opened, A
  std::map<std::size_t, double> emf;       ///< of windings that still turn, V
  std::map<std::size_t, double> held;      ///< of capacitors that a pulse goes into, V
};

struct NetlistInput {
  const Bench& bench;
  const Nets& nets;
  const std::vector<Motor>& motors;
  const Command& command;
  Corner corner;
  const CarriedOn& carriedOn;
  std::set<std::pair<const StandIn*, int>>* stoodIn = nullptr;  ///< notes for which device what stood in
};

Netlist makeNetlist(const NetlistInput& input, const SwitchState& on);

/// The circuit behind a solved point and what came out of it: for tests that hold it against physics.
struct Behind {
  const solver::Circuit& circuit;
  const solver::Solution& solution;
};
Behind behind(const OperatingPoint& point);

}  // namespace bold::bench
