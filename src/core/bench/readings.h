#pragma once

#include <optional>

#include "core/bench/netlist.h"

namespace bold::bench {

/// What a circuit came out at, read by the terminals and elements of its bench.
struct Readings {
  const Bench& bench;
  const Nets& nets;
  Netlist netlist{};
  solver::Solution solution{};

  /// -1: wired to nothing.
  int node(TerminalIndex t) const { return t < 0 ? -1 : nets.nodes()[t]; }
  std::optional<Volts> across(TerminalIndex a, TerminalIndex b) const;
  /// Driving-point resistance; nothing when no path joins them.
  std::optional<Ohms> resistance(TerminalIndex a, TerminalIndex b) const;

  Amps link(int l) const { return through(netlist.links[l]); }
  /// Main current of an element, see OperatingPoint::element.
  Amps element(int device, int e) const;
  Amps base(int device, int e) const { return through(branchOf(netlist.base, device, e)); }
  Amps pin(TerminalIndex t) const;
  Amps coil(int device, int e, int coil) const;
  Watts power(int device, int e) const;
  /// Share of a just opened winding's current that only an arc takes (0 .. 1).
  double arcShare(int device, int winding) const;

 private:
  int branchOf(const std::vector<int>& list, int device, int e) const { return list.empty() ? -1 : list[bench.elementIndex(device, e)]; }
  Amps through(int branch) const;
  bool opened(int branch) const { return branch >= 0 && netlist.circuit.branches[branch].kind == solver::Branch::Kind::Current; }
};

}  // namespace bold::bench
