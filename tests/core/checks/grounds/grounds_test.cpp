#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("ground-not-shared: the signal wires do not join grounds, a second way round does") {
  CHECK(Judged("ground-not-shared", "from bridge").quiet());
  CHECK(Judged("ground-not-shared", "from bridge\nunwire uno.GND s1.GND").only() == kStop);
  CHECK(Judged("ground-not-shared", "from bridge\nunwire uno.GND s1.GND\nwire uno.GND-2 bat.N").quiet());
  CHECK(Judged("ground-not-shared", "from bridge\nunwire uno.GND s1.GND\nwire uno.GND-2 bat.P").only() == kStop);
}

TEST_CASE("ground-not-shared: a fuse in the ground still joins, a resistor does not") {
  const std::string cut = "from bridge\nunwire uno.GND s1.GND\n";
  CHECK(Judged("ground-not-shared", cut + "part f fuse-blade\nwire uno.GND f.A\nwire f.B s1.GND").quiet());
  CHECK(Judged("ground-not-shared", cut + "part r resistor-1k\nwire uno.GND r.A\nwire r.B s1.GND").only() == kStop);
}

TEST_CASE("ground-not-shared: transistors are measured against their return, servos against their own ground") {
  CHECK(Judged("ground-not-shared", "from npn\nunwire q1.E uno.GND").only() == kStop);
  CHECK(Judged("ground-not-shared", "from servo\nunwire uno.GND tilt.GND").only() == kStop);
}

TEST_CASE("ground-not-shared: a rail that stops half-way") {
  // The breadboard's two pairs of rails are not joined.
  CHECK(Judged("ground-not-shared", "from breadboard").quiet());
  CHECK_FALSE(Judged("ground-not-shared", "from breadboard\nmove bb.tn1 bb.bn1").quiet());
  CHECK(Judged("ground-not-shared", "from breadboard\nmove bb.tn1 bb.bn1\nwire bb.bn20 bb.tn10").quiet());
}

TEST_CASE("ground-not-shared: a stage without signals has nothing to share") {
  CHECK(Judged("ground-not-shared",
               "part uno board-uno-atmega328p\npart v adapter-12v-2a\npart s l298n-module\nwire v.P s.12V\nwire v.N s.GND")
            .quiet());
}

TEST_CASE("supply-return-missing: only what is fed needs a way back") {
  CHECK(Judged("supply-return-missing", "from low-side").quiet());
  CHECK(Judged("supply-return-missing", "from low-side\nunwire q1.S psu.N").only() == kStop);
  CHECK(Judged("supply-return-missing", "from low-side\nunwire psu.P pump.P\nunwire q1.S psu.N").quiet());
  CHECK(Judged("supply-return-missing", "from bridge\nunwire bat.N s1.GND").only() == kStop);
  // Back by way of the controller's ground is a way back.
  CHECK(Judged("supply-return-missing", "from bridge\nunwire bat.N s1.GND\nwire bat.N uno.GND-2").quiet());
}

TEST_CASE("open-lead: one lead, all leads, a spare battery") {
  CHECK(Judged("open-lead", "from bridge").quiet());
  const Judged one("open-lead", "from bridge\nunwire s1.OUT2 left.N");
  CHECK(one.only() == kStop);
  CHECK(one.text() == "\"-\" of Left is not connected to anything.");
  REQUIRE(one.findings[0].repair);
  CHECK(one.findings[0].repair->text == "Add a blue wire from S1 OUT2 (screw) to Left - (lead).");
  const Judged all("open-lead", "from bridge\nunwire s1.OUT1 left.P\nunwire s1.OUT2 left.N");
  CHECK(all.text() == "Left is on the bench, but none of its leads is connected.");
  CHECK_FALSE(all.findings[0].repair);
  CHECK(Judged("open-lead", "from bridge\npart spare battery-9v-block").only() == kNote);
  CHECK(Judged("open-lead", "from bridge\npart half battery-9v-block\nwire half.P uno.VIN").only() == kStop);
}

TEST_CASE("ground-through-board: what a board draws itself is no motor's current") {
  CHECK(Judged("ground-through-board", "from step-dir-tmc2208").quiet());  // 1 A of its own by a header's ground
  // The pump's current through the same board is.
  CHECK_FALSE(Judged("ground-through-board", "from low-side\nunwire q1.S psu.N\nwire psu.N uno.GND-2").quiet());
}

TEST_CASE("supply-return-missing, supply-reversed: a bridge's own return, a loose regulator") {
  CHECK(Judged("supply-return-missing", "from l298-chip").quiet());
  CHECK(Judged("supply-return-missing", "from l298-chip\nunwire s1.SENSE-A s1.GND").only() == kStop);
  CHECK(Judged("supply-reversed", "from npn-bd139-chip").quiet());
  CHECK(Judged("supply-reversed", "from npn-bd139-chip\nexchange psu.P psu.N").only() == kStop);
}

TEST_CASE("supply-return-missing: packs in a row come back by the last one's minus") {
  CHECK(Judged("supply-return-missing", "from drv8871-series-packs").quiet());
  CHECK(Judged("supply-return-missing", "from drv8871-series-packs\nunwire b1.N s1.GND").only() == kStop);
}

TEST_CASE("transistor-orientation: no repair in the leg of a bridge, where a wire on the wrong rail looks the same") {
  const Judged leg("transistor-orientation", "from bridge-loose-bjt\nunwire psu.N q3.E\nwire psu.P q3.E");
  REQUIRE_FALSE(leg.quiet());
  for (const auto& f : leg.findings) CHECK_FALSE(f.repair);
  const Judged low("transistor-orientation", "from npn\nexchange q1.C q1.E");
  REQUIRE(low.findings.size() == 1);
  CHECK(low.findings[0].repair);
}
