#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("pin-cannot-drive: grounds, supplies, absent and reserved pins") {
  const auto plan = [](const std::string& pin) { return "from low-side\nintent pump stage=q1 in=" + pin; };
  CHECK(Judged("pin-cannot-drive", plan("uno.D5")).quiet());
  CHECK(Judged("pin-cannot-drive", plan("uno.A0")).quiet());
  CHECK(Judged("pin-cannot-drive", plan("uno.GND")).text() == "The plan drives in of Pump from Controller GND, which is a ground.");
  CHECK(Judged("pin-cannot-drive", plan("uno.5V")).text() == "The plan drives in of Pump from Controller 5V, which is a supply.");
  CHECK(Judged("pin-cannot-drive", plan("uno.D42")).text() == "The plan drives in of Pump from uno.D42, which is not on the bench.");
  const Judged reserved("pin-cannot-drive", "from array-sbc\nintent m stage=s1 in1=sbc.J8-27 in2=sbc.J8-13 in3=sbc.J8-15 in4=sbc.J8-16");
  CHECK(reserved.only() == kStop);
  CHECK(reserved.text().find("is reserved: identification of stacked boards") != std::string::npos);
}

TEST_CASE("pin-no-pwm: hardware, software, none, and no speed wanted") {
  const auto plan = [](const std::string& pin, const std::string& speed) {
    return "from low-side\nmove uno.D5 " + pin + "\nintent pump " + speed + " stage=q1 in=" + pin;
  };
  CHECK(Judged("pin-no-pwm", plan("uno.D6", "speed")).quiet());
  const Judged none("pin-no-pwm", plan("uno.D7", "speed"));
  CHECK(none.only() == kStop);
  CHECK(none.findings[0].formula == "free pins with PWM: D11, D10, D9, D6, D5, D3");
  CHECK(Judged("pin-no-pwm", plan("uno.D7", "")).quiet());
  CHECK(Judged("pin-no-pwm", "from darlington-sbc").quiet());  // J8-12 is GPIO18
  CHECK(Judged("pin-no-pwm", "from darlington-sbc\nmove sbc.J8-12 sbc.J8-11\nintent m speed stage=q1 in=sbc.J8-11").only() == kCaution);
}

TEST_CASE("pin-conflict: one pin twice, two pins joined, a shared standby") {
  CHECK(Judged("pin-conflict", "from bridge").quiet());
  CHECK(Judged("pin-conflict", "from tb6612").quiet());  // both motors share STBY
  CHECK(Judged("pin-conflict", "from bridge\nintent right both speed stage=s1 channel=B speed=uno.D5 in1=uno.D2 in2=uno.D4").only() ==
        kStop);
  const Judged joined("pin-conflict", "from bridge\nwire uno.D7 uno.D8");
  CHECK(joined.only() == kStop);
  CHECK(joined.findings[0].subjects == std::vector<std::string>{"uno.D8", "uno.D7"});
  CHECK(Judged("pin-conflict", "from bridge\nwire uno.D11 uno.D12").quiet());  // neither is driven
}

TEST_CASE("pin-boot-state: a gate that nothing holds is told with its own motor, whatever else shares the minus") {
  CHECK(Judged("pin-boot-state", "from low-side").quiet());
  // A second lane whose gate floats, and a first one whose motor has both leads on the minus: it reaches no gate but its own.
  const std::string second =
      "part m2 brushed-gear25-12v\npart q2 nmos-irlz44n\npart d2 diode-1n5822\nwire psu.P m2.P\nwire m2.N q2.D\nwire q2.S psu.N\n"
      "wire d2.K m2.P\nwire d2.A m2.N\nwire uno.D6 q2.G\nintent m2 stage=q2 in=uno.D6\n";
  const Judged f("pin-boot-state", "from low-side\nmove psu.P psu.N\n" + second);
  REQUIRE(f.findings.size() == 1);
  CHECK(f.findings[0].subjects == std::vector<std::string>{"q2.G", "m2"});
}

TEST_CASE("pin-boot-state: a board's own pull is stronger than a transistor's, or hardly there") {
  // 1.8 kohm to 3.3 V for good against 10 kohm at the gate: open until the program runs.
  const std::string gate =
      "part feed adapter-5v-3a\npart sbc sbc-header-40 Controller\nplug feed.power sbc.power\npart psu adapter-12v-2a\n"
      "part pump pump-diaphragm-12v Pump\nfigure pump.winding 4.5 ohm\npart q1 nmos-ao3400a\npart r1 resistor-220r\n"
      "part r2 resistor-10k\npart d1 diode-1n5822\nwire r1.B q1.G\nwire r2.A q1.G\nwire r2.B q1.S\nwire psu.P pump.P\n"
      "wire pump.N q1.D\nwire q1.S psu.N\nwire q1.S sbc.J8-9\nwire d1.K pump.P\nwire d1.A pump.N\n";
  const auto on = [&](const std::string& pin) { return gate + "wire sbc." + pin + " r1.A\nintent pump stage=q1 in=sbc." + pin + "\n"; };
  CHECK(Judged("pin-boot-state", on("J8-3")).only() == kStop);
  CHECK(Judged("pin-boot-state", on("J8-11")).quiet());
  // 10 Mohm of a touch pad against the 100 kohm of an input.
  CHECK(Judged("pin-boot-state", "from drv8835-phase").quiet());
  CHECK(
      Judged("pin-boot-state", "from drv8835-phase\nmove nrf.P1 nrf.P5\nintent m both speed ramp stage=s1 channel=A in1=nrf.P0 in2=nrf.P5")
          .only() == kStop);
}

TEST_CASE("a wire at the pin that the plan's number means in another system is told so, with both places") {
  const std::string sbc = "from array-sbc\n";
  CHECK(Judged("pin-numbering", sbc).quiet());
  const Judged mixed("pin-numbering", sbc + "unwire sbc.J8-11 s1.IN1\nwire sbc.J8-17 s1.IN1");
  REQUIRE(mixed.only() == kStop);
  CHECK(mixed.text() ==
        "The plan drives in1 of Gate from Controller GPIO17 (J8, left column, 6th from the top); its wire is at Controller 3V3 (J8, left "
        "column, "
        "9th from the top), which is 17 by position.");
  CHECK(mixed.findings[0].repair);
  // The pin beside it is a slip of the finger, not of the numbers.
  CHECK(Judged("pin-numbering", sbc + "unwire sbc.J8-11 s1.IN1\nwire sbc.J8-12 s1.IN1").quiet());
}
