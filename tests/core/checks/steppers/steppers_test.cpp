#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("stage-not-awake: sleep and reset that are low when open") {
  CHECK(Judged("stage-not-awake", "from step-dir-8825").quiet());
  const Judged both("stage-not-awake", "from step-dir-8825\nunwire pico.3V3 s1.RST");
  CHECK(both.only() == kStop);
  CHECK(both.text() == "RST and SLP of S1 are low and no signal of the plan drives them: Carriage never moves.");
  CHECK(Judged("stage-not-awake", "from step-dir-8825\nunwire s1.RST s1.SLP").only() == kStop);
  CHECK(Judged("stage-not-awake", "from step-dir\nunwire uno.D4 s1.EN").quiet());  // low is awake for an enable
}

TEST_CASE("stage-not-awake: standby tied high, driven by the plan, left open") {
  const auto plan = [](const std::string& more) {
    return "from tb6612\nunwire pico.GP5 s1.STBY\nintent left both speed stage=s1 channel=A speed=pico.GP2 in1=pico.GP3 in2=pico.GP4\n"
           "intent right both speed stage=s1 channel=B speed=pico.GP6 in1=pico.GP7 in2=pico.GP8\n" +
           more;
  };
  CHECK(Judged("stage-not-awake", "from tb6612").quiet());
  CHECK(Judged("stage-not-awake", plan("")).only() == kStop);
  CHECK(Judged("stage-not-awake", plan("wire s1.STBY s1.VCC")).quiet());
}

TEST_CASE("coil-pairs: a turned coil is a pair, a crossed one is not") {
  CHECK(Judged("coil-pairs", "from step-dir").quiet());
  CHECK(Judged("coil-pairs", "from step-dir\nexchange m.A-P m.A-N").quiet());
  CHECK(Judged("coil-pairs", "from step-dir\nexchange s1.1A s1.2A\nexchange s1.1B s1.2B").quiet());
  const Judged crossed("coil-pairs", "from step-dir\nexchange m.A-N m.B-P");
  CHECK(crossed.only() == kStop);
  REQUIRE(crossed.findings[0].repair);
  CHECK(Judged("coil-pairs", "from stepper-bridges").quiet());
  CHECK(Judged("coil-pairs", "from stepper-bridges\nexchange m.A-N m.B-N").only() == kStop);
  CHECK(Judged("coil-pairs", "from step-dir\nunwire s1.1B m.A-N").quiet());  // open-lead
}

TEST_CASE("a six-lead stepper by its whole coils, its taps open") {
  for (const auto* check : {"open-lead", "lead-count", "coil-pairs", "phase-order", "current-limit-setting"}) {
    INFO(check);
    CHECK(Judged(check, "from step-dir-six-wire").quiet());
  }
  CHECK(Judged("coil-pairs", "from step-dir-six-wire\nexchange m.A2 m.B").only() == kStop);
  CHECK(Judged("phase-order", "from step-dir-six-wire\nexchange m.A m.A2").only() == kCaution);
  // Whole coils stand 0.707 of what their halves stand: 0.85 A.
  const Judged high("current-limit-setting", "from step-dir-six-wire\nfigure s1.reference 1.1 V");
  REQUIRE(high.findings.size() == 1);
  CHECK(high.arg("limit") == Approx(0.8485).epsilon(1e-3));
  CHECK_FALSE(Judged("open-lead", "from step-dir-six-wire\nunwire s1.1B m.A2").quiet());
  CHECK_FALSE(Judged("lead-count", "from step-dir-six-wire\nwire m.AC psu.P").quiet());
}

TEST_CASE("polarity-sensitive-load: electronics the wrong way round") {
  CHECK(Judged("polarity-sensitive-load", "from low-side-blower").quiet());
  const Judged reversed("polarity-sensitive-load", "from low-side-blower\nexchange m.P m.N");
  CHECK(reversed.only() == kStop);
  REQUIRE(reversed.findings[0].repair);
}
