#include <algorithm>
#include <cmath>

#include "core/circuit/operating_point.h"
#include "core/parts/roles.h"

namespace bold::circuit {
namespace {

// Copper, from the AWG formula: diameter = 0.127 mm x 92^((36 - n) / 39), 1.724e-8 ohm m at 20 degC.
double ohmPerMetre(int awg) {
  const double diameter = 0.127e-3 * std::pow(92.0, (36.0 - awg) / 39.0);
  constexpr double kPi = 3.14159265358979;
  return 1.724e-8 / (kPi * diameter * diameter / 4);
}

// A signal or logic wire: at a controller or at an input or logic supply of a stage.
bool thin(const Bench& bench, const Link& link) {
  const auto ends = {link.a, link.b};
  return std::ranges::any_of(ends, [&](TerminalIndex t) {
    const auto& facts = bench.facts(t);
    if (facts.place.contact == "screw") return false;
    const bool controller = parts::isController(*bench.devices[static_cast<std::size_t>(bench.deviceOf(t))].part);
    return controller || facts.input || (facts.supply && facts.supply->purpose == "logic");
  });
}

}  // namespace

WireSize sizeOf(const Bench& bench, const Link& link) {
  const auto& c = bench.connections[static_cast<std::size_t>(link.connection)];
  const bool small = thin(bench, link);
  return {c.gauge.value_or(small ? kThinGauge : kThickGauge), c.length.value_or(Metres{small ? 0.2 : 0.3}), c.gauge.has_value(),
          c.length.has_value()};
}

Ohms resistanceOf(const Bench& bench, const Link& link) {
  const auto& c = bench.connections[static_cast<std::size_t>(link.connection)];
  if (c.kind != harness::ConnectionKind::Wire) return kContact;
  const auto size = sizeOf(bench, link);
  return std::max(kLeastWire, Ohms{ohmPerMetre(size.awg) * size.length.value} + kContact * 2);
}

}  // namespace bold::circuit
