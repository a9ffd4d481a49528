#include "core/choose/pin_plan.h"

#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <map>

#include "core/checks/trial.h"
#include "core/choose/pin_demands.h"
#include "core/choose/stage_wiring.h"
#include "core/harness/intent.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kUnoBoard = "part usb usb-port-0a5\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n";
// A bridge module whose two motors' direction inputs are open; its jumpers hold the enables.
const std::string kTwoMotors = kUnoBoard + R"(part v adapter-12v-2a Supply
part s l298n-module Stage
part m1 brushed-gear25-12v Paddle
part m2 brushed-gear25-12v Carriage
wire s.OUT1 m1.P
wire s.OUT2 m1.N
wire s.OUT3 m2.P
wire s.OUT4 m2.N
wire v.+ s.12V
wire v.- s.GND
wire s.GND u.GND
)";

choose::PinPlan planOf(const harness::Harness& h, const std::string& motor = {}) {
  return choose::placeSignals(h, library(), choose::pinDemands(h, library(), motor));
}

std::map<std::string, std::string> givenPins(const choose::PinPlan& plan) {
  std::map<std::string, std::string> out;
  for (const auto& c : plan.choices) out[c.demand.motor + " " + c.demand.role] = c.pin.terminal;
  return out;
}

std::string whyNot(const harness::Harness& h, const choose::PinPlan& plan, std::size_t choice, const std::string& pin) {
  for (const auto& p : choose::passedOver(h, library(), plan, plan.choices[choice]))
    if (p.pin == pin) return p.why;
  return "it is there";
}

int pinFindings(const harness::Harness& h) {
  int out = 0;
  const auto a = analyseFast(harness::asPlanned(h));
  for (const auto& f : a.findings) out += f.severity != checks::Severity::Note && std::string(checks::findCheck(f.check)->family) == "pins";
  return out;
}

}  // namespace

TEST_CASE("pins of one motor lie beside each other, and those with PWM are left for who needs them") {
  // No speed: D7 and D8 are of two headers, D12 lies beside D13, which chatters at boot; two that lie side by side and have no PWM are A0
  // and A1.
  const auto h = wiredBench(kTwoMotors + "intent m1 both\nintent m2 both");
  const auto plan = planOf(h);
  CHECK(givenPins(plan) == std::map<std::string, std::string>{{"m1 in1", "A0"}, {"m1 in2", "A1"}, {"m2 in1", "A2"}, {"m2 in2", "A3"}});
  CHECK(plan.choices[0].why == "the first of 2 side by side");
  CHECK(plan.choices[1].why == "beside A0");
  CHECK(whyNot(h, plan, 0, "D0") == "is part of the console of the USB port");
  CHECK(whyNot(h, plan, 0, "D13") == "chatters while the board starts");
  CHECK(whyNot(h, plan, 0, "A2") == "is for in1 of Carriage");
  CHECK(whyNot(h, plan, 0, "D4") == "would do, but does not lie as well");
  CHECK(givenPins(planOf(h, "m2")) == std::map<std::string, std::string>{{"m2 in1", "A0"}, {"m2 in2", "A1"}});
}

TEST_CASE("speeds: a servo takes a timer, and one timer has one rate") {
  // D5 and D6 are timer 0, D9 and D10 timer 1 (the servo library's), D3 and D11 timer 2.
  const auto servo = "part t servo-micro-5v Tilt\nwire t.SIG u.D9\nwire t.GND u.GND\nwire t.VCC u.5V\nintent t pulse=u.D9\n";
  const auto h = wiredBench(kTwoMotors + servo + "intent m1 both speed\nintent m2 both speed");
  const auto plan = planOf(h);
  CHECK(givenPins(plan) ==
        std::map<std::string, std::string>{{"m1 in1", "D5"}, {"m1 in2", "D6"}, {"m2 in1", "D3"}, {"m2 in2", "D11"}, {"t pulse", "D9"}});
  CHECK(plan.choices[0].why == "the first of 2 side by side; PWM of TC0");
  CHECK(whyNot(h, plan, 0, "D10") == "needs TC1, which the servo library takes");
  CHECK(whyNot(h, plan, 0, "D7") == "has no PWM");
  // One at 1 kHz, the other at 4 kHz, no servo: two timers, in the order of the benches' motors.
  const auto rates = wiredBench(kTwoMotors + "intent m1 both speed pwm=1kHz\nintent m2 both speed pwm=4kHz");
  const auto apart = planOf(rates);
  CHECK(givenPins(apart) == std::map<std::string, std::string>{{"m1 in1", "D5"}, {"m1 in2", "D6"}, {"m2 in1", "D9"}, {"m2 in2", "D10"}});
  CHECK(whyNot(rates, apart, 2, "D3") == "would do, but does not lie as well");
}

TEST_CASE("what is wired stays, unless it cannot do what is asked of it: then one wire moves") {
  const auto wires = "wire u.D8 s.IN1\nwire u.D2 s.IN2\nwire u.D12 s.IN3\nwire u.D4 s.IN4\n";
  auto h = wiredBench(kTwoMotors + wires + "intent m1 both in1=u.D8 in2=u.D2\nintent m2 both in1=u.D12 in2=u.D4");
  const auto plan = planOf(h);
  CHECK(givenPins(plan) == std::map<std::string, std::string>{{"m1 in1", "D8"}, {"m1 in2", "D2"}, {"m2 in1", "D12"}, {"m2 in2", "D4"}});
  CHECK(plan.choices[0].why == "it has this pin already");
  CHECK(choose::pinEdit(h, library(), plan).changes.empty());
  // The jumper of channel A taken off: its enable is open and wants a duty, and D8 and D2 need none then.
  auto speed = wiredBench(kTwoMotors + "unwire s.ENA s.ENA-5V\n" + wires +
                          "intent m1 both speed in1=u.D8 in2=u.D2\nintent m2 both in1=u.D12 in2=u.D4");
  const auto with = planOf(speed);
  CHECK(givenPins(with).at("m1 speed") == "D9");
  CHECK(givenPins(with).at("m1 in1") == "D8");
  // A duty asked of D12 and D4: both wires move, as planned, and nothing else.
  h = wiredBench(kTwoMotors + wires + "intent m1 both in1=u.D8 in2=u.D2\nintent m2 both speed in1=u.D12 in2=u.D4");
  CHECK(findingsOf(analyseFast(h), "pin-no-pwm").size() == 2);
  const auto moved = planOf(h);
  CHECK(moved.choices[2].why == "the first of 2 side by side; D12, where it is, has no PWM; PWM of TC0");
  const auto before = h;
  const auto back = apply(h, choose::pinEdit(h, library(), moved));
  CHECK(h.openChanges() == 4);  // two wires away, two there
  CHECK(findingsOf(analyseFast(harness::asPlanned(h)), "pin-no-pwm").empty());
  CHECK(harness::intentOf(h, "m1") == harness::intentOf(before, "m1"));
  (void)apply(h, back);
  CHECK(h == before);
}

// An Uno-format board has interrupts at D2 and D3 and measures at A0 to A5.
TEST_CASE("sensors: an encoder gets an interrupt, a dial a pin that measures, a button any that reads") {
  const std::string sensors =
      "part e encoder-knob Knob\nwire e.VCC u.5V\nwire e.GND u.GND\npart p potentiometer Dial\nwire p.A u.5V\n"
      "wire p.B u.GND\npart b limit-switch Stop\nwire b.COM u.GND\n";
  const auto h = wiredBench(kUnoBoard + sensors);
  const auto plan = planOf(h);
  CHECK(plan.problem == "");
  const auto pins = givenPins(plan);
  CHECK(pins.at("e CLK") == "D2");  // D3 and D4 beside it for its other lines
  CHECK(pins.at("p W").starts_with("A"));
  CHECK(pins.contains("b NO"));
  CHECK_FALSE(pins.contains("b NC"));  // one side of a changeover is enough
  CHECK(whyNot(h, plan, 0, "D5") == "has no interrupt");
  for (const auto& c : plan.choices)
    if (c.demand.motor == "p") CHECK(whyNot(h, plan, static_cast<std::size_t>(&c - plan.choices.data()), "D8") == "measures no voltage");
  auto planned = h;
  apply(planned, choose::pinEdit(h, library(), plan));
  const auto a = analyseFast(harness::asPlanned(planned));
  for (const auto* check : {"sensor-pin", "pin-no-analog", "pin-conflict", "bus-lines"})
    for (const auto& f : findingsOf(a, check)) CHECK(f.text == "");
  // Three encoders, two interrupts.
  std::string three = kUnoBoard;
  for (const auto* id : {"e", "f", "g"})
    three += fmt::format("part {0} encoder-motor-hall {0}\nwire {0}.VCC u.5V\nwire {0}.GND u.GND\n", id);
  const auto none = planOf(wiredBench(three));
  CHECK(none.clashing.size() == 3);
  CHECK(none.problem.find("D2 and D3 are all that could") != std::string::npos);
}

TEST_CASE("more speeds than pins with PWM: named, and without any one of them there is room") {
  // An Uno-format board has six.
  std::string text = kUnoBoard + "part v adapter-12v-2a Supply\n";
  for (int k = 1; k <= 7; ++k)
    text += fmt::format(
        "part q{0} mosfet-module-d4184 Q{0}\npart m{0} brushed-gear25-12v M{0}\nwire q{0}.V-P m{0}.P\nwire q{0}.V-N m{0}.N\n"
        "wire v.+ q{0}.VIN\nwire v.- q{0}.GND-P\nwire u.GND q{0}.GND\nintent m{0} speed\n",
        k);
  const auto plan = planOf(wiredBench(text));
  CHECK(plan.choices.empty());
  CHECK(plan.clashing.size() == 7);
  CHECK(plan.problem.starts_with("Board cannot give "));
  CHECK(plan.problem.find("D3, D5, D6, D9, D10 and D11 with PWM are all that could. Without any one of them there is room.") !=
        std::string::npos);
}

// An ESP8266 board lets D1 and D2 float at the start and pulls D5, D6 and D7 up: four coils need two of these, held down by a resistor
// each.
TEST_CASE("pins that are pulled to on at the start are taken where there is no room otherwise, and a resistor comes with them") {
  auto h = wiredBench(
      "part usb usb-port-0a5\npart u board-esp8266-30 Board\nplug usb.USB u.USB\npart v adapter-5v-2a Supply\npart m stepper-28byj48-5v "
      "Gate\n"
      "intent m both sequence=half");
  const auto edit = choose::wireStage(h, library(), {"m", "uln2003-board", {}});
  REQUIRE(edit);
  apply(h, *edit);
  std::set<std::string> pins;
  const auto intent = harness::intentFor(h, "m");
  for (const auto& s : intent.signals) pins.insert(s.pin.terminal);
  CHECK(pins.contains("D1"));
  CHECK(pins.contains("D2"));
  CHECK(pins.size() == 4);
  const auto a = analyseFast(harness::asPlanned(h));
  CHECK(findingsOf(a, "pin-boot-state").empty());
  CHECK(a.verdict == Verdict::Clear);
  int held = 0;
  for (const auto& d : h.devices) held += d.part.starts_with("resistor");
  CHECK(held == 4);
}

TEST_CASE("pins that a stacked board has for itself are not given away, and what hangs on its register is left out") {
  auto h = good("bridge-stack");
  const auto plan = planOf(h);
  REQUIRE(plan.choices.size() == 1);  // the speed; in1 and in2 are outputs of the register
  CHECK(plan.choices[0].why == "it has this pin already; PWM of TC2");
  CHECK(whyNot(h, plan, 0, "D3") == "S1 is on it");
  CHECK(whyNot(h, plan, 0, "D9") == "would do");
}

TEST_CASE("every good bench, its signal wires torn off and placed anew: no more is said of its pins than before") {
  int placed = 0;
  for (const auto& name : goodNames()) {
    INFO(name);
    auto h = good(name);
    const auto was = choose::pinDemands(h, library());
    const int before = pinFindings(h);
    // Wires that go straight from a pin to the input that it is for.
    for (const auto& d : was)
      std::erase_if(h.connections, [&](const auto& c) {
        const Address pin{d.controller, d.has};
        return c.kind == harness::ConnectionKind::Wire && ((c.a == pin && c.b == d.end) || (c.b == pin && c.a == d.end));
      });
    h.assignments.clear();
    const auto open = choose::pinDemands(h, library());
    const auto plan = choose::placeSignals(h, library(), open);
    CHECK(plan.problem == "");
    apply(h, choose::pinEdit(h, library(), plan));
    placed += static_cast<int>(plan.choices.size());
    const int after = pinFindings(h);
    if (after > before)
      for (const auto& f : analyseFast(harness::asPlanned(h)).findings) UNSCOPED_INFO(f.text);
    CHECK(after <= before);
  }
  CHECK(placed > 100);
}
