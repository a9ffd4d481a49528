#include <catch2/catch.hpp>

#include "core/bench/queries.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
constexpr const char* kCheck = "bus-lines";
const std::string kBoard = "from servos-pwm-board\n";
const std::string kRegister = "from register-array\n";
const std::string kBare = "unwire e1.SDA uno.A4\nunwire e1.SCL uno.A5\n";
}  // namespace

TEST_CASE("a bus line has to get to the pin that has it") {
  CHECK(Judged(kCheck, kBoard).quiet());
  CHECK(Judged(kCheck, kBoard + "unwire uno.A4 e1.SDA").only() == kStop);
  CHECK(Judged(kCheck, kBoard + "move uno.A4 uno.A3").only() == kStop);  // no SDA there
  const auto exchanged = findingsOf(analyseFast(wiredBench(kBoard + "exchange e1.SDA e1.SCL")), kCheck);
  REQUIRE(exchanged.size() == 2);
  REQUIRE(exchanged.front().repair);
  CHECK(exchanged.front().repair->text.find("Exchange the wires at PWM board") == 0);
  // A board that has its bus at any pin.
  CHECK(Judged(kCheck, kBoard + "swap uno board-esp32-38 A4=IO13 A5=IO14 5V=3V3 GND=GND USB=USB\nintent e1 SDA=uno.IO13 SCL=uno.IO14")
            .quiet());
}

TEST_CASE("a bus needs a pull-up, and not too strong a one, to a level that is read as high") {
  CHECK(Judged(kCheck, kBoard + "figure e1.pull 1000 kohm").findings.size() == 2);
  CHECK(Judged(kCheck, kBoard + "figure e1.pull 1000 kohm").findings.front().severity == kCaution);
  CHECK(Judged(kCheck, kBoard + "figure e1.pull 900 ohm").findings.front().severity == kCaution);
  CHECK(Judged(kCheck, kBoard + "figure e1.pull 2 kohm").quiet());
}

TEST_CASE("a register behind a register, and a flip-flop that turns itself over, need no pin for their data") {
  const std::string chain = kRegister +
                            "part u3 register-74hc595\nwire uno.5V u3.VCC\nwire uno.5V u3.SRCLR\nwire uno.GND u3.GND\nwire u2.QHS u3.SER\n"
                            "wire uno.D13 u3.SRCLK\nwire uno.D10 u3.RCLK\nwire uno.D9 u3.OE\n";
  CHECK(Judged(kCheck, chain).quiet());
  CHECK(Judged(kCheck, chain + "unwire u2.QHS u3.SER").only() == kStop);
  CHECK(Judged(kCheck, "from divider-step").quiet());
  CHECK(Judged(kCheck, "from divider-step\nunwire u1.NQ1 u1.D1").only() == kStop);
  CHECK(Judged("command-outcome", "from latch-magnet").quiet());
  CHECK(Judged(kCheck, "from latch-magnet\nunwire uno.D5 u2.LE").only() == kStop);
}

TEST_CASE("a bus that is pulled above a pin's rail is that pin's matter, not one of too many pull-ups") {
  const std::string high = kBoard + "swap uno board-esp32-38 A4=IO13 A5=IO14 5V=5V GND=GND USB=USB\nintent e1 SDA=uno.IO13 SCL=uno.IO14";
  CHECK(Judged(kCheck, high).quiet());
  CHECK_FALSE(Judged("input-overvoltage", high).quiet());
}

TEST_CASE("two boards on one bus need two addresses") {
  const std::string two = kBoard +
                          "part e2 expander-mcp23017 Expander\nwire uno.5V e2.VDD\nwire uno.GND-2 e2.VSS\nwire uno.A4 e2.SDA\n"
                          "wire uno.A5 e2.SCL\nintent e2 SDA=uno.A4 SCL=uno.A5\n";
  CHECK(Judged(kCheck, two).quiet());
  const std::string same =
      kBoard + "part e2 pwm-16-i2c\nwire uno.5V e2.VCC\nwire uno.GND-2 e2.GND\nwire uno.A4 e2.SDA\nwire uno.A5 e2.SCL\n";
  CHECK(Judged(kCheck, same).only() == kStop);
  CHECK(Judged(kCheck, same + "set e2.address 0x41").quiet());
}

TEST_CASE("a register drives what the program sends it, once it is enabled") {
  CHECK(Judged(kCheck, kRegister).quiet());
  CHECK(Judged(kCheck, kRegister + "unwire uno.D13 u2.SRCLK").only() == kStop);
  CHECK(Judged(kCheck, kRegister + "unwire uno.5V u2.SRCLR\nwire uno.GND u2.SRCLR").only() == kStop);
  CHECK_FALSE(Judged("input-floating", kRegister + "unwire uno.5V u2.SRCLR").quiet());
  // At random until it is spoken to: with its outputs enabled the array's motor runs.
  CHECK(Judged("pin-boot-state", kRegister).quiet());
  CHECK(Judged("pin-boot-state", kRegister + "unwire r1.B uno.5V\nwire r1.B uno.GND").only() == kStop);
  // 3.3 V pins are no high for it on 5 V.
  CHECK_FALSE(Judged("level-high", kRegister + "swap uno board-esp32-38 D11=IO23 D13=IO18 D10=IO5 D9=IO19 5V=5V GND=GND USB=USB\n"
                                               "intent u2 SER=uno.IO23 SRCLK=uno.IO18 RCLK=uno.IO5 OE=uno.IO19")
                  .quiet());
}
