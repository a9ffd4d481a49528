#include "core/solver/solve.h"

#include <rapidcheck/catch.h>

#include <array>
#include <catch2/catch.hpp>
#include <cmath>

using namespace bold::solver;
using Kind = Branch::Kind;

namespace {

Branch resistor(int a, int b, double ohms) {
  Branch x;
  x.a = a;
  x.b = b;
  x.g = 1 / ohms;
  return x;
}
Branch source(int p, int n, double volts, double ohms, double limit = 1e9, double sinks = 1e9) {
  Branch x;
  x.kind = Kind::Source;
  x.a = p;
  x.b = n;
  x.v0 = volts;
  x.r = ohms;
  x.limit = limit;
  x.limit2 = sinks;
  return x;
}
Branch knee(int a, int b, double v0, double r) {
  Branch x;
  x.kind = Kind::Knee;
  x.a = a;
  x.b = b;
  x.v0 = v0;
  x.r = r;
  return x;
}
// A transistor as makeNetlist puts it: itself, its junction, and the unknown that is its collector current.
std::array<Branch, 3> bipolar(Branch figures, int collector, int emitter, int base, int current) {
  auto& t = figures;
  t.kind = Kind::Bipolar;
  t.a = collector;
  t.b = emitter;
  t.c = base;
  t.d = current;
  Branch junction = t;
  junction.kind = Kind::Knee;
  junction.a = t.sign > 0 ? base : emitter;
  junction.b = t.sign > 0 ? emitter : base;
  junction.c = -1;
  Branch unknown = t;
  unknown.kind = Kind::Collector;
  unknown.a = current;
  unknown.b = collector;
  unknown.d = emitter;
  return {t, junction, unknown};
}
// A chopper's coil between two leads, fed from node 0 against `ground`, and what is drawn for it.
std::array<Branch, 2> chopped(int near, int far, int ground, double limit, double quiescent) {
  Branch coil;
  coil.kind = Kind::Coil;
  coil.a = near;
  coil.b = ground;
  coil.c = 0;
  coil.d = ground;
  coil.r = 0.25;
  coil.limit = limit;
  coil.i = quiescent;
  Branch draw = coil;
  draw.kind = Kind::Draw;
  draw.a = 0;
  draw.c = near;
  draw.d = far;
  draw.r = 0.5;
  return {coil, draw};
}
double volts(const Solution& s, int a, int b) {
  return s.volts[a] - s.volts[b];
}

// The sum of currents at every node, by hand.
double worstNode(const Circuit& c, const Solution& s) {
  std::vector<double> sum(static_cast<std::size_t>(c.nodes), 0);
  for (std::size_t k = 0; k < c.branches.size(); ++k) {
    sum[c.branches[k].a] += s.amps[k];
    sum[c.branches[k].b] -= s.amps[k];
  }
  double worst = 0;
  for (const double x : sum) worst = std::max(worst, std::abs(x));
  return worst;
}

}  // namespace

TEST_CASE("a divider divides") {
  const Circuit c{3, {source(0, 2, 10, 0.001), resistor(0, 1, 1000), resistor(1, 2, 3000)}};
  const auto s = solve(c);
  REQUIRE(s.converged);
  CHECK(volts(s, 1, 2) == Approx(7.5).epsilon(1e-6));
  CHECK(s.amps[1] == Approx(0.0025).epsilon(1e-6));
}

TEST_CASE("a battery sags by its resistance") {
  const Circuit c{2, {source(0, 1, 6.0, 0.8), resistor(0, 1, 2.2)}};
  const auto s = solve(c);
  CHECK(volts(s, 0, 1) == Approx(6.0 * 2.2 / 3.0));
}

TEST_CASE("two sources share a load by their resistances") {
  const Circuit c{2, {source(0, 1, 12, 0.1), source(0, 1, 12, 0.3), resistor(0, 1, 10)}};
  const auto s = solve(c);
  CHECK(-s.amps[0] == Approx(3 * -s.amps[1]).epsilon(1e-5));
}

TEST_CASE("a supply in its limit gives no more than its limit") {
  const Circuit c{2, {source(0, 1, 12, 0.15, 3.0, 0), resistor(0, 1, 1.0)}};
  const auto s = solve(c);
  REQUIRE(s.converged);
  CHECK(-s.amps[0] == Approx(3.0).epsilon(0.01));
  CHECK(volts(s, 0, 1) == Approx(3.0).epsilon(0.01));
}

TEST_CASE("a supply that does not sink lets a stronger one lift it") {
  const Circuit c{2, {source(0, 1, 12, 0.1, 3.0, 0), source(0, 1, 14, 0.1), resistor(0, 1, 100)}};
  const auto s = solve(c);
  REQUIRE(s.converged);
  CHECK(volts(s, 0, 1) == Approx(14).epsilon(0.01));
  CHECK(std::abs(s.amps[0]) < 0.02);
}

TEST_CASE("a diode drops its knee and blocks the other way") {
  const Circuit on{3, {source(0, 2, 5, 0.01), knee(0, 1, 0.6, 0.1), resistor(1, 2, 100)}};
  const auto a = solve(on);
  CHECK(volts(a, 0, 1) == Approx(0.6 + 0.1 * 0.044).margin(0.04));
  const Circuit off{3, {source(0, 2, 5, 0.01), knee(1, 0, 0.6, 0.1), resistor(1, 2, 100)}};
  CHECK(std::abs(solve(off).amps[1]) < 1e-8);
}

TEST_CASE("a bipolar transistor saturates when driven and limits when starved") {
  for (const auto& [baseOhms, saturated] : {std::pair{1000.0, true}, std::pair{100000.0, false}}) {
    Branch junction = knee(2, 3, 0.7, 1);
    Branch t;
    t.kind = Kind::Bipolar;
    t.a = 1;
    t.b = 3;
    t.c = 2;
    t.v0 = 0.7;
    t.r = 1;
    t.gain = 100;
    t.ron = 1;
    const Circuit c{4, {source(0, 3, 5, 0.01), resistor(0, 1, 50), resistor(0, 2, baseOhms), junction, t}};
    const auto s = solve(c);
    REQUIRE(s.converged);
    const double base = (5 - 0.7) / baseOhms;
    if (saturated)
      CHECK(volts(s, 1, 3) < 0.15);
    else
      CHECK(s.amps[4] == Approx(100 * base).epsilon(0.05));
  }
}

namespace {
// A load on 12 V pulled down by a transistor whose base is driven hard, or by `base` amperes.
struct Switched {
  double collector, vce, base;
};
Switched switchedBy(const Branch& figures, double loadOhms, double baseOhms) {
  const auto [t, junction, current] = bipolar(figures, 1, 3, 2, 4);
  const Circuit c{5, {source(0, 3, 12, 0.001), resistor(0, 1, loadOhms), resistor(0, 2, baseOhms), t, junction, current}};
  const auto s = solve(c);
  REQUIRE(s.converged);
  return {s.amps[3], volts(s, 1, 3), s.amps[4]};
}
}  // namespace

TEST_CASE("a saturated transistor has its row's VCE at the row's current, a tenth less at a milliampere, and more beyond the last row") {
  const Branch::Rows rows{{0.1, 0.3}, {0.5, 0.7}};
  Branch t;
  t.v0 = 0.7;
  t.gain = 1000;
  t.rows = &rows;
  for (const auto& [amps, vce] : {std::pair{0.1, 0.3}, {0.3, 0.5}, {0.5, 0.7}, {0.6, 0.8}, {0.0505, 0.285}}) {
    INFO(amps);
    const auto at = switchedBy(t, (12 - vce) / amps, 100);
    CHECK(at.collector == Approx(amps).epsilon(0.003));
    CHECK(at.vce == Approx(vce).epsilon(0.01));
  }
  const Branch::Rows one{{0.5, 0.5}};
  t.rows = &one;
  CHECK(switchedBy(t, 11, 100).vce == Approx(1.0).epsilon(0.01));  // 1 ohm beyond its only row
}

TEST_CASE("a starved transistor carries its gain at that very current times its base current") {
  const Branch::Rows rows{{0.1, 0.3}};
  const Branch::Rows gains{{0.01, 50}, {0.11, 150}};
  Branch t;
  t.v0 = 0.7;
  t.rows = &rows;
  t.gains = &gains;
  const auto at = switchedBy(t, 10, 22600);  // half a mA into the base: IC = 20 mA + IC / 2
  CHECK(at.base == Approx(0.0005).epsilon(0.01));
  CHECK(at.collector == Approx(0.04).epsilon(0.02));
  CHECK(at.collector == Approx((40 + 1000 * at.collector) * at.base).epsilon(0.02));
}

TEST_CASE("VBE rises with the collector current up to its row") {
  const Branch::Rows rows{{0.1, 0.3}};
  Branch t;
  t.v0 = 0.7;
  t.rise = 0.5;
  t.full = 0.5;
  t.gain = 1000;
  t.rows = &rows;
  for (const double load : {1e6, 48.0, 12.0}) {
    const auto at = switchedBy(t, load, 100);
    CHECK(at.base == Approx((12 - 0.7 - 0.5 * std::min(1.0, std::max(at.collector, 1e-3) / 0.5)) / 101).epsilon(0.002));
  }
}

TEST_CASE("a chopper holds its coil's current and draws the power of it, or as much as a coil takes that it cannot force") {
  for (const double limit : {0.85, 50.0}) {
    const auto [coil, draw] = chopped(1, 2, 3, limit, 0.008);
    const Circuit c{4, {source(0, 3, 12, 0.1), coil, draw, resistor(1, 2, 1.5), resistor(1, 3, 1e5), resistor(2, 3, 0.25)}};
    const auto s = solve(c);
    REQUIRE(s.converged);
    const double supply = volts(s, 0, 3);
    const double i = s.amps[3];
    CHECK(i == Approx(std::min(limit, supply / 2)).epsilon(1e-4));
    CHECK(s.amps[2] == Approx(i * i * 2.0 / supply + 0.008).epsilon(1e-4));
    CHECK(supply == Approx(12 - 0.1 * s.amps[2]).epsilon(1e-6));
  }
}

TEST_CASE("an opened coil drives its current where it finds a way, and through the air where there is none") {
  Branch coil;
  coil.kind = Kind::Current;
  coil.a = 0;
  coil.b = 1;
  coil.i = 0.5;
  const Circuit caught{2, {coil, knee(1, 0, 0.5, 0.1)}};
  const auto a = solve(caught);
  REQUIRE(a.converged);
  CHECK(a.amps[0] == Approx(0.5).epsilon(1e-6));
  CHECK(volts(a, 1, 0) == Approx(0.55).epsilon(1e-3));
  const Circuit open{2, {coil, resistor(0, 1, 1e6)}};
  const auto b = solve(open);
  REQUIRE(b.converged);
  CHECK(volts(b, 1, 0) == Approx(200.5).epsilon(1e-3));
  CHECK(std::abs(b.amps[0]) < 1e-3);  // nothing is left for the outside
}

TEST_CASE("a MOSFET has its row's resistance above the row and follows the square law below") {
  for (const double gate : {5.0, 3.0, 0.5}) {
    Branch m;
    m.kind = Kind::Mosfet;
    m.a = 1;
    m.b = 2;
    m.c = 3;
    m.v0 = 1.5;
    const Branch::Rows rows{{4.0, 0.035}, {5.0, 0.025}};
    m.rows = &rows;
    m.gain = 1 / (2 * 0.035 * 2.5);
    const Circuit c{4, {source(0, 2, 12, 0.01), resistor(0, 1, 12), m, source(3, 2, gate, 1)}};
    const auto s = solve(c);
    REQUIRE(s.converged);
    if (gate == 5.0) CHECK(volts(s, 1, 2) / s.amps[2] == Approx(0.025).epsilon(0.01));
    if (gate == 3.0) CHECK(volts(s, 1, 2) / s.amps[2] == Approx(1 / (2 * m.gain * 1.5)).epsilon(0.02));
    if (gate == 0.5) CHECK(s.amps[2] < 1e-6);
  }
}

TEST_CASE("a regulator holds its voltage, drops out, and sources only") {
  for (const double in : {12.0, 5.5}) {
    Branch r;
    r.kind = Kind::Regulator;
    r.a = 0;
    r.b = 1;
    r.c = 2;
    r.v0 = 5;
    r.drop = 1.5;
    r.r = 0.05;
    r.limit = 0.5;
    const Circuit c{3, {source(0, 2, in, 0.01), r, resistor(1, 2, 100)}};
    const auto s = solve(c);
    REQUIRE(s.converged);
    CHECK(volts(s, 1, 2) == Approx(in > 7 ? 5.0 : 4.0).epsilon(0.01));
  }
}

TEST_CASE("nodes that nothing joins have no voltage between them") {
  const Circuit c{4, {source(0, 1, 5, 1), resistor(0, 1, 100), source(2, 3, 12, 1), resistor(2, 3, 100)}};
  const auto s = solve(c);
  CHECK_FALSE(s.resistance(0, 2));
  CHECK(s.resistance(0, 1).value() == Approx(100.0 / 101).epsilon(1e-4));
}

TEST_CASE("a node that only blocking diodes hold does not wander until one of them opens") {
  const Circuit c{8,
                  {source(0, 1, 4, 0.1, 5, 0), knee(1, 0, 0.6, 0.1), knee(2, 0, 0.6, 0.1), resistor(4, 2, 31), knee(3, 2, 0.6, 0.1),
                   knee(4, 1, 0.6, 0.1), knee(3, 0, 0.6, 0.1), knee(0, 5, 0.6, 0.1), knee(3, 4, 0.6, 0.1), resistor(1, 3, 2737)}};
  const auto s = solve(c);
  REQUIRE(s.converged);
  CHECK(worstNode(c, s) < 1e-9);
}

TEST_CASE("Kirchhoff's current law holds on random networks") {
  int converged = 0;
  rc::prop("currents at every node sum to nothing", [&converged] {
    Circuit c;
    c.nodes = *rc::gen::inRange(3, 14);
    const auto node = [&] { return *rc::gen::inRange(0, c.nodes); };
    const int n = *rc::gen::inRange(3, 30);
    c.branches.push_back(source(0, 1, *rc::gen::inRange(3, 24), 0.1, 5, 0));
    for (int i = 0; i < n; ++i) {
      const int a = node();
      const int b = node();
      if (a == b) continue;
      switch (*rc::gen::inRange(0, 3)) {
        case 0:
          c.branches.push_back(resistor(a, b, *rc::gen::inRange(1, 10000)));
          break;
        case 1:
          c.branches.push_back(knee(a, b, 0.6, 0.1));
          break;
        default: {
          Branch m;
          m.kind = Kind::Saturating;
          m.a = a;
          m.b = b;
          m.r = *rc::gen::inRange(1, 50);
          m.limit = *rc::gen::inRange(1, 100) / 50.0;
          c.branches.push_back(m);
        }
      }
    }
    const auto s = solve(c);
    RC_CLASSIFY(s.converged, "converged");
    if (!s.converged) return;  // a result of its own: such a command is not judged
    converged++;
    double largest = 1e-3;
    for (const double i : s.amps) largest = std::max(largest, std::abs(i));
    // The solver's tolerance: a nanoampere a node and a millionth of what flows.
    RC_ASSERT(worstNode(c, s) < 2e-6 * largest + (c.nodes + 1) * 1e-9);
  });
  CHECK(converged > 0);
}

namespace {

const Branch::Rows kSaturation{{0.15, 0.3}, {0.5, 1.0}};
const Branch::Rows kGains{{0.001, 50}, {0.15, 100}, {0.5, 40}};
const Branch::Rows kChannel{{4.5, 0.05}, {10, 0.03}};

// A network of everything that parts are made of, as makeNetlist puts it; a transistor's current is an unknown beside the nodes.
Circuit anything() {
  Circuit c;
  const int nodes = *rc::gen::inRange(4, 14);
  c.nodes = nodes;
  const auto node = [&] { return *rc::gen::inRange(0, nodes); };
  c.branches.push_back(source(0, 1, *rc::gen::inRange(3, 24), 0.1, 5, 0));
  const int n = *rc::gen::inRange(3, 25);
  for (int i = 0; i < n; ++i) {
    Branch x;
    x.a = node();
    x.b = node();
    x.c = node();
    if (x.a == x.b || x.b == x.c || x.a == x.c) continue;
    switch (*rc::gen::inRange(0, 7)) {
      case 0:
      case 1:
        c.branches.push_back(resistor(x.a, x.b, *rc::gen::inRange(1, 10000)));
        break;
      case 2:
        c.branches.push_back(knee(x.a, x.b, 0.6, 0.1));
        break;
      case 3:
        x.kind = Kind::Saturating;
        x.c = -1;
        x.r = *rc::gen::inRange(1, 50);
        x.limit = *rc::gen::inRange(1, 100) / 50.0;
        c.branches.push_back(x);
        break;
      case 4: {
        x.sign = *rc::gen::inRange(0, 2) == 0 ? 1 : -1;
        x.v0 = 0.7;
        x.rise = *rc::gen::inRange(0, 2) * 0.4;
        x.full = 0.15;
        x.rows = &kSaturation;
        x.gains = &kGains;
        for (const auto& b : bipolar(x, x.a, x.b, x.c, c.nodes++)) c.branches.push_back(b);
        break;
      }
      case 5:
        x.kind = Kind::Mosfet;
        x.sign = *rc::gen::inRange(0, 2) == 0 ? 1 : -1;
        x.v0 = 2;
        x.gain = 4;
        x.rows = &kChannel;
        c.branches.push_back(x);
        c.branches.push_back(x.sign > 0 ? knee(x.b, x.a, 0.7, 0.05) : knee(x.a, x.b, 0.7, 0.05));
        break;
      default: {
        const int near = x.a;
        const int far = x.b;
        if (near < 2 || far < 2) continue;  // the supply's own poles
        const double limit = *rc::gen::inRange(0, 15) / 10.0;
        for (const auto& b : chopped(near, far, 1, limit, 0)) c.branches.push_back(b);
        c.branches.push_back(resistor(near, 1, 1e5));
        c.branches.push_back(resistor(far, 1, limit > 0 ? 0.25 : 1e5));
        for (const int lead : {near, far}) {
          c.branches.push_back(knee(lead, 0, 0.7, 0.1));
          c.branches.push_back(knee(1, lead, 0.7, 0.1));
        }
      }
    }
  }
  return c;
}

}  // namespace

TEST_CASE("Kirchhoff's current law holds on random networks of everything, wherever the search began") {
  rc::prop("currents at every node sum to nothing", [] {
    const auto c = anything();
    auto other = c;
    other.branches.front().v0 += 2;
    for (const auto& s : {solve(c), solve(c, solve(other))}) {
      RC_CLASSIFY(s.converged, "converged");
      if (!s.converged) continue;
      double largest = 1e-3;
      for (const double i : s.amps) largest = std::max(largest, std::abs(i));
      RC_ASSERT(worstNode(c, s) < 1e-9 * largest + (c.nodes + 1) * 2e-9);
    }
  });
}

TEST_CASE("a start near the solution gives the same solution") {
  const Circuit c{3, {source(0, 2, 12, 0.15, 3, 0), knee(0, 1, 0.7, 0.1), resistor(1, 2, 8)}};
  const auto cold = solve(c);
  const auto warm = solve(c, cold);
  CHECK(warm.passes <= 2);
  CHECK(volts(warm, 1, 2) == Approx(volts(cold, 1, 2)).epsilon(1e-6));
}

namespace {

// A converter from node `in` to `out` against `ground`: its law, what it gives, what it draws. The unknown is `current`.
std::array<Branch, 3> converter(int in, int out, int ground, int current, double set, double drop, double gain, double limit,
                                double inputLimit) {
  Branch law;
  law.kind = Kind::Converter;
  law.a = current;
  law.b = out;
  law.c = in;
  law.d = ground;
  law.v0 = set;
  law.r = 0.05;
  law.drop = drop;
  law.gain = gain;
  law.ron = gain > 1 ? set / gain : drop + 0.5;
  law.efficiency = 0.9;
  law.limit = limit;
  law.limit2 = inputLimit;
  Branch given;
  given.kind = Kind::Given;
  given.a = ground;
  given.b = out;
  given.d = current;
  Branch draw = law;
  draw.kind = Kind::PowerDraw;
  draw.a = in;
  draw.b = ground;
  draw.c = out;
  draw.d = current;
  return {law, given, draw};
}

// A supply, a converter and a load: volts and amps at both sides.
struct Converted {
  double in, out, taken, given;
};
Converted converted(double volts, double ohms, std::array<Branch, 3> c, double load) {
  Circuit circuit{4, {source(0, 2, volts, ohms), resistor(1, 2, load)}};
  circuit.branches.insert(circuit.branches.end(), c.begin(), c.end());
  const auto s = solve(circuit);
  REQUIRE(s.converged);
  return {s.volts[0] - s.volts[2], s.volts[1] - s.volts[2], s.amps[4], s.amps[3]};
}

}  // namespace

TEST_CASE("a converter takes at its input what it gives, over its efficiency") {
  const auto down = converted(12, 0.1, converter(0, 1, 2, 3, 5, 1, 1, 3, 0), 5);
  CHECK(down.out == Approx(5).epsilon(0.02));
  CHECK(down.given == Approx(down.out / 5).epsilon(1e-3));
  CHECK(down.taken * down.in * 0.9 == Approx(down.given * down.out).epsilon(1e-3));
  CHECK(down.in == Approx(12 - 0.1 * down.taken).epsilon(1e-6));
  const auto up = converted(3.7, 0.1, converter(0, 1, 2, 3, 12, 0, 6, 2, 0), 40);
  CHECK(up.out == Approx(12).epsilon(0.02));
  CHECK(up.taken == Approx(up.out * up.out / 40 / 0.9 / up.in).epsilon(1e-3));
}

TEST_CASE("a converter whose input is too low follows it, one at its limit gives no more") {
  const auto low = converted(5, 0.01, converter(0, 1, 2, 3, 5, 1.5, 1, 3, 0), 10);
  CHECK(low.out == Approx(3.5).epsilon(0.02));
  const auto limited = converted(12, 0.01, converter(0, 1, 2, 3, 5, 1, 1, 1, 0), 2);
  CHECK(limited.given == Approx(1).epsilon(0.01));
  CHECK(limited.out == Approx(2).epsilon(0.02));
  // 2 A through its switch at 3.7 V make 0.555 A at 12 V: into 10 ohm the voltage gives way until the power balances.
  const auto through = converted(3.7, 0.01, converter(0, 1, 2, 3, 12, 0, 6, 5, 2), 10);
  CHECK(through.taken == Approx(2).epsilon(0.02));
  CHECK(through.given * through.out == Approx(2 * through.in * 0.9).epsilon(0.02));
  CHECK(through.out < 9);
}

TEST_CASE("a supply too weak for a converter's power is drawn down until both agree") {
  const auto weak = converted(4, 2, converter(0, 1, 2, 3, 12, 0, 6, 2, 0), 20);  // 7.2 W wanted, 2 W to be had
  CHECK(weak.in < 2.6);
  CHECK(weak.out < 12);
  CHECK(weak.given * weak.out == Approx(0.9 * weak.taken * weak.in).epsilon(1e-3));
}
