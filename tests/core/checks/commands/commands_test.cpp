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
  for (auto& i : h.intents) i.signals.clear();
  CHECK(findingsOf(analyseFast(h), "command-outcome").empty());
}

TEST_CASE("outside-scope: 60 V is the end, alternating current never begins") {
  CHECK(Judged("outside-scope", "from low-side\nfigure psu.full 60 V").quiet());
  const auto a = analyseFast(bench("from low-side\nfigure psu.full 61 V\nfigure psu.nominal 12 V"));
  CHECK_FALSE(findingsOf(a, "outside-scope").empty());
}

TEST_CASE("not-solved: unknown figures are named, and only where they matter") {
  const Judged supply("not-solved", "from low-side\nswap psu adapter");
  REQUIRE(supply.findings.size() == 1);
  CHECK(supply.findings[0].severity == checks::Severity::NotJudged);
  CHECK(analyseFast(bench("from low-side\nswap psu adapter")).verdict != Verdict::Clear);
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
  const auto a = analyseFast(bench("from low-side\nfigure pump.winding 5 ohm\nfigure pump.stall 9 A"));
  CHECK(a.verdict == Verdict::LookAgain);
  REQUIRE_FALSE(a.why.empty());
  CHECK(a.why[0] ==
        "The replaced figures \"winding\" and \"stall\" of pump-diaphragm-12v contradict each other: 2.4 A would follow, 9 A is given. "
        "\"winding\" is used.");
  CHECK(analyseFast(bench("from low-side\nfigure pump.winding 5 ohm\nfigure pump.stall 2.5 A")).verdict == Verdict::Clear);
  const auto b = analyseFast(bench("from low-side\nfigure pump.winding -5 ohm"));
  CHECK(b.why.at(0) == "The figure \"winding\" cannot be replaced by -5 ohm. The library's figure was kept.");
}
