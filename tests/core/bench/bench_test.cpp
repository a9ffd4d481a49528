#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "core/bench/queries.h"
#include "support/benches.h"
#include "support/generate.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::test;

namespace {

double winding(const SolvedBench& s, const OperatingPoint& p, int motor) {
  return p.element(s.motors[motor].device, s.motors[motor].windings[0]).value;
}

// Everything that is said, with its numbers.
std::map<std::string, std::map<std::string, AnyQuantity>> said(const Analysis& a) {
  std::map<std::string, std::map<std::string, AnyQuantity>> out;
  for (const auto& f : a.findings) out[f.identity()] = f.args;
  return out;
}

}  // namespace

TEST_CASE("every command of every good bench and of both demos is solved") {
  auto names = goodNames();
  for (const auto& name : names) {
    INFO(name);
    const auto s = solved(good(name));
    for (const auto& p : s->points) {
      INFO(p->command().title);
      CHECK(p->solved());
    }
  }
  for (const auto* demo : {"demo/wave-tank.bench", "demo/wave-tank-first-try.bench"}) {
    const auto s = solved(wiredBench(readFile(demo)));
    CHECK(s->points.size() > 25);
    for (const auto& p : s->points) CHECK(p->solved());
  }
}

TEST_CASE("worked figure: a plastic gearmotor on a bridge module and four cells stalls at about 0.8 A") {
  const auto s = solved(good("bridge"));
  const auto* p = s->point(0, Action::Forward, Moment::Stalled, Corner::Full);
  REQUIRE(p);
  CHECK(winding(*s, *p, 0) == Approx(0.72).margin(0.12));
}

TEST_CASE("worked figure: a stepper held at 1.06 A a coil draws a fraction of that from a 12 V supply") {
  const auto s = solved(good("step-dir"));
  const auto* p = s->running(0, Corner::Nominal);
  REQUIRE(p);
  const auto& pole = s->nets.sources()[1];
  const double supply = p->element(pole.device, pole.element).value;
  // Both coils: 2 x 1.06^2 x (1.65 + 0.75) W of heat, over 12 V.
  CHECK(supply == Approx(2 * 1.06 * 1.06 * (1.65 + 0.75) / 12).epsilon(0.1));
  CHECK(std::abs(winding(*s, *p, 0)) == Approx(1.5 * 0.7071).epsilon(0.02));
}

TEST_CASE("a low-side switch gives its motor nearly the whole supply") {
  const auto s = solved(good("low-side"));
  const auto* p = s->running(0, Corner::Nominal);
  REQUIRE(p);
  const auto& w = windingOf(s->bench, s->motors[0], 0);
  const auto v = p->across(s->bench.terminal(s->motors[0].device, w.a), s->bench.terminal(s->motors[0].device, w.b));
  CHECK(v->value == Approx(12 - 0.6 * (0.15 + 0.09 + 0.03)).margin(0.1));
  CHECK(winding(*s, *p, 0) == Approx(0.6).epsilon(0.03));
}

TEST_CASE("a bridge does what its truth table says, through the wires") {
  const auto s = solved(good("bridge"));
  for (const auto& p : s->points) {
    const auto& c = p->command();
    if (c.motor != 0 || c.moment != Moment::Running || p->corner() != Corner::Nominal) continue;
    INFO(c.title);
    const auto d = p->doing(0);
    if (c.action == Action::Forward) CHECK(d == Doing::Forward);
    if (c.action == Action::Reverse) CHECK(d == Doing::Reverse);
    if (c.action == Action::Brake) CHECK(d == Doing::Brake);
    if (c.action == Action::Coast) CHECK(d == Doing::Coast);
  }
}

TEST_CASE("a stepper on two bridges is meant for both, whether or not the plan names pins") {
  for (const bool planned : {true, false}) {
    auto h = good("stepper-bridges");
    if (!planned) {
      h.goals.clear();
      h.assignments.clear();
      h.program.clear();
    }
    const auto s = solved(h);
    REQUIRE(meantChannels(s->bench, s->motors[0]).size() == 2);
    CHECK(s->bench.address(inputOf(s->bench, s->motors[0], "in3")) == "s1.IN3");
    const auto* p = s->running(0, Corner::Nominal);
    REQUIRE(p);
    CHECK(p->doing(0) == Doing::Energised);
    // 12 V less the bridge's drop over 30 ohm in each coil.
    for (const int w : s->motors[0].windings) CHECK(std::abs(p->element(s->motors[0].device, w).value) == Approx(0.34).margin(0.03));
  }
}

TEST_CASE("an input that nothing holds has no level") {
  const auto s = solved(wiredBench("from step-dir\nunwire s1.RST s1.SLP"));
  const auto* p = s->running(0, Corner::Nominal);
  REQUIRE(p);
  CHECK(p->level(s->bench.terminal({"s1", "RST"})) == parts::Level::Undefined);
  CHECK(p->level(s->bench.terminal({"s1", "MS1"})) == parts::Level::Low);
  CHECK(p->level(s->bench.terminal({"s1", "SLP"})) == parts::Level::High);
  CHECK(p->doing(0) == Doing::Undecided);
}

TEST_CASE("a pull-down holds an input that a floating pin lets go") {
  const auto s = solved(good("tb6612"));
  const auto* boot = s->point(Action::Boot, Corner::Nominal);
  REQUIRE(boot);
  CHECK(boot->level(s->bench.terminal({"s1", "STBY"})) == parts::Level::Low);
}

TEST_CASE("current that leaves a source comes back to it") {
  for (const auto& name : goodNames()) {
    const auto s = solved(good(name));
    for (const auto& p : s->points) {
      if (!p->solved() || p->command().moment == Moment::JustOpened) continue;
      for (const auto& pole : s->nets.sources()) {
        const double out = bench::leaving(*s, *p, pole.positive).value;
        const double in = -bench::leaving(*s, *p, pole.negative).value;
        INFO(name << ": " << p->command().title);
        CHECK(out == Approx(in).epsilon(1e-6).margin(1e-6));
      }
    }
  }
}

TEST_CASE("a wire's resistance follows from gauge, length and contacts") {
  const auto b = makeBench(
      wiredBench(
          "part a resistor\npart b resistor\npart x terminal-block-4\nwire a.A b.A 22AWG 1m\nwire a.B b.B\nwire x.1A a.A\njumper a.A b.B"),
      library());
  // Legs are soldered, blocks screwed: a milliohm each. A header pin has 10 to 20.
  CHECK(b.links[0].resistance.expected.value == Approx(0.053 + 0.002).epsilon(0.02));
  CHECK(b.links[1].resistance.expected.value == Approx(0.053 * 0.3 + 0.002).epsilon(0.02));
  CHECK(b.links[2].resistance.expected.value == Approx(0.053 * 0.3 + 0.002).epsilon(0.02));
  CHECK(b.links[3].resistance.expected.value == 0.001);
  const auto pin = makeBench(wiredBench("part u board-uno-atmega328p\npart b resistor\nwire u.D9 b.A"), library());
  CHECK(pin.links[0].resistance.expected.value == Approx(0.213 * 0.2 + 0.016).epsilon(0.02));
  CHECK(pin.links[0].resistance.least.value == Approx(0.213 * 0.2 + 0.011).epsilon(0.02));
  CHECK(pin.links[0].resistance.greatest.value == Approx(0.213 * 0.2 + 0.021).epsilon(0.02));
  const auto row = makeBench(wiredBench("part bb breadboard-half\npart r resistor\nplug r.A bb.a1"), library());
  CHECK(row.links[0].resistance.least.value == 0.010);
  CHECK(row.links[0].resistance.greatest.value == 0.050);
}

TEST_CASE("a plug joins poles by position, mirrored when put in the other way round") {
  const auto straight = makeBench(good("array"), library());
  const Nets nets(straight);
  CHECK(nets.same(straight.terminal({"m", "COM"}), straight.terminal({"s1", "COMMON"})));
  CHECK(nets.same(straight.terminal({"m", "BLUE"}), straight.terminal({"s1", "A"})));
  auto h = good("array");
  h.connections.back().mirrored = true;
  const auto turned = makeBench(h, library());
  const Nets other(turned);
  CHECK(other.same(turned.terminal({"m", "COM"}), turned.terminal({"s1", "A"})));
}

TEST_CASE("breadboard rows join five holes, and the two sides stay apart") {
  const auto b = makeBench(wiredBench("part bb breadboard-half"), library());
  const Nets nets(b);
  CHECK(nets.same(b.terminal({"bb", "a7"}), b.terminal({"bb", "e7"})));
  CHECK_FALSE(nets.same(b.terminal({"bb", "e7"}), b.terminal({"bb", "f7"})));
  CHECK_FALSE(nets.same(b.terminal({"bb", "a7"}), b.terminal({"bb", "a8"})));
  CHECK(nets.same(b.terminal({"bb", "tp1"}), b.terminal({"bb", "tp25"})));
  CHECK_FALSE(nets.same(b.terminal({"bb", "tp1"}), b.terminal({"bb", "bp1"})));
}

TEST_CASE("connections in any order give the same findings") {
  rc::prop("order is no evidence", [] {
    auto h = *generatedBench();
    const auto before = said(analyseFast(h));
    for (std::size_t i = h.connections.size(); i > 1; --i)
      std::swap(h.connections[i - 1], h.connections[*rc::gen::inRange<std::size_t>(0, i)]);
    const auto after = said(analyseFast(h));
    RC_ASSERT(before.size() == after.size());
    for (const auto& [identity, args] : before) {
      RC_ASSERT(after.contains(identity));
      for (const auto& [name, q] : args)
        RC_ASSERT(std::abs(after.at(identity).at(name).value - q.value) <= 1e-9 * std::max(1.0, std::abs(q.value)));
    }
  });
}

TEST_CASE("an analysis with a previous one equals one without") {
  rc::prop("previous only saves work", [] {
    const auto h = *generatedBench();
    const auto first = analyseFast(h);
    Options o;
    o.explain = false;
    const auto again = analyse(h, library(), o, &first);
    RC_ASSERT(said(first).size() == said(again).size());
    RC_ASSERT(first.verdict == again.verdict);
  });
}

TEST_CASE("a cancelled analysis says nothing") {
  Options o;
  o.cancelled = [] { return true; };
  const auto a = analyse(good("bridge"), library(), o);
  CHECK(a.verdict == Verdict::NotJudged);
  CHECK(a.findings.empty());
  CHECK_FALSE(a.solved);
}

TEST_CASE("a connector in a motor's lead takes what its contacts take") {
  // Worked out by hand: 12 V over 14 ohm and two contacts of 0.3 ohm, against two of 10 milliohm.
  const auto stalled = [](const std::string& more) {
    const auto s = solved(wiredBench("from daq-connector\n" + more));
    const auto* p = s->point(0, Action::Forward, Moment::Stalled, Corner::Nominal);
    REQUIRE(p);
    return winding(*s, *p, 0);
  };
  const double good = stalled("figure j1.resistance 10 mohm");
  const double poor = stalled("figure j1.resistance 300 mohm");
  CHECK(good > 0.75);
  const double around = 12.0 / good;  // everything in the loop
  CHECK(poor == Approx(12.0 / (around + 2 * 0.29)).epsilon(0.01));
}
