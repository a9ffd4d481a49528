#include "core/bench/wire_size.h"

#include <algorithm>
#include <cmath>

#include "core/parts/roles.h"

namespace bold::bench {
namespace {

constexpr Ohms kLeastWire{0.001};

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
    const bool controller = parts::isController(*bench.devices[bench.deviceOf(t)].part);
    return controller || facts.input || (facts.supply && facts.supply->purpose == parts::SupplyFor::Logic);
  });
}

// What two mated metals have, ohm. Recalled figures of the class, not re-read.
struct Mated {
  double least, usual, greatest;
};
constexpr Mated kHeld{0.001, 0.001, 0.001};    // screwed, crimped or soldered
constexpr Mated kHeader{0.010, 0.015, 0.020};  // a header pin in its socket
constexpr Mated kSpring{0.010, 0.020, 0.050};  // a leg or wire in a breadboard
constexpr Mated kEdge{0.010, 0.020, 0.050};    // a clip or an edge connector on a pad

const Mated& matedAt(const Bench& bench, TerminalIndex t) {
  const auto& contact = bench.facts(t).place.contact;
  if (contact == "hole") return kSpring;
  if (contact == "pin" || contact == "socket") return kHeader;
  if (contact == "pad" || contact == "end") return kEdge;
  return kHeld;
}

}  // namespace

WireSize sizeOf(const Bench& bench, const Link& link) {
  const auto& c = bench.connections[link.connection];
  const bool small = thin(bench, link);
  return {c.gauge.value_or(small ? kThinGauge : kThickGauge), c.length.value_or(Metres{small ? 0.2 : 0.3}), c.gauge.has_value(),
          c.length.has_value()};
}

LinkResistance resistanceOf(const Bench& bench, const Link& link) {
  const auto& c = bench.connections[link.connection];
  const auto& a = matedAt(bench, link.a);
  const auto& b = matedAt(bench, link.b);
  if (c.kind != harness::ConnectionKind::Wire) {  // the two mate with each other: one contact, of the looser kind
    const auto& mate = a.greatest > b.greatest ? a : b;
    return {Ohms{mate.least}, Ohms{mate.usual}, Ohms{mate.greatest}};
  }
  const auto size = sizeOf(bench, link);
  const double copper = ohmPerMetre(size.awg) * size.length.value;
  const auto sum = [&](double contacts) { return std::max(kLeastWire, Ohms{copper + contacts}); };
  return {sum(a.least + b.least), sum(a.usual + b.usual), sum(a.greatest + b.greatest)};
}

}  // namespace bold::bench
