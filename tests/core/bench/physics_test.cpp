#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>
#include <tuple>

#include "core/bench/netlist.h"
#include "core/bench/queries.h"
#include "support/benches.h"
#include "support/generate.h"
#include "support/reference_solver.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::solver;
using namespace bold::test;

// The operating points held against what is known without them.
namespace {

double amps(const SolvedBench& s, const OperatingPoint& p, int motor = 0) {
  const auto& m = s.motors[motor];
  return p.element(m.device, m.windings[0]).value;
}
double volts(const SolvedBench& s, const OperatingPoint& p, const char* a, const char* b) {
  const auto v = p.across(s.bench.terminal(*parseAddress(a)), s.bench.terminal(*parseAddress(b)));
  REQUIRE(v);
  return v->value;
}

// The sum of currents at every node against the largest that meets there.
double worstNode(const Behind& b) {
  std::vector<double> sum(static_cast<std::size_t>(b.circuit.nodes), 0);
  std::vector<double> largest(sum.size(), 0);
  for (std::size_t k = 0; k < b.circuit.branches.size(); ++k) {
    const double i = b.solution.amps[k];
    const auto a = static_cast<std::size_t>(b.circuit.branches[k].a);
    const auto z = static_cast<std::size_t>(b.circuit.branches[k].b);
    sum[a] += i;
    sum[z] -= i;
    largest[a] = std::max(largest[a], std::abs(i));
    largest[z] = std::max(largest[z], std::abs(i));
  }
  double worst = 0;
  // Besides rounding the solver lets a nanoampere stand at nodes that only open semiconductors hold.
  for (std::size_t n = 0; n < sum.size(); ++n) worst = std::max(worst, (std::abs(sum[n]) - 2e-9) / std::max(largest[n], 1e-6));
  return worst;
}

// What the sources give less what everything else takes, against the larger of the two; but for a nanoampere at up to 20 V.
double powerOff(const Behind& b) {
  double given = 0;
  double taken = 0;
  for (std::size_t k = 0; k < b.circuit.branches.size(); ++k) {
    const auto& branch = b.circuit.branches[k];
    const double v = b.solution.volts[branch.a] - b.solution.volts[branch.b];
    const double watts = v * b.solution.amps[k];
    (watts < 0 ? given : taken) += std::abs(watts);
  }
  return (std::abs(given - taken) - 2e-8) / std::max({given, taken, 1e-6});
}

void load(solver::Circuit& c, int a, int b) {
  Branch bleeder;
  bleeder.a = a;
  bleeder.b = b;
  bleeder.g = 1e-5;
  c.branches.push_back(bleeder);
}

}  // namespace

TEST_CASE("a bipolar bridge takes its two voltages and its resistance, whatever the current") {
  for (const char* winding : {"4 ohm", "8 ohm", "30 ohm"}) {
    const auto s = solved(wiredBench(std::string("from bridge\nfigure left.winding ") + winding));
    const auto* p = s->point(0, Action::Forward, Moment::Stalled, Corner::Full);
    REQUIRE(p);
    const double i = amps(*s, *p);
    CHECK(volts(*s, *p, "s1.12V", "s1.GND") - volts(*s, *p, "s1.OUT1", "s1.OUT2") == Approx(0.70 + 0.70 + (0.65 + 0.50) * i).margin(0.01));
  }
}

TEST_CASE("a stalled motor takes open voltage less the bridge over everything in its way") {
  const auto s = solved(wiredBench("from bridge\nunwire s1.OUT3 right.P\nunwire s1.OUT4 right.N\nremove right"));
  const auto* p = s->point(0, Action::Forward, Moment::Stalled, Corner::Full);
  REQUIRE(p);
  // I = (V_open - V0) / (R_source + R_wires + R_stage + R_winding), the module's own 40 mA shared out beside it.
  const auto& source = bench::sourceBody(s->bench, *bench::sourceAt(*s, s->bench.terminal(*parseAddress("bat.P")), true));
  double wires = 0;
  for (const auto& l : s->bench.links) {
    const auto a = s->bench.address(l.a);
    const auto b = s->bench.address(l.b);
    if (a.starts_with("bat") || b.starts_with("bat") || a.starts_with("left") || b.starts_with("left"))
      wires += l.resistance.expected.value;
  }
  const double open = *source.full.typical() - 0.04 * *source.resistance.typical();
  const double expected = (open - 1.4) / (*source.resistance.typical() + wires + 1.15 + 4);
  CHECK(amps(*s, *p) == Approx(expected).epsilon(0.01));
}

TEST_CASE("a braking motor drives its own voltage through its winding and the stage") {
  const auto s = solved(good("tb6612"));
  const auto* run = s->running(0, Corner::Full);
  const auto* p = s->point(0, Action::Brake, Moment::Running, Corner::Nominal);
  REQUIRE(run);
  REQUIRE(p);
  const double emf = volts(*s, *run, "left.P", "left.N") - amps(*s, *run) * 8;
  const double wires = volts(*s, *p, "s1.AO1", "left.P") + volts(*s, *p, "left.N", "s1.AO2");
  CHECK(std::abs(amps(*s, *p)) == Approx((emf - std::abs(wires)) / (8 + 0.25 + 0.25)).epsilon(0.01));
}

TEST_CASE("a motor turned round takes the sum of supply and its own voltage") {
  const auto s = solved(good("tb6612"));
  const auto* run = s->running(0, Corner::Full);
  const auto* p = s->point(0, Action::Reverse, Moment::Reversing, Corner::Full);
  REQUIRE(run);
  REQUIRE(p);
  const double emf = volts(*s, *run, "left.P", "left.N") - amps(*s, *run) * 8;
  CHECK(std::abs(amps(*s, *p)) == Approx((emf - volts(*s, *p, "left.P", "left.N")) / 8).epsilon(0.001));
  CHECK(std::abs(amps(*s, *p)) > 1.5 * std::abs(amps(*s, *s->point(0, Action::Forward, Moment::Stalled, Corner::Full))));
}

TEST_CASE("a chopper draws what its coils, its switches and itself turn into heat") {
  const auto s = solved(good("step-dir"));
  const auto* p = s->running(0, Corner::Nominal);
  REQUIRE(p);
  const int stage = s->bench.deviceIndex("s1");
  const auto& part = *s->bench.devices[stage].part;
  for (std::size_t e = 0; e < part.elements.size(); ++e) {
    const auto* c = std::get_if<parts::Chopper>(&part.elements[e].body);
    if (!c) continue;
    double watts = *c->quiescent.typical() * volts(*s, *p, "s1.VMOT", "s1.GND");
    for (int k = 0; k < 2; ++k) {
      const double i = p->coil(stage, static_cast<int>(e), k).value;
      CHECK(i == Approx(1.5 * 0.7071).epsilon(0.01));
      const auto v = p->across(s->bench.terminal(stage, c->coils[k].first), s->bench.terminal(stage, c->coils[k].second));
      watts += v->value * i + i * i * *c->rds.typical();
    }
    const double drawn = p->element(stage, static_cast<int>(e)).value;
    CHECK(drawn * volts(*s, *p, "s1.VMOT", "s1.GND") == Approx(watts).epsilon(1e-5));
    CHECK(drawn < 0.6);  // far less than the 2.1 A in the coils together
  }
}

TEST_CASE("a transistor of one's own without saturation rows is taken for a common one") {
  for (const auto& [shipped, where, least, most] :
       {std::tuple{"npn-pn2222a", "npn", 0.3, 1.2}, {"darlington-tip120", "darlington", 0.7, 2.0}}) {
    auto json = *library().json(shipped);
    json["id"] = "mine";
    for (auto& e : json["elements"]) e.erase("saturation");
    auto own = library();
    std::vector<Problem> problems;
    own.addOwn({{"mine.json", jsonText(json)}}, problems);
    REQUIRE(problems.empty());
    auto h = good(where);
    for (auto& d : h.devices)
      if (d.part == shipped) d.part = "mine";
    CHECK(std::ranges::count_if(analyse(h, own).assumptions, [](const std::string& a) { return a.starts_with("q1 without saturation"); }) ==
          1);
    const auto s = solveBench(makeBench(h, own), {});
    for (const auto moment : {Moment::Running, Moment::Stalled}) {
      const auto* p = s->point(0, Action::Forward, moment, Corner::Nominal);
      REQUIRE(p);
      INFO(shipped << ", " << amps(*s, *p) << " A");
      CHECK(volts(*s, *p, "q1.C", "q1.E") > least);
      CHECK(volts(*s, *p, "q1.C", "q1.E") < most);
    }
  }
}

TEST_CASE("the weak corner gives less and the strong one more than the expected one") {
  for (const auto& name : goodNames()) {
    const auto s = solved(good(name));
    for (std::size_t m = 0; m < s->motors.size(); ++m) {
      const auto at = [&](Corner c) {
        const auto* p = s->point(static_cast<int>(m), Action::Forward, Moment::Stalled, c);
        return p ? std::optional(std::abs(amps(*s, *p, static_cast<int>(m)))) : std::nullopt;
      };
      if (s->motors[m].kind != MotorKind::TwoLead || !at(Corner::Empty) || !at(Corner::Strong)) continue;
      INFO(name);
      CHECK(*at(Corner::Empty) <= *at(Corner::Nominal) + 1e-6);
      CHECK(*at(Corner::Strong) >= *at(Corner::Full) - 1e-6);
    }
  }
}

TEST_CASE("Kirchhoff's laws hold to 1e-9 and no power is lost on any command of any good bench") {
  for (const auto& name : goodNames()) {
    const auto s = solved(good(name));
    for (const auto& p : s->points) {
      INFO(name << ", " << p->command().title);
      REQUIRE(p->solved());
      CHECK(worstNode(behind(*p)) < 1e-9);
      CHECK(powerOff(behind(*p)) < 1e-8);
    }
  }
}

TEST_CASE("Kirchhoff's laws hold to 1e-9 and no power is lost on generated benches") {
  rc::prop("currents and power balance", [] {
    const auto s = solved(*generatedBench());
    for (const auto& p : s->points) {
      if (!p->solved()) continue;
      RC_ASSERT(worstNode(behind(*p)) < 1e-9);
      RC_ASSERT(powerOff(behind(*p)) < 1e-8);
    }
  });
}

TEST_CASE("a second solver of another kind finds the same voltages on the good benches") {
  int compared = 0;
  for (const auto& name : {"bridge", "npn", "low-side", "pmos-5v", "darlington", "step-dir-3v3", "array"}) {
    const auto s = solved(good(name));
    for (const auto& p : s->points) {
      if (p->corner() != Corner::Nominal) continue;
      // Every supply and regulator gets a little to feed: what nothing loads may stand anywhere.
      auto circuit = behind(*p).circuit;
      const auto n = circuit.branches.size();
      for (std::size_t k = 0; k < n; ++k) {
        const auto x = circuit.branches[k];
        if (x.kind == Branch::Kind::Source) load(circuit, x.a, x.b);
        if (x.kind == Branch::Kind::Regulator) {
          load(circuit, x.a, x.c);
          load(circuit, x.b, x.c);
        }
      }
      const auto solution = solver::solve(circuit);
      REQUIRE(solution.converged);
      const auto r = solveByCharging(circuit);
      INFO(name << ", " << p->command().title);
      if (!r.settled) continue;
      ++compared;
      for (std::size_t k = 0; k < r.volts.size(); ++k) {
        // Where only open semiconductors hold a node, its voltage means nothing.
        const auto root = static_cast<std::size_t>(solution.island[k]);
        const auto held = solution.resistance(static_cast<int>(k), solution.island[k]);
        if (!held || *held > 1e6) continue;
        CHECK(r.volts[k] - r.volts[root] == Approx(solution.volts[k] - solution.volts[root]).margin(2e-4));
      }
    }
  }
  CHECK(compared > 40);
}

TEST_CASE("a bridge of bipolar transistors whose pins float at boot is solved, and off") {
  const auto s = solved(good("bridge-loose-bjt"));
  const auto* boot = s->point(Action::Boot, Corner::Nominal);
  REQUIRE(boot);
  CHECK(boot->doing(0) == Doing::Coast);
  for (const auto* q : {"q1", "q2", "q3", "q4"}) {
    const int d = s->bench.deviceIndex(q);
    CHECK(std::abs(boot->element(d, 0).value) < 1e-6);
  }
}
