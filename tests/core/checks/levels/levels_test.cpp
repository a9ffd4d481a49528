#include <catch2/catch.hpp>
#include <set>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
const std::string kPicoOn5 =
    "from step-dir\nswap uno board-rp2040-40 D2=GP2 D3=GP3 D4=GP4 5V=VBUS USB=USB GND=GND\n"
    "intent m both hold stage=s1 step=uno.GP2 dir=uno.GP3 enable=uno.GP4";
}

TEST_CASE("level-high: 3.3 V into 0.7 x 5 V is not promised, a caution, not a stop") {
  const Judged f("level-high", kPicoOn5);
  std::set<std::string> inputs;  // step and direction see the same, and are one finding
  for (const auto& each : f.findings) {
    CHECK(each.severity == kCaution);
    for (const auto& subject : each.subjects)
      if (subject.starts_with("s1.")) inputs.insert(subject);
  }
  CHECK(f.findings.size() == 2);
  CHECK(inputs == std::set<std::string>{"s1.DIR", "s1.EN", "s1.STEP"});
  CHECK(f.arg("voltage") == Approx(3.3).margin(0.05));
  CHECK(f.arg("high") == Approx(0.7 * 5.25).margin(0.05));
}

TEST_CASE("level-high: a rail feeding both sides tracks, TTL inputs take 3.3 V") {
  CHECK(Judged("level-high", "from step-dir-3v3").quiet());
  CHECK(Judged("level-high", "from step-dir-8825").quiet());
  CHECK(Judged("level-high", "from tb6612").quiet());
  CHECK(Judged("level-high", "from array-sbc").quiet());
}

TEST_CASE("level-high: a divider in the signal is seen") {
  const std::string divided =
      "from tb6612\nunwire pico.GP3 s1.AIN1\npart ra resistor-10k\npart rb resistor-10k\nwire pico.GP3 ra.A\nwire ra.B s1.AIN1\nwire rb.A "
      "s1.AIN1\nwire rb.B pico.GND-2";
  const Judged f("level-high", divided);
  REQUIRE(f.findings.size() == 1);
  CHECK(f.arg("voltage") == Approx(1.65).margin(0.1));
  CHECK(f.findings[0].severity == kStop);
}

TEST_CASE("input-floating: open, held by the part, tied, driven") {
  CHECK(Judged("input-floating", "from step-dir").quiet());
  CHECK(Judged("input-floating", "from step-dir\nunwire s1.RST s1.SLP").only() == kStop);
  CHECK(Judged("input-floating", "from step-dir\nunwire s1.RST s1.SLP\nwire s1.RST s1.VDD").quiet());
  CHECK(Judged("input-floating", "from step-dir\nunwire uno.D4 s1.EN").quiet());               // the carrier pulls it low
  CHECK(Judged("input-floating", "from step-dir\nunwire uno.D2 s1.STEP").only() == kCaution);  // it decides about steps, not about life
  CHECK(Judged("input-floating", "from step-dir-8825\nunwire pico.GP2 s1.STEP").quiet());
  CHECK(Judged("input-floating", "from tb6612\nunwire pico.GP5 s1.STBY").quiet());
}

TEST_CASE("input-floating: the inputs of an unused channel may be open") {
  CHECK(Judged("input-floating", "from l293d").quiet());
  CHECK(Judged("input-floating", "from bridge\nremove right\nunwire uno.D2 s1.IN3\nunwire uno.D4 s1.IN4\nunwire uno.D6 s1.ENB").quiet());
  CHECK(Judged("input-floating", "from bridge\nremove r2\nunwire uno.D6 s1.ENB").only() == kStop);
}

TEST_CASE("input-floating: a pin that the plan never drives holds nothing") {
  const Judged f("input-floating", "from bridge\nintent left both speed forward=P stage=s1 channel=A speed=uno.D5 in1=uno.D7");
  CHECK(f.only() == kStop);
  CHECK(f.text() == "S1 IN2 hangs on Controller D8, which no signal of the plan drives: Left may move by itself or stay dead.");
}

TEST_CASE("input-overvoltage: five volts at pins that tolerate them, and at their neighbours") {
  const std::string pullUp = "from vnh5019\npart r9 resistor\nfigure r9.resistance 4.7 kohm\nwire r9.B stm.5V\nwire r9.A stm.";
  CHECK(Judged("input-overvoltage", pullUp + "PB6").quiet());
  CHECK(Judged("input-overvoltage", pullUp + "PB5").only() == kCaution);
  CHECK(Judged("input-overvoltage", pullUp + "PA3").only() == kCaution);
  const Judged battery("input-overvoltage",
                       "from vnh5019\npart r9 resistor\nfigure r9.resistance 4.7 kohm\nwire r9.B bat.P\nwire r9.A stm.PB6");
  REQUIRE(battery.only() == kStop);
  CHECK(battery.findings[0].text.find("it tolerates 5.5 V") != std::string::npos);
}

TEST_CASE("isolated inputs: pulled up or down by the pin itself or by a transistor, and lit") {
  for (const auto* name : {"opto-box", "opto-common-anode", "opto-by-array"})
    for (const auto* check : {"command-outcome", "opto-input-current", "opto-never-off"}) {
      INFO(name << ": " << check);
      CHECK(Judged(check, std::string("from ") + name).quiet());
    }
  const Judged dark("opto-input-current", "from opto-by-array\nunwire esp.5V s1.PUL-P");
  REQUIRE(dark.findings.size() == 2);
  CHECK(dark.findings[0].severity == kStop);
  CHECK(dark.text().find("never lights") != std::string::npos);
  CHECK(Judged("command-outcome", "from opto-common-anode\nmove uno.D2 uno.D9").only() == kStop);
}

TEST_CASE("isolated inputs: one that the plan leaves at one level has not been seen to stay dark") {
  CHECK(Judged("opto-input-current", "from opto-box\nintent m both hold stage=s1 dir=uno.D3").quiet());
}

TEST_CASE("a stated active level is held against the truth table both ways, unsaid follows it") {
  const auto enable = [](const std::string& suffix) {
    return Judged("active-level", "from step-dir-3v3\nintent m both hold stage=s1 step=uno.GP2 dir=uno.GP3 enable=uno.GP4" + suffix);
  };
  CHECK(enable("").quiet());
  CHECK(enable("!").quiet());
  CHECK(enable("^").only() == kStop);
  CHECK(enable("^").text().find("has to be low for") != std::string::npos);
  // Both inputs of a bridge are active high, whichever way the motor is meant to turn; so is what wakes it.
  const auto bridge = [](const std::string& in1, const std::string& in2, const std::string& standby, const std::string& both) {
    return Judged("active-level", "from tb6612\nintent left " + both + " speed forward=P stage=s1 channel=A speed=pico.GP2 in1=pico.GP3" +
                                      in1 + " in2=pico.GP4" + in2 + " standby=pico.GP5" + standby);
  };
  CHECK(bridge("^", "^", "^", "both").quiet());
  CHECK(bridge("^", "^", "^", "").quiet());
  CHECK(bridge("", "!", "", "both").only() == kStop);
  CHECK(bridge("", "", "!", "").only() == kStop);
  // Step and direction have no level of their own.
  CHECK(Judged("active-level", "from step-dir-3v3\nintent m both hold stage=s1 step=uno.GP2! dir=uno.GP3^ enable=uno.GP4").quiet());
}

TEST_CASE("an enable stated high that is low is a stop, and the verdict says so") {
  const auto a = analyseFast(wiredBench("from step-dir\nintent m both hold stage=s1 step=uno.D2 dir=uno.D3 enable=uno.D4^"));
  CHECK(a.verdict == Verdict::DoNotSwitchOn);
  CHECK(analyseFast(wiredBench("from step-dir\nintent m both hold stage=s1 step=uno.D2 dir=uno.D3 enable=uno.D4")).verdict !=
        Verdict::DoNotSwitchOn);
}

TEST_CASE("the enable of a box with isolated inputs, unsaid, is driven so that the box runs, whichever end of it the pin is wired to") {
  const auto verdict = [](const std::string& enable, const std::string& active) {
    const bool sourced = enable == "sourced";
    const std::string wires = sourced ? "from opto-box\nwire s1.PUL-N s1.ENA-N BK\nwire uno.D4 s1.ENA-P BU\n"
                                      : "from opto-common-anode\nwire s1.PUL-P s1.ENA-P RD\nwire uno.D4 s1.ENA-N BU\n";
    const std::string down = sourced ? "" : "!";
    return analyseFast(
               wiredBench(wires + "intent m both hold stage=s1 step=uno.D2" + down + " dir=uno.D3" + down + " enable=uno.D4" + active))
        .verdict;
  };
  // Current through it switches the box off: at its plus end low lets it run, at its minus end high does.
  CHECK(verdict("sourced", "") == Verdict::Clear);
  CHECK(verdict("sourced", "!") == Verdict::Clear);
  CHECK(verdict("sourced", "^") == Verdict::DoNotSwitchOn);
  CHECK(verdict("sunk", "") == Verdict::Clear);
  CHECK(verdict("sunk", "^") == Verdict::Clear);
  CHECK(verdict("sunk", "!") == Verdict::DoNotSwitchOn);
}

TEST_CASE("open-drain-without-pull-up: a pull-up that the program switches on is one") {
  const std::string wired = "from drv8833\nwire s1.FLT esp.IO21\n";
  const auto with = [&](const char* mode) {
    return Judged("open-drain-without-pull-up", wired + "program esp gate.ino\n| void setup() { pinMode(21, " + mode +
                                                    "); }\n| void loop() { if (digitalRead(21) == LOW) {} }");
  };
  CHECK(Judged("open-drain-without-pull-up", wired).only() == kCaution);
  CHECK(with("INPUT").only() == kCaution);
  CHECK(with("INPUT_PULLDOWN").only() == kCaution);
  CHECK(with("INPUT_PULLUP").quiet());
}
