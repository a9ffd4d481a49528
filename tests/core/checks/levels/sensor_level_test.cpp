#include <catch2/catch.hpp>

#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
constexpr const char* kCheck = "sensor-level";
const std::string kButton = "from button\n";
const std::string kEnd = "from limit-switch\n";

std::optional<checks::Severity> worst(const Judged& j) {
  std::optional<checks::Severity> out;
  for (const auto& f : j.findings) out = std::min(out.value_or(f.severity), f.severity);
  return out;
}
}  // namespace

TEST_CASE("every moved contact has a command of its own, and only its contacts are then the other way") {
  const auto a = analyseFast(wiredBench(kEnd));
  const auto& s = *a.solved;
  const auto pin = s.bench.terminal(*parseAddress("esp.IO34"));
  const auto ground = s.bench.terminal(*parseAddress("esp.GND"));
  int pressed = 0;
  for (const auto& p : s.points) {
    REQUIRE(p->solved());
    const auto volts = p->across(pin, ground)->value;
    if (p->command().action == bench::Action::Pressed) {
      CHECK(p->command().title == "Gate closed pressed");
      CHECK(p->command().moved.size() == 1);  // its other contact is not wired
      CHECK(volts == Approx(3.3).margin(0.1));
      ++pressed;
    } else if (p->command().supply < 0) {
      CHECK(volts == Approx(0).margin(0.05));
    }
  }
  CHECK(pressed == 2);  // full and nominal
}

TEST_CASE("a pin that a button leaves open needs a pull: its own where the program says so and it has one, else a resistor") {
  CHECK(Judged(kCheck, kButton).quiet());
  CHECK(Judged(kCheck, kButton + "set b1.pull unsaid").only() == kCaution);
  CHECK(Judged(kCheck, kButton + "set b1.pull none").only() == kStop);
  CHECK(Judged(kCheck, kButton + "set b1.pull none\npart r9 resistor-10k\nwire r9.A uno.D2\nwire r9.B uno.5V").quiet());
  // To 5 V: an AVR has no pull-down.
  CHECK(Judged(kCheck, kButton + "set b1.pull down\nmove uno.GND-2 uno.5V").only() == kStop);
  CHECK(Judged(kCheck, "from reed").quiet());  // an RP2040 has
  CHECK(Judged(kCheck, kEnd).quiet());
  CHECK(Judged(kCheck, kEnd + "remove r9").only() == kStop);  // an input-only pin has none
}

TEST_CASE("a button that changes nothing") {
  CHECK(Judged(kCheck, kButton + "move b1.2b b1.1b").only() == kStop);
  CHECK(Judged(kCheck, kButton + "move b1.2b b1.1b").text().find("is always joined") != std::string::npos);
  CHECK(Judged(kCheck, kButton + "move uno.GND-2 uno.5V\nset b1.pull up").only() == kStop);
  CHECK(worst(Judged(kCheck, "from encoder\nunwire esp.3V3 enc.VCC")) == kStop);
}

TEST_CASE("a knob whose button nobody wired is not wired past it, and a button on a rail is told of once") {
  CHECK(Judged(kCheck, "from knob-servo\nunwire uno.D4 k.SW").quiet());
  CHECK(Judged("sensor-pin", kButton + "move b1.2b b1.1b").quiet());
  CHECK(Judged("sensor-pin", kButton + "move uno.D2 uno.D3").only() == kStop);
}

TEST_CASE("a diode across a limit switch in a motor's lead does something: it lets the motor off again") {
  const std::string gate =
      "from bridge-esp32\npart e1 limit-switch\npart d9 diode-1n5819\nunwire s1.OUT1 m.P\nwire s1.OUT1 e1.COM\nwire e1.NC m.P\n"
      "wire d9.A m.P\nwire d9.K e1.COM";
  CHECK(Judged("wire-to-itself", gate).quiet());
  CHECK(Judged("command-outcome", gate).quiet());
  CHECK(Judged("wire-to-itself", "from bridge-esp32\npart d9 diode-1n5819\nwire d9.A m.P\nwire d9.K m.P").only() == kCaution);
}

TEST_CASE("what is stated of a sensor and means nothing there keeps the bench from Clear") {
  CHECK(analyseFast(wiredBench(kButton)).verdict == Verdict::Clear);
  for (const auto* said : {"intent b1 A=uno.D2", "intent b1 1=uno.D2!", "intent b1 both 1=uno.D2", "intent b1 1=uno.GND-2"}) {
    CAPTURE(said);
    CHECK(analyseFast(wiredBench(kButton + said)).verdict != Verdict::Clear);
  }
}

TEST_CASE("a level that is neither high nor low") {
  const std::string divided = "from level-sensor\npart r9 resistor-10k\nwire r9.A uno.D2\nwire r9.B uno.GND";
  CHECK(Judged(kCheck, divided).only() == kCaution);
  CHECK(Judged(kCheck, divided).text().find("stands at 2.") != std::string::npos);
}

TEST_CASE("what is pressed against a driven pin, between the rails or into a weaker pin is worked out too") {
  CHECK(worst(Judged("pin-current", kButton + "move uno.D2 uno.D5")) == kStop);
  CHECK(worst(Judged("board-rail-current", kButton + "move uno.D2 uno.5V")) == kStop);
  CHECK(worst(Judged("input-overvoltage", "from encoder\nmove esp.3V3 esp.5V")) == kCaution);
  CHECK(Judged("input-overvoltage", "from encoder").quiet());
  CHECK(Judged("board-rail-current", "from dial").quiet());
  CHECK(worst(Judged("board-rail-current", "from dial\nexchange dial.A dial.W")) == kStop);  // 5 V on the wiper
}

TEST_CASE("the pin of a sensor is asked what it can do") {
  const auto said = [](const std::string& change, std::string_view id) {
    const auto a = analyseFast(wiredBench(change));
    return std::ranges::any_of(a.findings, [&](const auto& f) { return f.check == id; });
  };
  const std::string dial = "from dial\n";
  CHECK_FALSE(said(dial, "pin-no-analog"));
  CHECK(said(dial + "move uno.A0 uno.D7", "pin-no-analog"));
  CHECK_FALSE(said(kButton, "pin-serial"));
  CHECK(said(kButton + "move uno.D2 uno.D0", "pin-serial"));
  CHECK_FALSE(said(kButton, "pin-cannot-drive"));
  CHECK(said(kButton + "intent b1 1=uno.GND-2", "pin-cannot-drive"));

  // The same button on an ESP32 board: a pin of the flash, one that is input only, which may well be read.
  const std::string esp =
      "part esp board-esp32-38 Controller\npart usb usb-port-0a9\nwire usb.P esp.USB-P\nwire usb.N esp.USB-N\npart b1 button-4leg Button\n"
      "wire esp.GND b1.2\npart r resistor-10k\nwire r.A esp.3V3\nwire r.B b1.1\n";
  CHECK(said(esp + "wire esp.SD2 b1.1\nintent b1 1=esp.SD2", "pin-cannot-drive"));
  CHECK_FALSE(said(esp + "wire esp.IO34 b1.1\nintent b1 1=esp.IO34", "pin-cannot-drive"));
  // Two pins of a Nano-format board only measure: right for a dial, doubtful for a button.
  const std::string nano =
      "part nano board-nano-atmega328p Controller\npart usb usb-port-0a5\nwire usb.P nano.USB-P\nwire usb.N nano.USB-N\n";
  const std::string knob = "part p potentiometer Dial\nwire nano.5V p.A\nwire nano.GND p.B\nwire p.W nano.";
  CHECK_FALSE(said(nano + knob + "A6\nintent p W=nano.A6", "pin-no-analog"));
  CHECK_FALSE(said(nano + knob + "A6\nintent p W=nano.A6", "pin-cannot-drive"));
  CHECK(said(nano + knob + "D6\nintent p W=nano.D6", "pin-no-analog"));
  CHECK(said(nano + "part b1 button-4leg Button\nwire nano.GND b1.2\nwire nano.A7 b1.1\nintent b1 1=nano.A7", "pin-no-analog"));
  // A single-board computer measures nothing.
  CHECK(said(
      "part sbc sbc-header-40 Controller\npart feed usb-port-3a\nwire feed.P sbc.PWR-P\nwire feed.N sbc.PWR-N\npart p potentiometer Dial\n"
      "wire sbc.J8-1 p.A\nwire sbc.J8-6 p.B\nwire p.W sbc.J8-11\nintent p W=sbc.J8-11",
      "pin-no-analog"));
}
