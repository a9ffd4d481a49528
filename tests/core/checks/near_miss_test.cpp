#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

// Just inside and just outside: a limit that is met is no alarm, one that is passed is never missed.
namespace {
std::string with(const std::string& name, const std::string& lines) {
  return "from " + name + "\n" + lines;
}
}  // namespace

TEST_CASE("capacitor-rating: 16 V at 12.6 V is enough, 14 V is scant, 12 V is broken") {
  const auto rated = [](const std::string& volts) {
    return Judged("capacitor-rating",
                  with("step-dir", "swap c1 capacitor-electrolytic\nfigure c1.capacitance 100 uF\nfigure c1.rated " + volts));
  };
  CHECK(rated("16 V").quiet());
  CHECK(rated("14 V").only() == kCaution);
  CHECK(rated("12 V").only() == kStop);
}

TEST_CASE("step-timing: an A4988 needs a microsecond") {
  const auto length = [](const std::string& l) {
    return Judged("step-timing", with("step-dir", "intent m both hold length=" + l + " stage=s1 step=uno.D2 dir=uno.D3 enable=uno.D4"));
  };
  CHECK(length("1.2us").quiet());
  CHECK(length("0.8us").only() == kStop);
}

TEST_CASE("microstep-setting: open mode pins make full steps") {
  const auto steps = [](const std::string& n) {
    return Judged("microstep-setting",
                  with("step-dir", "intent m both hold steps=" + n + " stage=s1 step=uno.D2 dir=uno.D3 enable=uno.D4"));
  };
  CHECK(steps("200").quiet());
  CHECK(steps("1600").only() == kCaution);
}

TEST_CASE("a stacked carrier board passes its mode jumpers on to the carrier") {
  const std::string eighths = "intent m both hold steps=1600 stage=s1 step=uno.D2 dir=uno.D5 enable=uno.D8";
  CHECK(Judged("microstep-setting", with("stack-carriers", eighths)).only() == kCaution);
  CHECK(Judged("microstep-setting", with("stack-carriers", "set k.xMS1 fitted\nset k.xMS2 fitted\n" + eighths)).quiet());
}

TEST_CASE("servo-supply: 5 V is right, four NiMH cells are little, two lithium cells destroy it") {
  CHECK(Judged("servo-supply", "from servo").quiet());
  CHECK(Judged("servo-supply", with("servo", "swap psu battery-4aa-nimh")).only() == kCaution);
  CHECK(Judged("servo-supply", with("servo", "swap psu battery-lithium-2s")).only() == kStop);
}

TEST_CASE("fuse: above what runs, below what the wires carry") {
  CHECK(Judged("fuse", "from vnh5019").quiet());                                       // 5 A between 1.2 A and 12 A
  CHECK(Judged("fuse", with("vnh5019", "figure f1.rating 1 A")).only() == kCaution);   // blows in use
  CHECK(Judged("fuse", with("vnh5019", "figure f1.rating 15 A")).only() == kCaution);  // the wire goes first
  CHECK(Judged("fuse", with("vnh5019", "figure f1.rating 10 A")).quiet());             // a capacitor's thin leads carry no supply current
}

TEST_CASE("contact-current: a connector by its own rating, and it is no switch") {
  CHECK(Judged("contact-current", "from daq-connector").quiet());
  const Judged caution("contact-current", with("daq-connector", "figure j1.rating 0.5 A\nfigure pump.run 0.6 A"));
  CHECK(caution.only() == kCaution);
  CHECK(caution.findings.at(0).subjects == std::vector<std::string>{"j1"});
  CHECK(Judged("contact-current", with("daq-connector", "figure j1.rating 0.2 A\nfigure pump.run 0.6 A")).only() == kStop);
  CHECK(Judged("switch-rating", with("daq-connector", "figure j1.rating 0.2 A")).quiet());
  // Good for what runs, and four times too small for the motor held: 12 V / 14 ohm.
  const Judged held("contact-current", with("daq-connector", "figure j1.rating 0.2 A\nfigure pump.run 0.1 A"));
  CHECK(held.only() == kCaution);
  CHECK(held.arg("current") == Approx(0.87).epsilon(0.05));
  CHECK(Judged("contact-current", with("daq-connector", "figure j1.rating 0.25 A\nfigure pump.run 0.1 A")).quiet());
  // A plug in a stepper's lead is no switch that somebody opens; a switch is.
  CHECK(Judged("coil-interrupted", with("step-dir-3v3", "part j9 connector-xh-4\nwire s1.A1 j9.1A\nwire j9.1B m.A-P")).quiet());
  CHECK(Judged("coil-interrupted", with("step-dir-3v3", "part j9 switch-spst\nwire s1.A1 j9.A\nwire j9.B m.A-P")).only() == kStop);
}

TEST_CASE("switch-rating: what a stalled motor draws goes through the switch") {
  CHECK(Judged("switch-rating", "from vnh5019").quiet());
  CHECK(Judged("switch-rating", with("vnh5019", "figure m.winding 2 ohm")).only() == kCaution);
}

TEST_CASE("wire-current: 30 AWG carries 0.8 A, and without a gauge what such wires usually are") {
  CHECK(Judged("wire-current", "from vnh5019").quiet());
  CHECK_FALSE(Judged("wire-current", with("vnh5019", "unwire s1.OUTA m.P\nwire s1.OUTA m.P 30AWG 0.3m")).quiet());
  CHECK(Judged("wire-current", with("vnh5019", "unwire s1.OUTA m.P\nwire s1.OUTA m.P")).quiet());
}

TEST_CASE("open-lead: a stacked board with one header left out") {
  CHECK(Judged("open-lead", "from bridge-stack").quiet());
  const Judged half("open-lead", with("bridge-stack", "unwire uno.digital-7-0-right s1.digital-7-0-right"));
  CHECK(half.only() == kCaution);
  CHECK(half.text().find("\"digital 7-0, right\" is not plugged") != std::string::npos);
}

TEST_CASE("open-lead: a loose part that nothing is wired to is only noted, one leg in the air is not") {
  CHECK(Judged("open-lead", with("low-side", "part d9 diode-1n4001")).only() == kNote);
  CHECK(Judged("open-lead", with("low-side", "part d9 diode-1n4001\nwire d9.A psu.N")).only() == kCaution);
}

TEST_CASE("wire-to-itself: a part with both legs on one net does nothing") {
  CHECK(Judged("wire-to-itself", "from low-side").quiet());
  CHECK(Judged("wire-to-itself", with("low-side", "part r9 resistor-10k\nwire r9.A psu.N\nwire r9.B uno.GND")).only() == kCaution);
}

TEST_CASE("capacitor-on-output: ten nanofarads on a step pin pass, a microfarad does not") {
  const auto on = [](const std::string& farads) {
    return Judged("capacitor-on-output",
                  with("step-dir", "part c9 capacitor-ceramic\nfigure c9.capacitance " + farads + "\nwire c9.A uno.D2\nwire c9.B uno.GND"));
  };
  CHECK(on("10 nF").quiet());
  CHECK(on("1 uF").only() == kCaution);
}

TEST_CASE("logic-supply-out-of-range: a supply that comes through a pull resistor is there only at times") {
  CHECK(Judged("logic-supply-out-of-range", "from step-dir-esp32").quiet());
  CHECK(Judged("logic-supply-out-of-range", with("step-dir-esp32", "unwire esp.3V3 s1.VIO")).only() == kStop);
}

TEST_CASE("command-outcome: both directions asked of a stage that turns one way only") {
  CHECK(Judged("command-outcome", "from low-side").quiet());
  const Judged f("command-outcome", with("low-side", "intent pump both forward=P stage=q1 in=uno.D5"));
  REQUIRE(f.only() == kStop);
  CHECK(f.findings[0].formula.find("can turn it one way only") != std::string::npos);
}

TEST_CASE("reversal-current: a plan that lets it coast is believed, a sudden one is judged") {
  const std::string intent = " speed forward=P stage=s1 channel=A speed=uno.D3 in1=uno.D4 in2=uno.D7";
  CHECK(Judged("reversal-current", with("l293d", "figure m.winding 8 ohm\nintent m both ramp" + intent)).quiet());
  CHECK_FALSE(Judged("reversal-current", with("l293d", "figure m.winding 8 ohm\nintent m both" + intent)).quiet());
}

TEST_CASE("junction-temperature: what burns is not given a temperature") {
  const Judged f("junction-temperature", readFile("demo/wave-tank-first-try.bench"));
  REQUIRE_FALSE(f.quiet());
  CHECK(f.findings[0].text.find("more than") != std::string::npos);
}
