#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("command-outcome: crossed direction wires are one finding with one repair") {
  const Judged f("command-outcome", "from bridge\nexchange s1.IN1 s1.IN2");
  REQUIRE_FALSE(f.quiet());
  CHECK(f.findings[0].headline == "S1 IN1 and IN2 are crossed");
  CHECK(f.findings[0].repair);
  CHECK(std::ranges::count_if(f.findings, [](const auto& x) { return x.headline.find("crossed") != std::string::npos; }) == 1);
}

TEST_CASE("command-outcome: crossed motor leads turn it the wrong way only if the plan says which way is forward") {
  const std::string crossed = "from bridge\nexchange left.P left.N\n";
  CHECK(Judged("command-outcome", crossed).only() == kStop);
  CHECK(Judged("command-outcome", crossed + "intent left both speed forward=N stage=s1 channel=A speed=uno.D5 in1=uno.D7 in2=uno.D8")
            .quiet());
  CHECK(Judged("command-outcome", crossed + "intent left both speed stage=s1 channel=A speed=uno.D5 in1=uno.D7 in2=uno.D8").quiet());
}

TEST_CASE("command-outcome: a number in the program that is not the pin in the board") {
  const Judged f("command-outcome", "from low-side\nintent pump stage=q1 in=uno.D6");
  REQUIRE_FALSE(f.quiet());
  CHECK(f.text() == "The program drives in of Pump from Controller D6, but that pin is not wired to q1 gate.");
}

TEST_CASE("command-outcome: a motor lead on ground instead of the second output") {
  CHECK_FALSE(Judged("command-outcome", "from bridge\nunwire s1.OUT2 left.N\nwire left.N s1.GND").quiet());
}

TEST_CASE("command-outcome: a motor that runs although all is off") {
  const Judged f("command-outcome", "from low-side\nwire q1.D q1.S");
  REQUIRE_FALSE(f.quiet());
  CHECK(f.findings.back().formula.find("all off: Pump runs forward") != std::string::npos);
}

TEST_CASE("command-outcome: the plan of another channel is noticed") {
  CHECK_FALSE(Judged("command-outcome", "from bridge\nexchange left.P right.P\nexchange left.N right.N").quiet());
}

TEST_CASE("command-outcome: without signals nothing is said about pins") {
  auto h = good("bridge");
  h.assignments.clear();
  CHECK(findingsOf(analyseFast(h), "command-outcome").empty());
}

TEST_CASE("outside-scope: 60 V is the end, alternating current never begins") {
  CHECK(Judged("outside-scope", "from low-side\nfigure psu.full 60 V").quiet());
  const auto a = analyseFast(wiredBench("from low-side\nfigure psu.full 61 V\nfigure psu.nominal 12 V"));
  CHECK_FALSE(findingsOf(a, "outside-scope").empty());
}

TEST_CASE("not-solved: unknown figures are named, and only where they matter") {
  const Judged supply("not-solved", "from low-side\nswap psu adapter");
  REQUIRE(supply.findings.size() == 1);
  CHECK(supply.findings[0].severity == checks::Severity::NotJudged);
  CHECK(analyseFast(wiredBench("from low-side\nswap psu adapter")).verdict != Verdict::Clear);
  const Judged motor("not-solved", "from low-side\nswap pump brushed-motor");
  CHECK(motor.only() == kCaution);
  CHECK(motor.text() ==
        "The winding resistance and running current of Pump are unknown: its currents are not judged. Measure and enter them.");
  CHECK(Judged("not-solved", "from low-side\npart spare adapter").quiet());
  CHECK(Judged("not-solved",
               "from low-side\nswap pump brushed-motor\nfigure pump.winding 5 ohm\nfigure pump.run 0.5 A\nfigure pump.nominal 12 V")
            .quiet());
}

TEST_CASE("replacements that cannot be used or contradict each other are said, not swallowed") {
  const auto a = analyseFast(wiredBench("from low-side\nfigure pump.winding 5 ohm\nfigure pump.stall 9 A"));
  CHECK(a.verdict == Verdict::LookAgain);
  REQUIRE_FALSE(a.why.empty());
  CHECK(a.why[0] ==
        "The replaced figures \"winding\" and \"stall\" of pump-diaphragm-12v contradict each other: 2.4 A would follow, 9 A is given. "
        "\"winding\" is used.");
  CHECK(analyseFast(wiredBench("from low-side\nfigure pump.winding 5 ohm\nfigure pump.stall 2.5 A")).verdict == Verdict::Clear);
  const auto b = analyseFast(wiredBench("from low-side\nfigure pump.winding -5 ohm"));
  CHECK(b.why.at(0) == "The figure \"winding\" cannot be replaced by -5 ohm: it is 1 uohm to 1000 Mohm. The library's figure was kept.");
  // Beside a stop as well.
  const auto c = analyseFast(wiredBench("from low-side\nfigure pump.winding -5 ohm\nremove d1"));
  CHECK(c.verdict == Verdict::DoNotSwitchOn);
  CHECK(c.why == b.why);
}

TEST_CASE("never-driven, command-outcome: a gate that a pin steers through transistors") {
  CHECK(Judged("never-driven", "from mosfet-12v-gate").quiet());
  CHECK(Judged("command-outcome", "from mosfet-12v-gate").quiet());
  CHECK(Judged("never-driven", "from mosfet-12v-gate\nunwire q1.C r2.A").only() == kStop);
  // One transistor turns the level over: the plan has to say so.
  const std::string inverter =
      "from mosfet-12v-gate\nremove q2\nremove r3\nremove r4\npart r5 resistor-1k\nwire r5.A psu.P\nwire r5.B q3.G\n"
      "wire r2.B q3.G\nfigure r2.resistance 10 ohm\n";
  CHECK(Judged("command-outcome", inverter + "intent pump forward=P stage=q3 in=uno.D6!").quiet());
  CHECK(Judged("active-level", inverter + "intent pump forward=P stage=q3 in=uno.D6!").quiet());
  CHECK(Judged("command-outcome", inverter).text() ==
        "Through these wires, all off: Pump runs forward; and 1 more command comes out wrong.");
  // Straight to the gate nothing turns over.
  CHECK(Judged("active-level", "from low-side\nintent pump stage=q1 in=uno.D5!").only() == kStop);
}

TEST_CASE("command-outcome: a mode input tied to ground chooses the truth table's rows") {
  CHECK(Judged("command-outcome", "from drv8835").quiet());
  CHECK(Judged("stage-not-awake", "from drv8835").quiet());
  CHECK(Judged("command-outcome", "from drv8835-phase").quiet());
}

TEST_CASE("command-outcome: a unipolar stepper on single switches, whichever pin drives which") {
  CHECK(Judged("command-outcome", "from stepper-array-chip").quiet());
  CHECK(Judged("phase-order", "from stepper-array-chip").quiet());
  // The chip's inputs may be used in any order as long as plan and coils agree.
  CHECK(Judged("phase-order", "from stepper-array-chip\nexchange s1.1B s1.2B\nexchange s1.1C s1.2C").quiet());
  const Judged crossed("phase-order", "from stepper-array-chip\nexchange s1.1B s1.2B");
  CHECK(crossed.only() == kStop);
  CHECK(std::ranges::count(crossed.findings[0].subjects, "sbc.P1-11") == 1);
  CHECK(Judged("command-outcome", "from stepper-array-chip\nexchange s1.1B s1.2B").quiet());
  CHECK(Judged("command-outcome", "from stepper-mosfets").quiet());
}

TEST_CASE("not-solved: what hangs on an unknown figure is not judged, the rest is") {
  const std::string unset = "from low-side\nremove r1\npart rx resistor\nwire uno.D5 rx.A\nwire rx.B q1.G\n";
  CHECK(Judged("not-solved", unset).text() == "Without the resistance of rx nothing behind it can be judged. Enter it as a figure of rx.");
  CHECK(Judged("command-outcome", unset).quiet());
  CHECK(Judged("not-solved", unset + "figure rx.resistance 220 ohm").quiet());
  CHECK(Judged("not-solved", "from low-side-bench-supply").quiet());
  const std::string supply = "from low-side-bench-supply\nremove psu\npart psu supply-bench\nwire psu.P pump.P\nwire psu.N q1.S\n";
  CHECK(Judged("not-solved", supply).text() == "Without the voltage of psu nothing it feeds can be judged. Enter it as a figure of psu.");
  CHECK(Judged("command-outcome", supply).quiet());
  // Another motor, on a supply that is known, is judged as ever: its gate hangs on nothing.
  const std::string other =
      "part p2 adapter-12v-2a\npart m2 brushed-gear25-12v\npart q2 nmos-irlz44n\npart d2 diode-1n5822\nwire p2.P m2.P\nwire m2.N q2.D\n"
      "wire q2.S p2.N\nwire p2.N q1.S\nwire d2.K m2.P\nwire d2.A m2.N\nintent m2 stage=q2 in=uno.D6\n";
  CHECK_FALSE(Judged("command-outcome", supply + other).quiet());
}

TEST_CASE(
    "not-solved: a stage that only nearly empty cells no longer hold on is worth knowing, a regulated supply at its lower end a caution") {
  CHECK(Judged("not-solved", "from drv8833-one-battery").quiet());
  const Judged end("not-solved", "from drv8833-one-battery\nfigure bat.empty 2.6 V");
  CHECK(end.only() == kNote);
  CHECK(end.text() ==
        "\"Gate forward\" and 1 more draw a stage's supply below the voltage it works at when the motor is held or the supplies are nearly "
        "empty: it drops out, recovers and drops out again. The currents and voltages given are those while it is on.");
  // A motor that is far too large: the adapter goes into its limit, and what is judged is what flows then.
  const std::string large = "from drv8871\nswap m brushed-775-12v";
  CHECK(Judged("not-solved", large).only() == kStop);
  CHECK_FALSE(Judged("motor-supply-too-low", large).quiet());
  CHECK_FALSE(Judged("stall-current", large).quiet());
  // What steers itself has no rest to be judged at.
  const Judged ring("not-solved", "from drv8833\nunwire esp.IO17 s1.IN2\nwire s1.OUT1 s1.IN2");
  CHECK(std::ranges::count(ring.findings, checks::Severity::NotJudged, &checks::Finding::severity) == 1);
}

TEST_CASE("half a bridge is a switch: its motor's plan, its levels and its neighbour's stay apart") {
  for (const auto* check : {"command-outcome", "stage-not-awake", "never-driven", "shared-channel", "pin-boot-state"}) {
    INFO(check);
    CHECK(Judged(check, "from l293d-one-way").quiet());
  }
  CHECK(Judged("motor-to-ground", "from l293d-one-way").findings.size() == 2);
  CHECK(Judged("command-outcome", "from l293d-one-way\nunwire uno.D4 s1.1A").findings.size() > 0);
  // On the supply instead of on ground it runs when its output is low.
  const std::string top = "from l293d-one-way\nunwire m2.N s1.GND-3\nunwire s1.2Y m2.P\nwire s1.2Y m2.N\nwire psu.P m2.P\n";
  CHECK(Judged("command-outcome", top).quiet());
  CHECK(Judged("pin-boot-state", top).only() == kStop);  // its pull-down now runs it
}
