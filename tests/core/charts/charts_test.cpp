#include <catch2/catch.hpp>
#include <cmath>

#include "core/charts/bridge_state.h"
#include "core/charts/flyback_curve.h"
#include "core/charts/heat_curve.h"
#include "core/charts/level_ladder.h"
#include "core/charts/sag_curve.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::charts;
using namespace bold::test;

namespace {
std::unique_ptr<SolvedBench> solved(const std::string& text) {
  return solveBench(makeBench(wiredBench(text), library()), {});
}
double top(const Series& s) {
  return *std::max_element(s.y.begin(), s.y.end());
}
}  // namespace

TEST_CASE("an opened winding with a clamp rises by the clamp's voltage and no further") {
  // 2 mH, 5 ohm, 12 V, 1 A, clamp 0.8 V above the supply: 12.8 V plus half an ohm's drop.
  const auto s = openingTransient({2e-3, 5, 12, 1, 0.8, 300e-12}, 2e-3, 4000);
  CHECK(top(s) == Approx(12.8 + 0.5).margin(0.1));
}

TEST_CASE("the clamped current dies as L di/dt = -(clamp + R i) says") {
  // i reaches zero at t = L/R ln(1 + R I / Vc): 2 mH / 5 ohm x ln(1 + 5/0.8) = 0.79 ms (clamp resistance left out).
  const auto s = openingTransient({2e-3, 5, 12, 1, 0.8, 300e-12}, 2e-3, 8000);
  double until = 0;
  for (std::size_t k = 0; k < s.x.size(); ++k)
    if (s.y[k] > 12.75) until = s.x[k];
  CHECK(until == Approx(2e-3 / 5 * std::log(1 + 5 / 0.8)).epsilon(0.08));
}

TEST_CASE("without a clamp the pulse ends where the switch gives way") {
  const auto s = openingTransient({2e-3, 5, 12, 1, 48, 300e-12}, 2e-4, 4000);
  CHECK(top(s) == Approx(60.5).margin(0.6));
}

TEST_CASE("a small winding rings up by its energy: half L I squared into half C V squared") {
  // 1 uH, 0.1 A into 300 pF: V = I sqrt(L/C) = 5.8 V above the 12 V supply (the damping of the method takes some).
  const auto s = openingTransient({1e-6, 0.01, 12, 0.1, 1000, 300e-12}, 1e-7, 20000);
  CHECK(top(s) == Approx(12 + std::hypot(12, 0.1 * std::sqrt(1e-6 / 300e-12))).epsilon(0.03));
}

TEST_CASE("the flyback curve of a bench tells the clamped from the open winding") {
  const auto clamped = solved("from low-side");
  const auto c = flybackCurve(*clamped, 0);
  REQUIRE(c);
  REQUIRE(c->series.size() == 2);
  CHECK(c->series[0].name == "as wired, clamped");
  CHECK(top(c->series[0]) < 14);
  CHECK(top(c->series[1]) > 50);  // an IRLZ44N gives way at 55 V
  const auto open = solved("from low-side\nremove d1");
  const auto o = flybackCurve(*open, 0);
  REQUIRE(o);
  CHECK(o->series[1].name == "as wired, nothing clamps");
}

TEST_CASE("no flyback curve without inductance or with more than one winding") {
  CHECK_FALSE(flybackCurve(*solved("from step-dir"), 0));
}

TEST_CASE("the junction warms up by its time constant to what the checks say") {
  const auto s = solved("from bridge");
  const auto c = heatCurve(*s, 0);
  REQUIRE(c);
  const auto& line = c->series.front();
  CHECK(line.y.front() > 30);
  CHECK(line.y.back() > line.y.front());
  // After three time constants 95 % of the way is done: one third of the axis holds 63 % of the whole.
  const double whole = (line.y.back() - line.y.front()) / (1 - std::exp(-3.0));
  const auto third = line.y[line.y.size() / 3];
  CHECK((third - line.y.front()) / whole == Approx(1 - std::exp(-1.0)).margin(0.02));
}

TEST_CASE("reaches finds the first crossing, or none") {
  const Series s{"", {0, 1, 2, 3}, {10, 20, 30, 40}};
  CHECK(reaches(s, 25) == 2.0);
  CHECK_FALSE(reaches(s, 50));
}

TEST_CASE("the supply sags at the start by its resistance times the current, and comes back") {
  const auto s = solved("from bridge");
  const auto c = sagCurve(*s, 0);
  REQUIRE(c);
  for (const auto& line : c->series) {
    const double before = line.y[0];
    const double start = line.y[2];
    CHECK(start < before);
    CHECK(line.y.back() > start);
    CHECK(line.y.back() < before);
  }
  REQUIRE(c->series.size() == 2);                // empty cells do not wake the bridge
  CHECK(c->series[0].y[2] > c->series[1].y[2]);  // full above nominal
}

TEST_CASE("the ladder holds what arrives at an input and what it needs") {
  const auto s = solved("from bridge");
  const auto rungs = levelLadder(*s);
  REQUIRE_FALSE(rungs.empty());
  for (const auto& r : rungs) {
    INFO(r.from << " to " << r.to);
    REQUIRE(r.high);
    REQUIRE(r.low);
    CHECK(r.high->value > r.needsHigh.value);
    CHECK(r.low->value < r.needsLow.value);
    CHECK(r.needsLow.value < r.needsHigh.value);
  }
}

TEST_CASE("a 3.3 V pin on a 5 V CMOS input shows as a high below what is needed") {
  const auto s = solved("from step-dir-3v3\nmove uno.3V3 usb.P");
  bool low = false;
  for (const auto& r : levelLadder(*s)) low = low || (r.high && r.high->value < r.needsHigh.value);
  CHECK(low);
}

TEST_CASE("the bridge figure shows one high and one low switch on while running, both low while braking") {
  const auto s = solved("from bridge");
  const auto* run = s->point(0, Action::Forward, Moment::Running, Corner::Full);
  REQUIRE(run);
  const auto b = bridgeState(*s, 0, *run);
  REQUIRE(b);
  REQUIRE(b->legs.size() == 2);
  CHECK((b->legs[0].high == true) != (b->legs[1].high == true));
  CHECK((b->legs[0].low == true) != (b->legs[1].low == true));
  CHECK_FALSE(b->shootThrough);
  CHECK(std::abs(b->motorCurrent.value) > 0.1);
  const auto* brake = s->point(0, Action::Brake, Moment::Running, Corner::Nominal);
  REQUIRE(brake);
  const auto k = bridgeState(*s, 0, *brake);
  REQUIRE(k);
  CHECK((k->legs[0].high == k->legs[1].high));
  CHECK((k->legs[0].low == k->legs[1].low));
}

TEST_CASE("the bridge figure of half a bridge has one leg, that of single switches a leg a coil") {
  const auto s = solved("from l293d-one-way");
  for (const int m : {0, 1}) {
    const auto* run = s->point(m, Action::Forward, Moment::Running, Corner::Full);
    REQUIRE(run);
    const auto b = bridgeState(*s, m, *run);
    REQUIRE(b);
    REQUIRE(b->legs.size() == 1);
    CHECK(b->legs[0].output == (m == 0 ? "1Y" : "2Y"));
    CHECK(b->legs[0].high == true);
    CHECK(b->legs[0].low == false);
    CHECK(b->toReturn);
    CHECK(b->motorCurrent.value == Approx(0.2).epsilon(0.01));
  }
  const auto stepper = solved("from stepper-mosfets");
  const auto* step = stepper->point(0, Action::Step, Moment::Running, Corner::Nominal, 1);
  REQUIRE(step);
  const auto b = bridgeState(*stepper, 0, *step);
  REQUIRE(b);
  CHECK(b->stage == "q1, q2, q3, q4");
  std::vector<bool> on;
  for (const auto& leg : b->legs) on.push_back(leg.low == true);
  CHECK(on == std::vector<bool>{false, true, true, false});
}

TEST_CASE("a motor without a stage has no bridge figure") {
  const auto s = solved("from servo");
  CHECK_FALSE(bridgeState(*s, 0, *s->points.front()));
}
