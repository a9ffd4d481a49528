#include <catch2/catch.hpp>

#include "core/bench/feeding.h"
#include "core/bench/sensed_pins.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

// Boards that stand between the parts of a classroom's bench: what is commonly done wrong with each.

TEST_CASE("a MOSFET module that wants 10 V is judged by the level it gets") {
  const std::string module = "from mosfet-module\n";
  CHECK(Judged("gate-drive", module).quiet());
  CHECK(Judged("gate-drive", module + "swap s1 mosfet-module-irf520").only() == kCaution);  // 5 V where 10 V is promised
  CHECK(Judged("gate-drive", "from mosfet-module-520-shifted").quiet());
  CHECK(Judged("flyback-missing", module + "remove d1").only() == kStop);
  CHECK(Judged("ground-not-shared", module + "unwire uno.GND s1.GND").only() == kStop);
}

TEST_CASE("a level shifter needs both its supplies, and joins what it stands between") {
  const std::string shifted = "from register-shifted\n";
  CHECK(Judged("logic-supply-out-of-range", shifted).quiet());
  CHECK(Judged("logic-supply-out-of-range", shifted + "unwire esp.3V3 ls.LV").only() == kStop);
  CHECK(Judged("level-high", shifted).quiet());
  // Past the shifter 3.3 V are no high for the register on 5 V.
  CHECK_FALSE(Judged("level-high", shifted + "unwire ls.H1 s1.SER\nwire esp.IO23 s1.SER").quiet());
  const auto a = analyseFast(wiredBench(shifted));
  int through = 0;
  for (const auto& x : bench::sensedPins(*a.solved)) through += a.solved->bench.facts(x.pin).id == "IO23";
  CHECK(through == 1);
}

TEST_CASE("a charger protects its cell, and trips at what a motor starts with") {
  const std::string charged = "from charger-tilt\n";
  CHECK(Judged("pack-over-discharge", charged).quiet());
  // The load's minus straight on the cell goes round the protection.
  CHECK(Judged("pack-over-discharge", charged + "unwire chg.OUT-N up.IN-N\nwire cell.N up.IN-N").only() == kCaution);
  CHECK(Judged("pack-over-discharge", charged + "unwire chg.OUT-N up.IN-N\nwire chg.B-N up.IN-N").only() == kCaution);
}

TEST_CASE("a charger feeds its cell: no fault, whatever it gives; the port that it hangs on has to give it") {
  const std::string charging = "from charger-tilt\npart port usb-port-0a5\nwire port.P chg.IN-P\nwire port.N chg.IN-N\n";
  CHECK(Judged("back-feed", charging).quiet());
  CHECK(Judged("board-rail-current", charging).quiet());
  CHECK(Judged("supply-current", charging).only() == kStop);
  CHECK(Judged("supply-current", charging + "swap port usb-port-3a").quiet());
}

TEST_CASE("a supply may lead to a switch that is open at rest") {
  CHECK(Judged("rail-dead", "from opto-module-limit").quiet());
  CHECK(Judged("rail-dead", "from opto-module-limit\nremove pump\nremove q1\nremove d1").quiet());
}

TEST_CASE("where the way to a servo behind a converter is open is named") {
  const std::string open = "from charger-tilt\nunwire chg.OUT-P sw.A";
  const auto findings = findingsOf(analyseFast(wiredBench(open)), "servo-supply");
  REQUIRE(findings.size() == 1);
  CHECK(findings.front().text.find("Step-up IN+ gets nothing") == 0);
  CHECK(std::ranges::count(findings.front().subjects, "sw") == 1);
  const auto a = analyseFast(wiredBench(open));
  const auto& b = a.solved->bench;
  CHECK(b.address(bench::dryEnd(*a.solved, b.terminal(*parseAddress("tilt.VCC")))) == "up.IN-P");
  // From a source that is there nothing is dry.
  const auto fed = analyseFast(wiredBench("from servo"));
  const auto red = fed.solved->bench.terminal(*parseAddress("tilt.VCC"));
  CHECK(bench::dryEnd(*fed.solved, red) == red);
}

TEST_CASE("a power module's jumper decides what its rail gives") {
  const std::string rail = "from power-module-servo\n";
  CHECK(Judged("servo-supply", rail).quiet());
  CHECK(Judged("servo-supply", rail + "set pm.left 3.3 V").only() == kCaution);
  CHECK(Judged("servo-supply", rail + "set pm.left off").only() == kStop);
}

TEST_CASE("a power module and a board on USB on one rail feed each other, and its regulator gets warm") {
  const std::string rail = "from power-module-servo\n";
  CHECK(Judged("back-feed", rail).quiet());
  CHECK(Judged("back-feed", rail + "wire pm.B-P uno.5V").only() == kStop);
  CHECK(Judged("back-feed", rail + "set pm.right off\nwire pm.B-P uno.5V").quiet());
  CHECK(Judged("regulator-heat", rail).quiet());
  CHECK(Judged("regulator-heat", rail + "figure tilt.run 0.2 A").only() == kCaution);
}

TEST_CASE("a coin cell is no supply for a motor") {
  CHECK(Judged("supply-current", "from coin-attiny").quiet());
  CHECK_FALSE(Judged("supply-current", "from low-side-attiny\nswap bat battery-coin-3v").quiet());
}

TEST_CASE("the leads of a brushless motor: any order, but each on one of the other's") {
  const std::string esc = "from esc-wave-maker\n";
  CHECK(Judged("brushless-leads", esc).quiet());
  CHECK(Judged("brushless-leads", esc + "exchange m.A m.B").quiet());
  CHECK(Judged("brushless-leads", esc + "unwire esc.B m.B").findings.size() == 2);  // the controller's and the motor's
  CHECK(Judged("brushless-leads", esc + "unwire esc.B m.B\nwire esc.A m.B").findings.front().severity == kStop);
  CHECK(Judged("brushless-leads", esc + "unwire esc.B m.B\nunwire esc.A m.A\nunwire esc.C m.C").findings.front().severity == kCaution);
}

TEST_CASE("modules and boards are found by everyday words") {
  for (const auto& [words, id] : std::vector<std::pair<const char*, const char*>>{{"button", "button-4leg"},
                                                                                  {"limit switch", "limit-switch"},
                                                                                  {"encoder", "encoder-motor-hall"},
                                                                                  {"pot", "potentiometer"},
                                                                                  {"ultrasonic", "sensor-ultrasonic-5v"},
                                                                                  {"level shifter", "level-shifter-4"},
                                                                                  {"charger", "charger-tp4056"},
                                                                                  {"coin cell", "battery-coin-3v"},
                                                                                  {"esc", "esc-30a"},
                                                                                  {"shift register", "register-74hc595"},
                                                                                  {"595", "register-74hc595"},
                                                                                  {"servo board", "pwm-16-i2c"},
                                                                                  {"optocoupler", "optocoupler-pc817"},
                                                                                  {"mosfet module d4184", "mosfet-module-d4184"},
                                                                                  {"breadboard power", "power-module-breadboard"},
                                                                                  {"rp2350", "board-rp2350-40"},
                                                                                  {"reed", "reed-contact"},
                                                                                  {"latch", "latch-74hc573"},
                                                                                  {"divider", "flip-flop-74hc74"},
                                                                                  {"level shifter 1", "level-shifter-1"}}) {
    CAPTURE(words);
    const auto hits = library().search(words);
    REQUIRE_FALSE(hits.empty());
    CHECK(hits.front()->id == id);
  }
}

TEST_CASE("a part whose ground lead is missing is told so, and not to look for a supply") {
  const Judged open("logic-supply-out-of-range", "from level-sensor\nunwire uno.GND lv.GND");
  REQUIRE(open.only() == kStop);
  CHECK(open.text().find("Tank full VCC is wired and Tank full GND is not") == 0);
  REQUIRE(open.findings[0].repair);
  CHECK(open.findings[0].repair->text.find("Add a black wire from Tank full GND") == 0);
  CHECK(Judged("logic-supply-out-of-range", "from level-sensor\nunwire uno.5V lv.VCC").text().find("Nothing feeds") == 0);
}

TEST_CASE("what turns nothing burns sooner than a motor from too many volts") {
  CHECK(Judged("motor-overvoltage", "from light-strip").quiet());
  CHECK(Judged("motor-overvoltage", "from light-strip\nswap psu adapter-24v-5a").only() == kStop);
}

TEST_CASE("a servo's electronics reset below six tenths of its least") {
  CHECK(Judged("servo-supply", "from servo").quiet());
  CHECK(Judged("servo-supply", "from servo\nswap psu battery-coin-3v").only() == kStop);
  CHECK(Judged("servo-supply", "from servo\nswap psu battery-2aa-alkaline").only() == kCaution);
}

TEST_CASE("a starved transistor is held against what a light would take, not what it lets through") {
  const std::string light =
      "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-2a\npart l "
      "light-strip-12v "
      "Light\nfigure l.winding 12 ohm\npart q npn-tip31c\npart r resistor-1k\nwire uno.D6 r.A\nwire r.B q.B\nwire psu.P l.P\nwire l.N q.C\n"
      "wire q.E psu.N\nwire q.E uno.GND\nintent l stage=q in=uno.D6\n";
  const Judged starved("base-drive", light);
  CHECK(starved.only() == kStop);
  CHECK(starved.arg("collector") == Approx(1.0).epsilon(0.05));
  CHECK(Judged("base-drive", light + "figure l.winding 400 ohm").quiet());
}

TEST_CASE("electronics keep what their own coils give back: a diode is advised, not demanded") {
  CHECK(Judged("flyback-missing", "from fan-12v").quiet());
  CHECK(Judged("flyback-missing", "from fan-12v\nremove d1").only() == kCaution);
  CHECK(Judged("flyback-missing", "from low-side\nremove d1").only() == kStop);
}

TEST_CASE("a button that joins a supply's poles is a short, and not a supply too small") {
  const std::string shorted = "from low-side\npart k button-4leg Button\nwire psu.P k.1\n";
  CHECK(Judged("supply-short", shorted).quiet());
  const Judged joined("supply-short", shorted + "wire k.2 psu.N");
  REQUIRE(joined.only() == kStop);
  CHECK(joined.findings[0].headline == "Button shorts psu");
}
