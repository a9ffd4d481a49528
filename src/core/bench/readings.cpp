#include "core/bench/readings.h"

#include <algorithm>
#include <cmath>

namespace bold::bench {
namespace {

constexpr double kNoCurrent = 1e-8;  // A: leaks that the model makes up and solving is not exact to

}  // namespace

Amps Readings::through(int branch) const {
  const double i = branch < 0 ? 0 : solution.amps[branch];
  return std::abs(i) < kNoCurrent ? Amps{} : Amps{i};
}

std::optional<Volts> Readings::across(TerminalIndex a, TerminalIndex b) const {
  const int na = node(a);
  const int nb = node(b);
  if (na < 0 || nb < 0 || solution.island[na] != solution.island[nb]) return std::nullopt;
  return Volts{solution.volts[na] - solution.volts[nb]};
}

std::optional<Ohms> Readings::resistance(TerminalIndex a, TerminalIndex b) const {
  const int na = node(a);
  const int nb = node(b);
  if (na < 0 || nb < 0) return std::nullopt;
  if (na == nb) return Ohms{0};
  const auto r = solution.resistance(na, nb);
  return r ? std::optional(Ohms{*r}) : std::nullopt;
}

Amps Readings::element(int device, int e) const {
  if (const auto it = netlist.draws.find(bench.elementIndex(device, e)); it != netlist.draws.end()) {
    Amps sum{};
    for (const int draw : it->second) sum = sum + through(draw);
    return sum;
  }
  const int k = branchOf(netlist.main, device, e);
  if (opened(k)) return Amps{netlist.circuit.branches[k].i};  // a coil just opened carries on, arc or not
  const auto i = through(k);
  return std::holds_alternative<parts::Source>(bench.devices[device].part->elements[e].body) ? -i : i;
}

Amps Readings::pin(TerminalIndex t) const {
  const auto it = netlist.pins.find(t);
  if (it == netlist.pins.end()) return {};
  const auto& p = it->second;
  return through(p.drive) * (p.high ? 1 : -1) - through(p.up) + through(p.down);
}

Amps Readings::coil(int device, int e, int c) const {
  const auto it = netlist.coils.find(bench.elementIndex(device, e));
  if (it == netlist.coils.end() || c >= static_cast<int>(it->second.size())) return {};
  return -through(it->second[c]);
}

Watts Readings::power(int device, int e) const {
  const auto& body = bench.devices[device].part->elements[e].body;
  if (const auto* c = std::get_if<parts::Chopper>(&body)) {
    double watts = 0;
    for (std::size_t k = 0; k < c->coils.size(); ++k)
      watts += std::pow(coil(device, e, static_cast<int>(k)).value, 2) * valueOf(c->rds.typical(), kChopperResistance);
    const auto v = across(bench.terminal(device, c->supply), bench.terminal(device, c->ground));
    return Watts{watts + valueOf(c->quiescent.typical(), kChopperQuiescent) * (v ? std::abs(v->value) : 0)};
  }
  double watts = 0;
  for (const auto* list : {&netlist.main, &netlist.base})
    if (const int k = branchOf(*list, device, e); k >= 0) {
      const auto& b = netlist.circuit.branches[k];
      watts += (solution.volts[b.a] - solution.volts[b.b]) * solution.amps[k];
    }
  return Watts{watts};
}

double Readings::arcShare(int device, int winding) const {
  const int k = branchOf(netlist.main, device, winding);
  if (!opened(k)) return 0;
  const double all = element(device, winding).value;
  const double left = through(k).value;  // what finds another way than the arc
  return std::abs(all) > 1e-9 ? 1 - left / all : 0;
}

}  // namespace bold::bench
