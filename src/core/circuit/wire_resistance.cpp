#include <algorithm>
#include <cmath>

#include "core/circuit/operating_point.h"

namespace bold::circuit {
namespace {

// Copper, from the AWG formula: diameter = 0.127 mm x 92^((36 - n) / 39), 1.724e-8 ohm m at 20 degC.
double ohmPerMetre(int awg) {
  const double diameter = 0.127e-3 * std::pow(92.0, (36.0 - awg) / 39.0);
  constexpr double kPi = 3.14159265358979;
  return 1.724e-8 / (kPi * diameter * diameter / 4);
}

bool atScrew(const Bench& bench, const Link& link) {
  return bench.facts(link.a).place.contact == "screw" || bench.facts(link.b).place.contact == "screw";
}

}  // namespace

Ohms resistanceOf(const Bench& bench, const Link& link) {
  const auto& c = bench.connections[static_cast<std::size_t>(link.connection)];
  if (c.kind != harness::ConnectionKind::Wire) return kContact;
  const bool screw = atScrew(bench, link);
  const int awg = c.gauge.value_or(screw ? 22 : 28);
  const Metres length = c.length.value_or(Metres{screw ? 0.3 : 0.2});
  return std::max(kLeastWire, Ohms{ohmPerMetre(awg) * length.value} + kContact * 2);
}

}  // namespace bold::circuit
