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
