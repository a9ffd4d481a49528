#include <fmt/format.h>

#include <catch2/catch.hpp>

#include "core/program/reading.h"

// Mistakes that people make in programs, on benches that are sound: what is said first, and what to do.
using namespace bold;
using namespace bold::test;

namespace {

// Findings of the program, the gravest first: "check: headline | first way".
std::vector<std::string> said(const std::string& bench) {
  std::vector<std::string> out;
  for (const auto& f : analyseFast(wiredBench(bench)).findings)
    if (f.check.starts_with("program-") && f.severity <= checks::Severity::Caution)
      out.push_back(f.check + ": " + f.headline + " | " + (f.ways.empty() ? std::string() : f.ways.front().text));
  return out;
}
std::string all(const std::vector<std::string>& said) {
  return fmt::format("{}", fmt::join(said, "\n"));
}

std::string gate(const std::string& numbering, const std::string& pins) {
  return "from array-sbc\nprogram sbc gate.py\n| import RPi.GPIO as GPIO\n| from time import sleep\n| GPIO.setmode(GPIO." + numbering +
         ")\n| pins = [" + pins +
         "]\n| GPIO.setup(pins, GPIO.OUT)\n| try:\n|     for i in range(400):\n|         for k in range(4):\n|             "
         "GPIO.output(pins[k], "
         "i % 4 == k)\n|         sleep(0.004)\n| finally:\n|     GPIO.cleanup()\n";
}

}  // namespace

TEST_CASE("several numbers off by the same other numbering are one finding, mended by one word") {
  const auto positions = said(gate("BCM", "11, 13, 15, 16"));
  INFO(all(positions));
  REQUIRE(positions.size() == 1);
  CHECK(positions[0].starts_with("program-numbering: "));
  CHECK(positions[0].find("Choose positions on the header in gate.py, line 3 (GPIO.BOARD") != std::string::npos);
  CHECK(said(gate("BOARD", "11, 13, 15, 16")).empty());
  // The other way round: 17, 27, 22, 23 are the chip's.
  const auto chip = said(gate("BOARD", "17, 27, 22, 23"));
  INFO(all(chip));
  REQUIRE(chip.size() == 1);
  CHECK(chip[0].find("(GPIO.BCM") != std::string::npos);
  CHECK(said(gate("BCM", "17, 27, 22, 23")).empty());
}

TEST_CASE("one number that is off is a slip, and the number that is proposed is the wires'") {
  const auto one = said(gate("BCM", "17, 27, 22, 24"));
  INFO(all(one));
  REQUIRE(one.size() == 1);
  CHECK(one[0].starts_with("program-pin-slip: "));
  CHECK(one[0].find("to 23") != std::string::npos);
}

TEST_CASE("a coil table that is stepped too fast, a negative duty, a duty past its cap") {
  const auto table = [](const std::string& wait) {
    return said(
        "from array\nprogram uno gate.ino\n| const int pins[] = {8, 9, 10, 11};\n| void setup() { for (int p : pins) pinMode(p, OUTPUT); "
        "}\n| void loop() {\n|   for (int k = 0; k < 4; k++) {\n|     for (int i = 0; i < 4; i++) digitalWrite(pins[i], i == k);\n|     " +
        wait + ";\n|   }\n| }\n");
  };
  const auto fast = table("delayMicroseconds(200)");
  INFO(all(fast));
  CHECK(std::ranges::any_of(
      fast, [](const auto& x) { return x.starts_with("program-step-timing: ") && x.find("Wait 2 ms or longer") != std::string::npos; }));
  CHECK(table("delay(3)").empty());
  const auto duty = [](const std::string& value) {
    return said("from low-side\nprogram uno tank.ino\n| void setup() { pinMode(5, OUTPUT); }\n| void loop() { analogWrite(5, " + value +
                "); delay(900); analogWrite(5, 0); delay(900); }\n");
  };
  const auto overflow = duty("200 * 200 / 256");
  INFO(all(overflow));
  REQUIRE(overflow.size() == 1);
  CHECK(overflow[0].starts_with("program-duty-scale: A duty of -99 on a scale of 255"));
  CHECK(duty("200L * 200 / 256").empty());
}

TEST_CASE("a conditional loop that is stopped by hand without clean-up may leave its motor on") {
  const auto pump = [](const std::string& handler) {
    return said(
        "from darlington-sbc\nprogram sbc tank.py\n| import RPi.GPIO as GPIO\n| from time import sleep\n| GPIO.setmode(GPIO.BCM)\n| "
        "GPIO.setup(18, "
        "GPIO.OUT)\n| level = 0\n| try:\n|     while level < 5:\n|         GPIO.output(18, 1)\n|         sleep(2)\n|         "
        "GPIO.output(18, 0)\n|         "
        "sleep(2)\n|         level = int(input())\n| except KeyboardInterrupt:\n|     " +
        handler + "\n");
  };
  const auto left = pump("print('bye')");
  INFO(all(left));
  CHECK(std::ranges::any_of(left, [](const auto& x) { return x.starts_with("program-left-on: "); }));
  const auto off = pump("GPIO.output(18, 0)");
  INFO(all(off));
  CHECK(std::ranges::none_of(off, [](const auto& x) { return x.starts_with("program-left-on: "); }));
}

TEST_CASE("a pull that a library may switch on is not said to be missing") {
  const auto button = [](const std::string& before, const std::string& setup) {
    return said("from button\nprogram uno tank.ino\n| " + before + "\n| void setup() { pinMode(5, OUTPUT); " + setup +
                " }\n| void loop() { analogWrite(5, digitalRead(2) ? 0 : 150); }\n");
  };
  const auto floats = button("const int START = 2;", "pinMode(START, INPUT);");
  INFO(all(floats));
  CHECK(std::ranges::any_of(floats, [](const auto& x) { return x.starts_with("program-read-floats: "); }));
  const auto library = button("TideButton start(2);", "start.begin();");
  INFO(all(library));
  REQUIRE(library.size() == 1);
  CHECK(library[0].starts_with("program-open-effect: What the program does with uno.D2 could not be told"));
}

TEST_CASE("the line in which pins are counted is named, where the program has one") {
  const auto found = analyseFast(wiredBench(gate("BCM", "11, 13, 15, 16")));
  const auto it = std::ranges::find(found.findings, std::string("program-numbering"), &checks::Finding::check);
  REQUIRE(it != found.findings.end());
  CHECK(it->ways.front().text == "Choose positions on the header in gate.py, line 3 (GPIO.BOARD, wiringPiSetupPhys()).");
  CHECK(it->spots.front().line == 3);
}

TEST_CASE("both inputs of a bridge are on at once, but for a brake that says so") {
  const auto pump = [](const std::string& forward, const std::string& name = "forward") {
    return said(
        "from bts7960-lipo\nprogram uno pump.ino\n| void setup() { for (int p = 5; p < 9; p++) pinMode(p, OUTPUT); digitalWrite(7, HIGH); "
        "digitalWrite(8, HIGH); }\n| void " +
        name + "() { " + forward +
        " }\n| void back() { analogWrite(5, 0); analogWrite(6, 90); }\n| void ahead() { analogWrite(6, 0); analogWrite(5, 90); }\n| void "
        "rest() { analogWrite(5, 0); analogWrite(6, 0); }\n| void loop() { " +
        name + "(); delay(900); back(); delay(900); rest(); delay(900); ahead(); delay(900); }\n");
  };
  const auto both = pump("analogWrite(5, 150); analogWrite(6, 150);");
  INFO(all(both));
  REQUIRE(both.size() == 1);
  CHECK(both[0].starts_with("program-both-high: Both inputs of Pump are high at once"));
  CHECK(pump("digitalWrite(5, HIGH); digitalWrite(6, HIGH);").size() == 1);
  CHECK(pump("analogWrite(5, 150); analogWrite(6, 150);", "brake").empty());
  CHECK(pump("analogWrite(5, 150); analogWrite(6, 150);", "holdStill").empty());
  CHECK(pump("analogWrite(5, 150); analogWrite(6, 150);", "holder").size() == 1);
  CHECK(pump("analogWrite(5, 150); analogWrite(6, 0);").empty());
  // One after the other with nothing between: no time passes while both are on.
  CHECK(pump("analogWrite(6, 150); analogWrite(5, 150); analogWrite(6, 0);").empty());
  CHECK(pump("if (millis() % 2) { analogWrite(5, 150); } else { analogWrite(5, 0); } if (millis() % 2) { analogWrite(6, 0); } else { "
             "analogWrite(6, 150); }")
            .empty());
}

TEST_CASE("a button is judged with the pull that its program switches on") {
  const auto button = [](const std::string& to, const std::string& mode) {
    const auto a =
        analyseFast(wiredBench("from low-side\npart b1 button-4leg Start\nwire uno.D2 b1.1 GN\nwire b1.2b uno." + to +
                               " BU\nintent b1 1=uno.D2\nprogram uno start.ino\n| void setup() { pinMode(2, " + mode +
                               "); pinMode(5, OUTPUT); }\n| void loop() { analogWrite(5, digitalRead(2) ? 0 : 150); delay(20); }\n"));
    std::vector<std::string> out;
    for (const auto& f : a.findings)
      if ((f.check == "sensor-level" || f.check.starts_with("program-")) && f.severity <= checks::Severity::Caution)
        out.push_back(f.check + ": " + f.headline);
    return out;
  };
  CHECK(button("GND-2", "INPUT_PULLUP").empty());
  CHECK(button("5V", "INPUT_PULLUP") == std::vector<std::string>{"sensor-level: Start changes nothing at Controller D2"});
  CHECK(button("5V", "INPUT") == std::vector<std::string>{"program-read-floats: Controller D2 floats while it is read"});
}

TEST_CASE("a function that is only called from too deep is open, and one that calls itself is not") {
  std::string chain = "from low-side\nprogram uno start.ino\n";
  for (int k = 60; k > 0; --k)
    chain += fmt::format("| void f{}() {{ {} }}\n", k, k == 60 ? std::string("analogWrite(5, 90);") : fmt::format("f{}();", k + 1));
  const auto deep = said(chain + "| void setup() { pinMode(5, OUTPUT); }\n| void loop() { f1(); delay(90); }\n");
  INFO(all(deep));
  REQUIRE(deep.size() == 1);
  CHECK(deep[0].starts_with("program-open-effect: "));
  const auto again = said(
      "from low-side\nprogram uno start.ino\n| void ramp(int v) { analogWrite(5, v); delay(20); if (v < millis()) ramp(v + 1); }\n| void "
      "setup() { pinMode(5, OUTPUT); }\n| void loop() { ramp(0); analogWrite(5, 0); delay(90); }\n");
  INFO(all(again));
  CHECK(again.empty());
}

TEST_CASE("the coils behind direction and PWM inputs are switched in an order that goes round") {
  const auto gate = [](const std::string& states) {
    return said(
        "part usb usb-port-0a5\npart uno board-uno-atmega328p\nplug usb.USB uno.USB\npart psu adapter-12v-5a\npart s1 "
        "bridge-dir-pwm-2x10a\n"
        "part m stepper-nema17-0a4 Gate\nwire psu.P s1.VM\nwire psu.N s1.GND-M\nwire uno.GND s1.GND\nwire uno.D7 s1.DIR1\nwire uno.D5 "
        "s1.PWM1\n"
        "wire uno.D8 s1.DIR2\nwire uno.D6 s1.PWM2\nwire s1.M1A m.A-P\nwire s1.M1B m.A-N\nwire s1.M2A m.B-P\nwire s1.M2B m.B-N\n"
        "intent m both stage=s1 dir=uno.D7 speed=uno.D5 dir2=uno.D8 speed2=uno.D6\nprogram uno gate.ino\n| void coils(int a, int b, int c, "
        "int d) {\n"
        "|   digitalWrite(7, a); digitalWrite(5, b); digitalWrite(8, c); digitalWrite(6, d); delay(10);\n| }\n"
        "| void setup() { for (int p = 5; p <= 8; p++) pinMode(p, OUTPUT); }\n| void loop() {\n" +
        states + "| }\n");
  };
  // One winding at a time: along A, along B, back along A, back along B.
  const auto right = gate("|   coils(1, 1, 0, 0); coils(0, 0, 1, 1); coils(0, 1, 0, 0); coils(0, 0, 0, 1);\n");
  INFO(all(right));
  CHECK(right.empty());
  const auto wrong = gate("|   coils(1, 1, 0, 0); coils(0, 1, 0, 0); coils(0, 0, 1, 1); coils(0, 0, 0, 1);\n");
  INFO(all(wrong));
  REQUIRE(wrong.size() == 1);
  CHECK(wrong[0].starts_with("program-coil-order: "));
  // Written as if PWM came before direction: the names in another order mend it.
  const auto exchanged = gate("|   coils(1, 1, 0, 0); coils(0, 0, 1, 1); coils(1, 0, 0, 0); coils(0, 0, 1, 0);\n");
  INFO(all(exchanged));
  REQUIRE(exchanged.size() == 1);
  CHECK(exchanged[0].find("Name the pins in the order 5, 7, 6, 8") != std::string::npos);
}

TEST_CASE("a function that is made by another one sees what it was made with") {
  const auto tank = [](const std::string& more) {
    return said(
        "from tb6612\nprogram pico tank.py\n| from machine import Pin, PWM\n| import time\n" + more +
        "| def motor(pwm, a, b):\n|     p = PWM(Pin(pwm)); p.freq(1000)\n|     a, b = Pin(a, Pin.OUT), Pin(b, Pin.OUT)\n|     def run(v):\n"
        "|         a.value(v > 0); b.value(v < 0)\n|         p.duty_u16(int(abs(v) * 655.35))\n|     return run\n| left = motor(2, 3, 4)\n"
        "| right = motor(6, 7, 8)\n| for v in (50, -50, 0):\n|     left(v); right(v); time.sleep(2)\n");
  };
  const auto asleep = tank("");
  INFO(all(asleep));
  REQUIRE(asleep.size() == 1);
  CHECK(asleep[0].starts_with("program-pin-undriven: The program never drives Controller GP5"));
  CHECK(tank("| Pin(5, Pin.OUT).on()\n").empty());
}

TEST_CASE("a call that is handed step and direction the wrong way round is told, and so is a speed written to the wrong input") {
  const auto carriage = [](const std::string& pins) {
    return said("from step-dir\nprogram uno carriage.ino\n| #include <AccelStepper.h>\n| AccelStepper carriage(1, " + pins +
                ");\n| void setup() { pinMode(4, OUTPUT); digitalWrite(4, LOW); carriage.setMaxSpeed(600); carriage.setSpeed(300); }\n"
                "| void loop() { carriage.runSpeed(); }\n");
  };
  const auto exchanged = carriage("3, 2");
  INFO(all(exchanged));
  REQUIRE(!exchanged.empty());
  CHECK(exchanged[0].starts_with("program-pins-exchanged: Controller D3 and D2 are exchanged | Exchange 3 and 2"));
  CHECK(all(carriage("2, 3")).find("exchanged") == std::string::npos);
  const auto speed = said(
      "from bridge\nprogram uno tank.ino\n| const byte pwmL = 7, aL = 5, bL = 8;\n| void go(bool on) { digitalWrite(aL, on); "
      "digitalWrite(bL, "
      "!on); analogWrite(pwmL, 120); delay(900); }\n| void setup() { pinMode(pwmL, OUTPUT); pinMode(aL, OUTPUT); pinMode(bL, OUTPUT); }\n| "
      "void "
      "loop() { go(true); go(false); }\n");
  INFO(all(speed));
  REQUIRE(!speed.empty());
  CHECK(speed[0].starts_with("program-no-pwm: The program asks Controller D7 for PWM | Exchange 7 (pwmL) and 5 (aL) in tank.ino, line 1"));
}

TEST_CASE("a dial that is read at the pin beside the wired one is told") {
  const auto dial = [](const std::string& pin) {
    return all(said("from dial\nprogram uno dial.ino\n| void setup() { Serial.begin(9600); }\n| void loop() { Serial.println(analogRead(" +
                    pin + ")); }\n"));
  };
  CHECK(dial("A1").find("program-read-slip: The program reads A1 where Controller A0 is wired") != std::string::npos);
  CHECK(dial("A0").find("program-read-slip") == std::string::npos);
}

TEST_CASE("a pin of something else that is written among the coils is none of them") {
  // D2 belongs to a step pulse: it is written in every state, between the coils.
  const auto gate = said(
      "from array\nprogram uno gate.ino\n| #include <AccelStepper.h>\n| AccelStepper other(1, 2, 3);\n| void state(int a, int b, int c, "
      "int d) {\n"
      "|   digitalWrite(8, a); digitalWrite(9, b); digitalWrite(2, HIGH); digitalWrite(10, c); digitalWrite(11, d); delay(4);\n| }\n"
      "| void setup() { for (int p = 8; p < 12; p++) pinMode(p, OUTPUT); }\n"
      "| void loop() { state(1, 0, 0, 0); state(0, 0, 1, 0); state(0, 1, 0, 0); state(0, 0, 0, 1); }\n");
  INFO(all(gate));
  CHECK(all(gate).find("Name the pins in the order 8, 10, 9, 11") != std::string::npos);
}

TEST_CASE("a motor that relays turn round, and whose program turns it one way only") {
  const auto gate = [](const std::string& back) {
    return all(said(
        "from relays-reversing\nprogram uno gate.ino\n| void setup() { digitalWrite(7, HIGH); pinMode(7, OUTPUT); digitalWrite(8, HIGH); "
        "pinMode(8, OUTPUT); }\n| void loop() { digitalWrite(7, LOW); delay(2000); digitalWrite(7, HIGH); delay(500); " +
        back + "}\n"));
  };
  CHECK(gate("").find("The program never lets Gate turn the other way") != std::string::npos);
  CHECK(gate("digitalWrite(8, LOW); delay(2000); digitalWrite(8, HIGH); delay(500); ").empty());
}
