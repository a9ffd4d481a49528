#include "core/bench/cells.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <map>

#include "core/bench/solved_bench.h"
#include "core/checks/judged_bench.h"
#include "core/checks/program/on_bench.h"
#include "support/benches.h"
#include "support/generate.h"
#include "support/mutants.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::test;

namespace {

std::size_t cellsIn(const harness::Harness& h) {
  return cellsOf(h, library()).parts.size();
}

// Everything that is said, with its sentence.
std::map<std::string, std::string> said(const checks::Findings& findings) {
  std::map<std::string, std::string> out;
  for (const auto& f : findings) out[f.identity()] = f.headline + " " + f.text;
  return out;
}
std::map<std::string, std::string> saidOfTheWhole(const harness::Harness& h) {
  const auto solved = solveBench(makeBench(h, library()), {});
  const checks::ProgramOnBench program(*solved);
  std::map<std::string, std::string> out;
  for (const auto& c : checks::registry())
    for (auto f : c.run(*solved, program).findings) {
      f.check = c.id;
      out[f.identity()] = f.headline + " " + f.text;
    }
  return out;
}
std::map<std::string, std::string> saidOfCells(const harness::Harness& h) {
  return said(judge(h, library(), {})->findings());
}

// Every margin: its value and how much of the way to its limit is used.
struct Measured {
  std::optional<double> value, used;

  bool near(const Measured& o) const { return near(value, o.value) && near(used, o.used); }
  static bool near(std::optional<double> a, std::optional<double> b) {
    return a.has_value() == b.has_value() && (!a || std::abs(*a - *b) <= 1e-3 * std::max({std::abs(*a), std::abs(*b), 1e-3}));
  }
};
std::map<std::string, Measured> measured(const checks::Margins& margins) {
  std::map<std::string, Measured> out;
  for (const auto& m : margins) out.emplace(m.identity(), Measured{m.value, m.used()});
  return out;
}
std::map<std::string, Measured> measuredOfTheWhole(const harness::Harness& h) {
  const auto solved = solveBench(makeBench(h, library()), {});
  const checks::ProgramOnBench program(*solved);
  checks::Margins all;
  for (const auto& c : checks::registry())
    for (auto& m : c.run(*solved, program).margins) {
      m.check = c.id;
      all.push_back(std::move(m));
    }
  return measured(all);
}
// Margins that cells and whole do not have alike.
std::string marginDifference(const harness::Harness& h) {
  const auto cells = measured(judge(h, library(), {})->margins());
  const auto whole = measuredOfTheWhole(h);
  std::string out;
  for (const auto& [id, m] : cells)
    if (const auto it = whole.find(id); it == whole.end() || !it->second.near(m))
      out += "\ncells: " + id + " " + std::to_string(m.value.value_or(-1));
  for (const auto& [id, m] : whole)
    if (const auto it = cells.find(id); it == cells.end() || !it->second.near(m))
      out += "\nwhole: " + id + " " + std::to_string(m.value.value_or(-1));
  return out;
}

// What is said of one and not of the other; empty when they agree.
std::string difference(const harness::Harness& h) {
  const auto cells = saidOfCells(h);
  const auto whole = saidOfTheWhole(h);
  std::string out;
  for (const auto& [id, text] : cells)
    if (const auto it = whole.find(id); it == whole.end() || it->second != text) out += "\ncells: " + id + ": " + text;
  for (const auto& [id, text] : whole)
    if (const auto it = cells.find(id); it == cells.end() || it->second != text) out += "\nwhole: " + id + ": " + text;
  return out;
}

// Two lanes with their own supplies.
const std::string kTwo = R"(
part p1 adapter-12v-2a
part m1 brushed-gear25-12v
part q1 nmos-irlz44n
part d1 diode-1n5822
part u1 board-uno-atmega328p
part p2 adapter-12v-2a
part m2 brushed-gear25-12v
part q2 nmos-irlz44n
part d2 diode-1n5822
part u2 board-uno-atmega328p
wire p1.P m1.P
wire m1.N q1.D
wire q1.S p1.N
wire d1.K m1.P
wire d1.A m1.N
wire u1.D5 q1.G
wire u1.GND p1.N
wire p2.P m2.P
wire m2.N q2.D
wire q2.S p2.N
wire d2.K m2.P
wire d2.A m2.N
wire u2.D5 q2.G
wire u2.GND p2.N
intent m1 stage=q1 in=u1.D5
intent m2 stage=q2 in=u2.D5
)";

}  // namespace

TEST_CASE("a bench falls into what has its own supply and shares nothing but a ground wire") {
  CHECK(cellsIn(wiredBench(kTwo)) == 2);
  const auto joined = cellsOf(wiredBench(kTwo + "wire p1.N p2.N\n"), library());
  CHECK(joined.parts.size() == 2);
  CHECK(joined.cuts.size() == 1);
  CHECK(joined.parts[0].devices.size() == 5);
  CHECK(joined.parts[0].connections.size() == 7);
  CHECK(joined.parts[0].goals.size() == 1);
}

TEST_CASE("what belongs together is never taken apart") {
  const auto ground = std::string("wire p1.N p2.N\n");
  CHECK(cellsIn(wiredBench(kTwo + ground + "wire u1.GND-2 u2.GND-2\n")) == 1);  // current may go round
  CHECK(cellsIn(wiredBench(kTwo + ground + "wire u1.D7 u2.D8\n")) == 1);        // a signal comes back by the ground
  CHECK(cellsIn(wiredBench(kTwo + "wire u1.D7 u2.D8\n")) == 1);                 // a signal without a common ground is a fault
  CHECK(cellsIn(wiredBench(kTwo + "wire p1.P p2.P\n")) == 1);
  CHECK(cellsIn(wiredBench(kTwo + "wire u1.GND-2 u2.GND-2\n")) == 1);  // without it those terminals would hang open
  // Wires between cells at one terminal that has nothing else do not hold each other: it would hang open without them.
  std::string star = "wire u1.GND-2 p2.N\n";
  for (const std::string n : {"3", "4"})
    star += "part p" + n + " adapter-12v-2a\npart m" + n + " brushed-gear25-12v\npart k" + n + " brushed-gear25-12v\nwire p" + n + ".P m" +
            n + ".P\nwire m" + n + ".N p" + n + ".N\nwire p" + n + ".P k" + n + ".P\nwire k" + n + ".N p" + n + ".N\nwire u1.GND-2 p" + n +
            ".N\n";
  for (const auto& c : cellsOf(wiredBench(kTwo + star), library()).parts) {
    if (!c.device("u1")) continue;
    CHECK(std::ranges::count(c.connections, Address{"u1", "GND-2"}, &harness::Connection::a) >= 2);
  }
  CHECK(saidOfCells(wiredBench(kTwo + star)) == saidOfTheWhole(wiredBench(kTwo + star)));
  auto planned = wiredBench(kTwo + ground);
  planned.assignments[1].pin = {"u1", "D6"};  // a plan that names a pin that no wire comes from yet
  CHECK(cellsIn(planned) == 1);
}

TEST_CASE("parts without a supply stay with what they hang on, loose ones with the first cell") {
  auto h = wiredBench(kTwo + "wire p1.N p2.N\npart r1 resistor-1k\n");
  const auto cells = cellsOf(h, library());
  REQUIRE(cells.parts.size() == 2);
  CHECK(cells.parts[0].device("r1"));
  h.devices[5].part = "no such part";  // the second supply
  CHECK(cellsIn(h) == 1);
  CHECK(cellsIn({}) == 1);
}

TEST_CASE("cell by cell the same is said as of the whole bench, on every way of spoiling it") {
  int n = 0;
  everyMutant("two", wiredBench(kTwo + "wire p1.N p2.N\n"), [&](const Mutant& m) {
    INFO(m.name);
    CHECK(difference(m.bench) == "");
    CHECK(marginDifference(m.bench) == "");
    ++n;
  });
  CHECK(n > 40);
  // And with everything that the generated benches have: stepper stages, bridges, logic supplies.
  auto h = benchOf(12);
  CHECK(cellsIn(h) == 2);
  CHECK(difference(h) == "");
  CHECK(marginDifference(h) == "");
  for (std::size_t k = 0; k < h.connections.size(); k += 9) {
    auto spoilt = h;
    spoilt.connections.erase(spoilt.connections.begin() + static_cast<std::ptrdiff_t>(k));
    INFO(h.connections[k].a.text() + " to " + h.connections[k].b.text());
    CHECK(difference(spoilt) == "");
    CHECK(marginDifference(spoilt) == "");
  }
}

TEST_CASE("the points of a joined bench are those of the whole one") {
  const auto h = benchOf(13);  // the last cell has a motor of its own
  const auto a = analyseFast(h);
  REQUIRE(a.judged.cells.size() == 3);
  const auto& joined = *a.solved;
  const auto whole = solveBench(makeBench(h, library()), {});
  REQUIRE(joined.motors.size() == whole->motors.size());
  int compared = 0;
  const auto terminals = static_cast<TerminalIndex>(whole->bench.terminalCount());
  for (const auto& p : joined.points) {
    const auto& c = p->command();
    const auto* w = c.supply >= 0 ? nullptr : whole->point(c.motor, c.action, c.moment, p->corner(), c.variant);
    // Whole, the other cells stand at the strong corner too; joined, they stand at full charge.
    if (!w || p->corner() == Corner::Strong) continue;
    INFO(c.title);
    ++compared;
    for (std::size_t l = 0; l < whole->bench.links.size(); ++l)
      REQUIRE(p->link(static_cast<int>(l)).value == Approx(w->link(static_cast<int>(l)).value).margin(1e-7));
    for (TerminalIndex t = 0; t < terminals; t += 7) {
      const auto u = terminals - 1 - t;
      const auto v = p->across(t, u);
      const auto expected = w->across(t, u);
      INFO(whole->bench.address(t) + " " + whole->bench.address(u));
      REQUIRE(v.has_value() == expected.has_value());
      if (v) REQUIRE(v->value == Approx(expected->value).margin(1e-5));
      REQUIRE(p->level(t) == w->level(t));
    }
    for (int m = 0; m < static_cast<int>(joined.motors.size()); ++m) REQUIRE(p->doing(m) == w->doing(m));
  }
  CHECK(compared > 100);
}

TEST_CASE("resistance between cells goes over the wire that joins them") {
  const auto a = analyseFast(wiredBench(kTwo + "wire p1.N p2.N 22AWG 1m\n"));
  REQUIRE(a.judged.cells.size() == 2);
  const auto* off = a.solved->point(Action::AllOff, Corner::Full);
  REQUIRE(off);
  const auto& b = a.solved->bench;
  const auto r = off->resistance(b.terminal({"p1", "N"}), b.terminal({"p2", "N"}));
  REQUIRE(r);
  CHECK(r->value == Approx(0.053 + 2 * 0.001).epsilon(0.02));  // 53 mohm a metre, and its two contacts
  CHECK(off->across(b.terminal({"p1", "N"}), b.terminal({"p2", "N"}))->value == Approx(0).margin(1e-9));
  CHECK(off->across(b.terminal({"p1", "P"}), b.terminal({"p2", "N"}))->value == Approx(12).epsilon(0.06));
}

TEST_CASE("an analysis takes over the cells that did not change, unless a repair of theirs needs an id that was taken") {
  const auto h = wiredBench(kTwo + "wire p1.N p2.N\n");
  const auto first = analyseFast(h);
  auto changed = h;
  changed.devices[6].overrides["winding"] = "9 ohm";
  Options fast;
  fast.explain = false;
  const auto second = analyse(changed, library(), fast, &first);
  CHECK(second.judged.cells[0] == first.judged.cells[0]);
  CHECK(second.judged.cells[1] != first.judged.cells[1]);

  // In the first cell a diode is missing: the repair that is offered adds one.
  auto lacking = h;
  std::erase_if(lacking.connections, [](const auto& c) { return c.a.device == "d1"; });
  std::erase_if(lacking.devices, [](const auto& d) { return d.id == "d1"; });
  const auto offered = analyse(lacking, library(), fast);
  const auto same = analyse(lacking, library(), fast, &offered);
  CHECK(same.judged.cells[0] == offered.judged.cells[0]);
  const auto has = [](const Analysis& x) { return std::ranges::any_of(x.findings, [](const auto& f) { return f.repair.has_value(); }); };
  REQUIRE(has(offered));
  auto more = lacking;
  more.connections.push_back(more.connections.back());
  more.connections.back().id = more.freeId("w");
  more.connections.back().a = {"u2", "D9"};
  more.connections.back().b = {"u2", "D10"};
  const auto again = analyse(more, library(), fast, &offered);
  CHECK(again.judged.cells[0] != offered.judged.cells[0]);
}
