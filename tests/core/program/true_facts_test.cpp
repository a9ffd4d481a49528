#include <catch2/catch.hpp>

#include "core/program/reading.h"

using namespace bold;
using namespace bold::test;

namespace {

// What a sketch's setup() writes to D9 as a duty; -1: nothing that is known.
double dutyOf(const std::string& before, const std::string& duty, const std::string& board = "board-uno-atmega328p") {
  const auto s = read("a.ino", before + "\nvoid setup() { pinMode(9, OUTPUT);\n" + duty + " }\nvoid loop() {}", board);
  for (const auto& u : s.pins)
    if (u.word == "9") return u.written.value_or(-1);
  return -1;
}

std::string statesOf(const harness::SourceRead& s) {
  std::string out;
  for (const auto& g : s.groups) out += fmt::format("{} {}\n", fmt::join(g.words, ","), fmt::join(g.states, " "));
  return out;
}

}  // namespace

TEST_CASE("whole numbers wrap round as wide as their type is on the board") {
  CHECK(dutyOf("", "uint8_t v = 250; v += 10; analogWrite(9, v);") == 4);
  CHECK(dutyOf("byte v = 255;", "v++; analogWrite(9, v + 7);") == 7);
  CHECK(dutyOf("", "int v = 200 * 200 / 256; analogWrite(9, v);") == -99);  // 16 bits
  CHECK(dutyOf("", "int v = 200 * 200 / 256; analogWrite(9, v);", "board-rp2040-40") == 156);
  CHECK(dutyOf("", "long v = 200L * 200 / 256; analogWrite(9, v);") == 156);
  CHECK(dutyOf("", "unsigned int v = 65535; v = v + 101; analogWrite(9, v);") == 100);
  CHECK(dutyOf("", "int8_t v = 200; analogWrite(9, v < 0 ? 11 : 22);") == 11);
}

TEST_CASE("casts, parameters, members and what a function returns have their types") {
  CHECK(dutyOf("", "analogWrite(9, (uint8_t)300);") == 44);
  CHECK(dutyOf("", "analogWrite(9, static_cast<uint8_t>(300));") == 44);
  CHECK(dutyOf("", "analogWrite(9, (int)99.9);") == 99);
  CHECK(dutyOf("", "analogWrite(9, byte(300));") == 44);
  CHECK(dutyOf("void drive(uint8_t v) { analogWrite(9, v); }", "drive(260);") == 4);
  CHECK(dutyOf("uint8_t twice(int v) { return 2 * v; }", "analogWrite(9, twice(130));") == 4);
  CHECK(dutyOf("struct S { uint8_t v; }; S s = {300};", "analogWrite(9, s.v);") == 44);
  CHECK(dutyOf("const uint8_t steps[] = {300, 7};", "analogWrite(9, steps[0]);") == 44);
  CHECK(dutyOf("typedef uint8_t duty_t;", "duty_t v = 258; analogWrite(9, v);") == 2);
  CHECK(dutyOf("using duty_t = uint8_t;", "duty_t v = 258; analogWrite(9, v);") == 2);
  CHECK(dutyOf("float share = 1;", "share = share / 2; analogWrite(9, share * 200);") == 100);
  CHECK(dutyOf("float share = 0.5;", "int v = share * 201; analogWrite(9, v);") == 100);
}

TEST_CASE("sizeof counts bytes of the type, so that a loop over a byte array ends with it") {
  CHECK(cpp("const byte p[] = {5, 6, 7}; void setup() { for (byte i = 0; i < sizeof(p); i++) { pinMode(p[i], OUTPUT); digitalWrite(p[i], "
            "LOW); } } void loop() {}") == "D5 output write, D6 output write, D7 output write");
  const auto s =
      read("a.ino", "const byte p[] = {5, 6}; void setup() { for (byte i = 0; i < sizeof(p); i++) pinMode(p[i], OUTPUT); } void loop() {}");
  CHECK(s.untold.empty());
  CHECK(s.told == s.asked);
  CHECK(cpp("const int p[] = {5, 6}; void setup() { for (int i = 0; i < sizeof(p) / sizeof(int); i++) pinMode(p[i], OUTPUT); } void "
            "loop() {}") == "D5 output, D6 output");
}

TEST_CASE("sorted and set do what they say") {
  const auto steps = [](const std::string& order) {
    return statesOf(read("a.py",
                         "import time\nfrom machine import Pin\ncoils = [Pin(n, Pin.OUT) for n in " + order +
                             "]\nwhile True:\n  for k in range(4):\n    for i, c in enumerate(coils):\n      c.value(1 if i == k else 0)\n"
                             "    time.sleep_ms(5)\n",
                         "board-rp2040-40"));
  };
  CHECK(steps("[2, 4, 3, 5]") == "2,4,3,5 1000 0100 0010 0001\n");
  CHECK(steps("sorted([2, 4, 3, 5])") == "2,3,4,5 1000 0100 0010 0001\n");
  CHECK(steps("sorted([2, 4, 3, 5], reverse=True)") == "5,4,3,2 1000 0100 0010 0001\n");
  CHECK(steps("list(reversed([2, 4, 3, 5]))") == "5,3,4,2 1000 0100 0010 0001\n");
  CHECK(steps("sorted({2, 4, 3, 5})") == "2,3,4,5 1000 0100 0010 0001\n");
  CHECK(python("import RPi.GPIO as G\nG.setmode(G.BCM)\nfor p in set([5, 6, 5]):\n  G.setup(p, G.OUT)\n  G.output(p, 1)\n") ==
        "J8-29 output write, J8-31 output write");
}

TEST_CASE("of names that are given together each is its own pin's") {
  const auto s = read(
      "a.py", "import RPi.GPIO as G\nG.setmode(G.BCM)\nPUMP, GATE, LIGHT = 5, 6, 22\nfor p in (PUMP, GATE, LIGHT):\n  G.setup(p, G.OUT)\n",
      "sbc-header-40");
  CHECK(use(s, "J8-29").name == "PUMP");
  CHECK(use(s, "J8-31").name == "GATE");
  CHECK(use(s, "J8-15").name == "LIGHT");
  const auto c =
      read("a.ino", "const int LEFT = 5, RIGHT = 6;\nvoid setup() { pinMode(LEFT, OUTPUT); pinMode(RIGHT, OUTPUT); }\nvoid loop() {}");
  CHECK(use(c, "D5").name == "LEFT");
  CHECK(use(c, "D6").name == "RIGHT");
}

TEST_CASE("a duty that is not known has no bound") {
  const auto s =
      read("a.ino", "void setup() { pinMode(9, OUTPUT); analogWrite(9, 0); }\nvoid loop() { analogWrite(9, analogRead(0) / 4); }");
  CHECK_FALSE(use(s, "D9").duty);
  const auto known = read("a.ino", "void setup() { pinMode(9, OUTPUT); analogWrite(9, 0); }\nvoid loop() { analogWrite(9, 51); }");
  CHECK(use(known, "D9").duty == Approx(0.2));
}

TEST_CASE("a goto is said, with what stands around it open") {
  const auto s = read("a.ino", "void setup() {\npinMode(9, OUTPUT);\nagain:\ndigitalWrite(9, HIGH);\ngoto again;\n}\nvoid loop() {}");
  REQUIRE(s.untold.size() == 1);
  CHECK(s.untold[0].place.line == 5);
  CHECK(s.untold[0].reach == harness::Untold::Reach::Listed);
  CHECK(s.untold[0].pins == std::vector<std::string>{"D9"});
}

TEST_CASE("branches that exclude each other do not stand in sequence") {
  // Each pulse belongs to a branch of its own: none of them is a state after another.
  const auto s =
      read("a.ino",
           "void put(int a, int b, int c, int d) { digitalWrite(5, a); digitalWrite(6, b); digitalWrite(7, c); digitalWrite(8, d); "
           "delay(3); }\nvoid setup() { for (int p = 5; p < 9; p++) pinMode(p, OUTPUT); }\nvoid loop() { switch (analogRead(0)) { "
           "case 0: put(1, 0, 0, 0); break; case 1: put(0, 0, 1, 0); break; case 2: put(0, 1, 0, 0); break; case 3: put(0, 0, 0, "
           "1); break; } }");
  CHECK(statesOf(s).empty());
  const auto pulse = read("a.ino",
                          "void setup() { pinMode(9, OUTPUT); }\nvoid loop() { if (analogRead(0) > 5) { digitalWrite(9, HIGH); } else { "
                          "delayMicroseconds(1); digitalWrite(9, LOW); } }");
  CHECK_FALSE(use(pulse, "D9").pulse);
}

TEST_CASE("what never ends and is handed to a task, a thread or a generator's consumer swallows nothing") {
  const std::string d6 = "GP5 output write, GP6 output write";
  const auto pico = [](const std::string& text) { return python(text, "board-rp2040-40"); };
  const std::string head = "import uasyncio as asyncio\nfrom machine import Pin\na = Pin(5, Pin.OUT)\nb = Pin(6, Pin.OUT)\n";
  CHECK(
      pico(head +
           "async def blink():\n  while True:\n    a.on()\n    await asyncio.sleep(1)\nasync def main():\n  asyncio.create_task(blink())\n"
           "  b.on()\n  b.off()\nasyncio.run(main())\n") == d6);
  CHECK(pico(head + "async def one():\n  while True:\n    a.on()\n    await asyncio.sleep(1)\nasync def two():\n  while True:\n    b.on()\n"
                    "    await asyncio.sleep(1)\nasync def main():\n  await asyncio.gather(one(), two())\nasyncio.run(main())\n") == d6);
  CHECK(pico(head + "async def one():\n  while True:\n    a.on()\nloop = asyncio.get_event_loop()\nloop.create_task(one())\nb.on()\n") ==
        d6);
  CHECK(pico(head + "def wave():\n  while True:\n    yield 1\n    yield 0\ndef follow(values):\n  for v in values:\n    a.value(v)\n"
                    "import _thread\n_thread.start_new_thread(follow, (wave(),))\nb.on()\n") == d6);
  // Nobody waits for it: it never runs.
  CHECK(pico(head + "async def one():\n  a.on()\none()\nb.on()\n").find("GP5 output,") == 0);
  // After an endless loop that is waited for nothing comes.
  const auto s = read("a.py", head + "async def one():\n  while True:\n    a.on()\nasyncio.run(one())\nb.on()\n", "board-rp2040-40");
  CHECK_FALSE(use(s, "GP6").does.contains("high"));
}

TEST_CASE("an output that nobody writes is low; a pin of the board's own is no unknown pin") {
  const auto s = read("a.ino", "void setup() { pinMode(9, OUTPUT); }\nvoid loop() {}");
  CHECK(use(s, "D9").does.contains("low"));
  CHECK_FALSE(use(s, "D9").does.contains("high"));
  const auto pico =
      read("a.py", "from machine import Pin\nled = Pin(25, Pin.OUT)\nled.on()\nPin('LED', Pin.OUT).on()\nPin(47, Pin.OUT).on()\n",
           "board-rp2040-40");
  const auto word = [&](const std::string& w) { return *std::ranges::find(pico.pins, w, &harness::PinUse::word); };
  CHECK(word("25").onBoard);
  CHECK(word("LED").onBoard);
  CHECK_FALSE(word("47").onBoard);
}

TEST_CASE("a channel whose frequency is changed with its bits has another scale") {
  const auto scale = [](const std::string& text) {
    return use(read("a.ino", "void setup() {\n" + text + "\n}\nvoid loop() {}", "board-esp32-38"), "IO18").scale.value_or(0);
  };
  CHECK(scale("ledcSetup(0, 5000, 8); ledcAttachPin(18, 0); ledcWrite(0, 200);") == 256);
  CHECK(scale("ledcSetup(0, 5000, 8); ledcAttachPin(18, 0); ledcChangeFrequency(0, 2000, 10); ledcWrite(0, 768);") == 1024);
  CHECK(scale("ledcAttach(18, 5000, 8); ledcChangeFrequency(18, 2000, 10); ledcWrite(18, 768);") == 1024);
  CHECK(scale("ledcAttach(18, 5000, 8); ledcAttach(18, 5000, 12); ledcWrite(18, 768);") == 4096);
}

TEST_CASE("the pin numbers of wiringPi are its own until the program chooses others") {
  const auto c = [](const std::string& begin) {
    return pins(read("a.c", "#include <wiringPi.h>\nint main(void) { " + begin + "; pinMode(1, OUTPUT); digitalWrite(1, HIGH); }",
                     "sbc-header-40"));
  };
  CHECK(c("wiringPiSetup()") == "J8-12 output write");
  CHECK(c("wiringPiSetupGpio()").find("J8-12") == std::string::npos);
  CHECK(python("import wiringpi\nwiringpi.wiringPiSetup()\nwiringpi.pinMode(1, 1)\nwiringpi.digitalWrite(1, 1)\n") == "J8-12 output write");
  CHECK(python("import wiringpi\nwiringpi.wiringPiSetupGpio()\nwiringpi.pinMode(18, 1)\nwiringpi.digitalWrite(18, 1)\n") ==
        "J8-12 output write");
  CHECK(python("import wiringpi\nwiringpi.wiringPiSetupPhys()\nwiringpi.pinMode(12, 1)\nwiringpi.digitalWrite(12, 1)\n") ==
        "J8-12 output write");
}

TEST_CASE("pins and levels side by side are as many writes, and a constant names a pin that a bare number named before") {
  const auto s =
      read("a.py",
           "import RPi.GPIO as G\nimport time\nG.setmode(G.BCM)\nC = [17, 22, 27, 23]\nG.setup(C, G.OUT)\nfor i in range(9):\n  for s in "
           "([1,0,0,0],[0,1,0,0],[0,0,1,0],[0,0,0,1]):\n    G.output(C, s)\n    time.sleep(0.01)\n",
           "sbc-header-40");
  CHECK(statesOf(s) == "17,22,27,23 1000 0100 0010 0001\n");
  const auto c =
      read("a.ino",
           "const int LEFT_EN = 6;\nvoid setup() { for (int x : {5, 6}) pinMode(x, OUTPUT); }\nvoid loop() { analogWrite(LEFT_EN, 9); }");
  CHECK(use(c, "D6").name == "LEFT_EN");
  CHECK(use(c, "D6").number.line == 1);
}

TEST_CASE("an enumeration is gone through in the order in which it stands") {
  const auto s =
      read("a.py",
           "from enum import IntEnum\nimport RPi.GPIO as G\nG.setmode(G.BCM)\nclass Coil(IntEnum):\n  A = 17\n  B = 27\nfor p in Coil:\n  "
           "G.setup(p.value, G.OUT)\n  G.output(p, 1)\n",
           "sbc-header-40");
  CHECK(pins(s) == "J8-11 output write, J8-13 output write");
  CHECK(s.untold.empty());
}

TEST_CASE("what a function whose name says off writes is kept as off; an offset is none") {
  const auto off = [](const std::string& name) {
    return use(read("a.ino", "void " + name + "() { digitalWrite(9, HIGH); }\nvoid setup() { pinMode(9, OUTPUT); " + name +
                                 "(); }\nvoid loop() { digitalWrite(9, LOW); delay(9); }"),
               "D9")
        .off;
  };
  for (const auto* name : {"pumpOff", "pump_off", "stopAll", "STOP", "turnoff", "off2"}) CHECK(off(name) == "high");
  for (const auto* name : {"setOffset", "stopwatch", "official", "go"}) CHECK(off(name).empty());
}
