#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a diode across the switch does not count as a clamp") {
  const std::string across = "from low-side\nunwire d1.K pump.P\nunwire d1.A pump.N\nwire d1.K q1.D\nwire d1.A q1.S";
  CHECK(Judged("flyback-missing", across).only() == kStop);
  CHECK(Judged("flyback-misplaced", across).only() == kNote);
  CHECK(Judged("flyback-misplaced", "from low-side").quiet());
}

TEST_CASE("the built-in diode of a Darlington does not clamp its motor") {
  CHECK(Judged("flyback-missing", "from darlington\nremove d1").only() == kStop);
}

TEST_CASE("clamps inside a stage count") {
  for (const auto* name : {"bridge", "l293d", "tb6612", "step-dir", "step-dir-8825", "array", "stepper-bridges"}) {
    INFO(name);
    CHECK(Judged("flyback-missing", "from " + std::string(name)).quiet());
  }
}

TEST_CASE("an array clamps only with its common on the motor supply") {
  CHECK(Judged("flyback-missing", "from array").quiet());
  // The link removed, the coils fed past the board: the common hangs free.
  const std::string open =
      "from array\nset s1.link removed\nunwire m.plug s1.motor\nwire m.COM psu.P\nwire m.BLUE s1.A\nwire m.PINK s1.B\nwire m.YELLOW "
      "s1.C\nwire m.ORANGE s1.D";
  CHECK(Judged("flyback-missing", open).only() == kStop);
  CHECK(Judged("flyback-missing", open + "\nwire s1.COMMON psu.P").quiet());
}

TEST_CASE("flyback-missing: the repair fits a diode that carries the motor") {
  CHECK(Judged("flyback-missing", "from low-side\nremove d1").findings[0].repair->text ==
        "Fit a 1N5819 across Pump: band to Pump +, anode to Pump -.");
  CHECK(Judged("flyback-missing", "from low-side\nremove d1\nfigure pump.run 1.5 A\nfigure pump.winding 3 ohm").findings[0].repair->text ==
        "Fit a 1N5822 across Pump: band to Pump +, anode to Pump -.");
}

TEST_CASE("flyback-reversed: only a diode that conducts while the switch is on") {
  CHECK(Judged("flyback-reversed", "from low-side").quiet());
  const Judged f("flyback-reversed", "from low-side\nexchange d1.A d1.K");
  CHECK(f.only() == kStop);
  CHECK(f.arg("current") > 2);
  // Beside another part it is none of this check's business.
  CHECK(Judged("flyback-reversed",
               "from low-side\npart d2 diode-1n4148\npart r9 resistor-1k\nwire r9.A uno.5V\nwire r9.B d2.A\nwire d2.K uno.GND-2")
            .quiet());
}

TEST_CASE("bridge-diodes-missing: doubtful clamps are settled outside, each direction needs its own") {
  CHECK(Judged("bridge-diodes-missing", "from sn754410").quiet());
  CHECK(Judged("bridge-diodes-missing", "from sn754410\nremove d4").only() == kCaution);
  CHECK(Judged("bridge-diodes-missing", "from l293").quiet());
  for (const auto* d : {"d1", "d2", "d3", "d4"})
    CHECK(Judged("bridge-diodes-missing", std::string("from l293\nremove ") + d).only() == kStop);
}

TEST_CASE("flyback-missing: every coil of a unipolar stepper") {
  CHECK(Judged("flyback-missing", "from stepper-mosfets").quiet());
  for (int coil = 1; coil <= 4; ++coil) {
    const auto n = std::to_string(coil);
    const Judged j("flyback-missing", "from stepper-mosfets\nremove d" + n);
    INFO("coil " << coil);
    REQUIRE(j.only() == kStop);
    CHECK(std::ranges::count(j.findings[0].subjects, "q" + n) == 1);
  }
}
