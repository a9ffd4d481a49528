#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
std::string tbOn(const std::string& full, const std::string& nominal) {
  return "from tb6612\nremove bat\npart psu adapter-12v-2a\nfigure psu.full " + full + "\nfigure psu.nominal " + nominal +
         "\nwire psu.P s1.VM\nwire psu.N s1.GND";
}
}  // namespace

TEST_CASE("motor-supply-too-high: full charge counts, not the printed voltage") {
  CHECK(Judged("motor-supply-too-high", tbOn("13.4 V", "12 V")).quiet());
  const Judged over("motor-supply-too-high", tbOn("13.9 V", "12 V"));
  CHECK(over.only() == kCaution);
  CHECK(over.arg("voltage") == Approx(13.9).epsilon(0.01));
  CHECK(over.arg("limit") == 13.5);
  CHECK(Judged("motor-supply-too-high", tbOn("15.2 V", "12 V")).only() == kStop);
}

TEST_CASE("motor-supply-too-high: an open transistor stands the whole supply") {
  CHECK(Judged("motor-supply-too-high", "from npn\nfigure psu.full 39 V\nfigure psu.nominal 30 V").quiet());
  const Judged over("motor-supply-too-high", "from npn\nfigure psu.full 45 V\nfigure psu.nominal 40 V");
  CHECK(over.only() == kStop);
  CHECK(over.text() == "q1 gets 45 V from a full supply; its absolute maximum is 40 V.");
}

TEST_CASE("motor-supply-too-high: a terminal that nothing feeds is none of its business") {
  CHECK(Judged("motor-supply-too-high", "part uno board-uno-atmega328p\npart usb usb-port-0a5\nplug usb.USB uno.USB").quiet());
  CHECK(Judged("motor-supply-too-high",
               "part uno board-uno-atmega328p\npart v adapter-12v-2a\nfigure v.full 24 V\nwire v.P uno.VIN\nwire v.N uno.GND")
            .only() == kStop);
}

TEST_CASE("motor-supply-too-low: nominal stops, the lower end of a regulated supply cautions, flat cells are worth knowing") {
  CHECK(Judged("motor-supply-too-low", "from step-dir").quiet());
  CHECK(Judged("motor-supply-too-low", "from bridge").only() == kNote);
  CHECK(Judged("motor-supply-too-low", "from step-dir\nfigure psu.empty 7.6 V").only() == kCaution);
  CHECK(Judged("motor-supply-too-low", "from step-dir\nfigure psu.full 8 V\nfigure psu.nominal 7.5 V\nfigure psu.empty 7 V").only() ==
        kStop);
  // A stage without a motor may have whatever supply it likes.
  CHECK(Judged("motor-supply-too-low", "from step-dir\nremove m\nremove psu").quiet());
}

TEST_CASE("motor-supply-too-low: no supply at all is said in so many words") {
  const Judged none("motor-supply-too-low", "from step-dir\nunwire psu.P s1.VMOT");
  CHECK(none.only() == kStop);
  CHECK(none.text() == "Nothing feeds S1 VMOT: Carriage cannot move.");
}

TEST_CASE("motor-overvoltage: the drop of the stage and the duty cap count") {
  // 12.6 V less a bridge's drop on a 6 V motor.
  const std::string on12 = "from bridge\nremove bat\npart psu adapter-12v-5a\nwire psu.P s1.12V\nwire psu.N s1.GND\nwire uno.GND s1.GND";
  const Judged hot("motor-overvoltage", on12);
  REQUIRE(hot.findings.size() == 2);
  CHECK(hot.findings[0].severity == kCaution);
  CHECK(Judged("motor-overvoltage", on12 + "\nfigure psu.full 13.2 V").findings[0].severity == kStop);
  CHECK(hot.arg("voltage") == Approx(12.6 - 1.4 - 0.35 * 1.15).margin(0.25));
  auto capped = wiredBench(on12);
  for (auto i : harness::intentsOf(capped)) {
    i.dutyCap = 0.5;
    harness::apply(capped, harness::stating(capped, i, ""));
  }
  CHECK(findingsOf(analyseFast(capped), "motor-overvoltage").empty());
  CHECK(Judged("motor-overvoltage", "from bridge").quiet());
}

TEST_CASE("motor-overvoltage: never behind a stage that regulates the current") {
  CHECK(Judged("motor-overvoltage", "from step-dir\nfigure psu.full 30 V\nfigure psu.nominal 28 V").quiet());
  CHECK(Judged("motor-overvoltage", "from stepper-bridges").quiet());
  const Judged wrongMotor("motor-overvoltage", "from stepper-bridges\nswap m stepper-nema17-1a68\nswap psu adapter-12v-5a");
  CHECK(wrongMotor.only() == kStop);
  CHECK(Judged("motor-overvoltage", "from array\nremove psu\npart psu adapter-12v-2a\nwire psu.P s1.P\nwire psu.N s1.N\nwire uno.GND s1.N")
            .only() == kStop);
}

TEST_CASE("logic-supply-out-of-range: absent, low, high, swapped") {
  CHECK(Judged("logic-supply-out-of-range", "from tb6612").quiet());
  const Judged absent("logic-supply-out-of-range", "from tb6612\nunwire pico.3V3 s1.VCC");
  CHECK(absent.only() == kStop);
  REQUIRE(absent.findings[0].repair);
  CHECK(absent.findings[0].repair->text == "Add a red wire from S1 VCC (pin) to Controller 3V3 (right row, 5th from the top).");
  // Logic supply on the motor supply: the classic.
  const Judged swapped("logic-supply-out-of-range", "from tb6612\nexchange s1.VM s1.VCC");
  REQUIRE_FALSE(swapped.quiet());
  CHECK(swapped.findings[0].severity == kStop);
  CHECK(swapped.arg("voltage") == Approx(6.4).margin(0.1));
  CHECK(Judged("logic-supply-out-of-range", "from bridge").only() == kCaution);
}

TEST_CASE("logic-supply-out-of-range: a module with its regulator link off must be fed") {
  CHECK(Judged("logic-supply-out-of-range", "from bridge\nset s1.reg off").only() == kStop);
  CHECK(Judged("logic-supply-out-of-range", "from bridge\nset s1.reg off\nwire uno.5V s1.5V").quiet());
  // Making its own, it gets no advice to feed it as well.
  CHECK_FALSE(Judged("logic-supply-out-of-range", "from bridge\nunwire bat.P s1.12V").findings[0].repair);
}

TEST_CASE("supply-reversed: both poles must be wrong, one alone is another matter") {
  CHECK(Judged("supply-reversed", "from bridge").quiet());
  CHECK(Judged("supply-reversed", "from bridge\nexchange bat.P bat.N").only() == kStop);
  CHECK(Judged("supply-reversed", "from bridge\nunwire bat.N s1.GND").quiet());
  // A source that feeds something else rightly: it is this stage's wires.
  const Judged stage("supply-reversed", "from bridge\npart s2 tb6612fng\nwire bat.P s2.GND\nwire bat.N s2.VM");
  REQUIRE(stage.only() == kStop);
  CHECK(stage.findings[0].repair->text.find("s2 VM") != std::string::npos);
}

TEST_CASE("supply-reversed: a supply that feeds only loose transistors, and the lower half of a split one") {
  const Judged turned("supply-reversed", "from bridge-loose\nexchange psu.P psu.N");
  REQUIRE(turned.only() == kStop);
  CHECK(turned.findings[0].repair);
  CHECK(Judged("supply-reversed", "from bridge-loose").quiet());
  CHECK(Judged("supply-reversed", "from bridge-loose\npart low adapter-5v-2a\npart q9 nmos-ao3400a\nwire low.P uno.GND BK\nwire low.N q9.S")
            .quiet());
}

TEST_CASE("supply-short: copper, and a part that conducts at rest") {
  CHECK(Judged("supply-short", "from low-side").quiet());
  const Judged wire("supply-short", "from low-side\nwire psu.P q1.S");
  CHECK(wire.only() == kStop);
  CHECK(wire.findings[0].harm == checks::Harm::Danger);
  CHECK_FALSE(wire.findings[0].repair);  // this one or the one from q1.S to psu.N: nobody can say
  CHECK(wire.findings[0].subjects.size() == 3);
  const Judged direct("supply-short", "from low-side\nwire psu.P psu.N");
  REQUIRE(direct.only() == kStop);
  REQUIRE(direct.findings[0].repair);
  const Judged diode("supply-short", "from low-side\npart d9 diode-1n4001\nwire d9.A psu.P\nwire d9.K psu.N");
  CHECK(diode.only() == kStop);
  CHECK(diode.findings[0].subjects == std::vector<std::string>{"psu", "d9"});
  // A diode the right way round across the supply is a fine reverse protection.
  CHECK(Judged("supply-short", "from low-side\npart d9 diode-1n4001\nwire d9.K psu.P\nwire d9.A psu.N").quiet());
  // A motor that runs at rest is no short.
  CHECK(Judged("supply-short", "from low-side\npart m9 pump-diaphragm-12v\nfigure m9.winding 9 ohm\nwire m9.P psu.P\nwire m9.N psu.N")
            .quiet());
}

TEST_CASE("output-short: rails, the other output, and a driven pin on a rail") {
  CHECK(Judged("output-short", "from bridge").quiet());
  CHECK(Judged("output-short", "from bridge\nwire s1.OUT1 s1.GND").only() == kStop);
  CHECK(Judged("output-short", "from bridge\nwire s1.OUT1 s1.OUT2").only() == kStop);
  CHECK(Judged("output-short", "from bridge\njumper s1.ENA s1.ENA-5V").only() == kStop);
  // Two motors in parallel join outputs of two channels on purpose: not this check's word.
  CHECK(Judged("output-short", "from low-side\nwire uno.D6 uno.GND").quiet());  // D6 is not driven
  CHECK(Judged("output-short", "from low-side\nwire uno.D5 uno.GND").only() == kStop);
  // Of several supplies on one minus the nearest is named: it comes first in the document here, and last there.
  const std::string lane = "part far adapter-12v-2a\nwire far.N psu.N BK 22AWG 2m\nwire s9.OUT1 far.N\npart s9 l298n-module\n";
  CHECK(Judged("output-short", "part psu adapter-12v-2a\n" + lane).text() ==
        "The output s9 OUT1 is joined to the minus of far: switching it the other way is a short.");
  CHECK(Judged("output-short", lane + "part psu adapter-12v-2a\n").text() ==
        "The output s9 OUT1 is joined to the minus of far: switching it the other way is a short.");
}

TEST_CASE("controller-unpowered: USB, jack, VIN and the 5 V pin all count as power") {
  const std::string board = "part uno board-uno-atmega328p\n";
  CHECK(Judged("controller-unpowered", board).only() == kStop);
  CHECK(Judged("controller-unpowered", board + "part usb usb-port-0a5\nplug usb.USB uno.USB").quiet());
  CHECK(Judged("controller-unpowered", board + "part v adapter-12v-2a\nwire v.P uno.VIN\nwire v.N uno.GND").quiet());
  CHECK(Judged("controller-unpowered", board + "part v adapter-5v-2a\nwire v.P uno.5V\nwire v.N uno.GND").quiet());
  CHECK(Judged("controller-unpowered", board + "part v adapter-12v-2a\nwire v.P uno.VIN").only() == kStop);
}

TEST_CASE("bulk-capacitor-missing: the repair fits what is asked for") {
  CHECK(Judged("bulk-capacitor-missing", "from bridge-in-in").quiet());
  const Judged missing("bulk-capacitor-missing", "from bridge-in-in\nremove c1");
  REQUIRE(missing.findings.size() == 1);
  REQUIRE(missing.findings[0].repair);
  CHECK(missing.findings[0].repair->text == "Fit 220 µF 35 V at S1 VB+, + to it and - to VB-, with leads of 5 cm.");
}

TEST_CASE("logic-supply-out-of-range: a stage's own regulator with nothing to feed stands at its voltage") {
  CHECK(Judged("logic-supply-out-of-range", "from step-dir-a3967").quiet());
}

TEST_CASE("motor-supply-too-high: a printed class of supplies means their tolerance too, a limit does not") {
  CHECK(Judged("motor-supply-too-high", "from array-12v-stepper").quiet());  // 12.6 V on "5 to 12 V", far below 50 V
  CHECK(Judged("motor-supply-too-high", "from array-12v-stepper\nfigure psu.full 13 V").only() == kCaution);
  CHECK(Judged("motor-supply-too-high", "from drv8833\nfigure bat.full 11 V").only() == kCaution);  // 10.8 V, and 11.8 V is the end
}

TEST_CASE("logic-supply-out-of-range: a board fed past its regulator") {
  CHECK(Judged("logic-supply-out-of-range", "from npn-regulator").quiet());
}

TEST_CASE("motor-undervoltage: a stepper on plain switches that gets far too little") {
  CHECK(Judged("motor-undervoltage", "from array").quiet());
  const Judged weak("motor-undervoltage", "from array\nswap psu battery-2aa-alkaline");
  CHECK(weak.only() == kCaution);
  CHECK(weak.arg("rated") == Approx(0.1));
  CHECK(Judged("motor-undervoltage", "from step-dir").quiet());  // a chopper's trip is current-limit-setting's matter
}
