#include "core/program/reading.h"

#include <catch2/catch.hpp>
#include <set>

#include "support/process.h"

using namespace bold;
using namespace bold::test;
using harness::PinUse;

TEST_CASE("numbers of pins are found through constants, macros, enums, arrays, structs, classes and simple sums") {
  const auto drive = [](const std::string& before, const std::string& pin) {
    return cpp(before + "\nvoid setup() { pinMode(" + pin + ", OUTPUT); digitalWrite(" + pin + ", HIGH); }\nvoid loop() {}");
  };
  const std::string d6 = "D6 output write";
  CHECK(drive("", "6") == d6);
  CHECK(drive("#define P 6", "P") == d6);
  CHECK(drive("#define BASE 2\n#define P (BASE * 3)", "P") == d6);
  CHECK(drive("#define SHIFT(x) ((x) + 1)\n#define P SHIFT(5)", "P") == d6);
  CHECK(drive("#define JOIN(a, b) a##b\nconst int PIN_A = 6;", "JOIN(PIN_, A)") == d6);
  CHECK(drive("static const uint8_t P = 6;", "P") == d6);
  CHECK(drive("constexpr auto P = 0x6;", "P") == d6);
  CHECK(drive("enum { A, B, C = 5, P };", "P") == d6);
  CHECK(drive("enum class Pin : byte { P = 6 };", "(int)Pin::P") == d6);
  CHECK(drive("namespace pins { const int P = 6; }", "pins::P") == d6);
  CHECK(drive("int p[] = {4, 6, 8};", "p[1]") == d6);
  CHECK(drive("int p[2][2] = {{4, 5}, {6, 7}};", "p[1][0]") == d6);
  CHECK(drive("struct S { int a, b; }; S s = {5, 6};", "s.b") == d6);
  CHECK(drive("struct S { int a; int b; }; const S s = {.a = 5, .b = 6};", "s.b") == d6);
  CHECK(drive("struct S { int p; S(int n) : p(n + 1) {} }; S s(5);", "s.p") == d6);
  CHECK(drive("struct S { static const int P = 6; };", "S::P") == d6);
  CHECK(drive("int f(int n) { return n * 2; }", "f(3)") == d6);
  CHECK(drive("int f() { if (millis() > 5) return 6; return 6; }", "f()") == d6);
  CHECK(drive("#include <array>\nstd::array<int, 2> p = {6, 7};", "p.at(0)") == d6);
  CHECK(drive("const int P = true ? 6 : 7;", "P") == d6);
  CHECK(drive("typedef struct { uint8_t pin; } led_t; led_t l = {6};", "l.pin") == d6);
  CHECK(drive("int p = 4; int* q = &p;", "*q + 2") == d6);
}

TEST_CASE("loops over pins are followed, and what is chosen while it runs is one or the other") {
  CHECK(cpp("const int p[] = {5, 6}; void setup() { for (int x : p) pinMode(x, OUTPUT); for (int i = 0; i < sizeof(p) / sizeof(p[0]); i++) "
            "digitalWrite(p[i], LOW); } void loop() {}") == "D5 output write, D6 output write");
  CHECK(cpp("const int p[] = {5, 6}; void setup() { int i = 0; while (i < 2) { pinMode(p[i], OUTPUT); i++; } do { i--; digitalWrite(p[i], "
            "HIGH); } while (i > 0); } void loop() {}") == "D5 output write, D6 output write");
  const auto either =
      read("a.ino", "void setup() { int p = digitalRead(2) ? 5 : 6; pinMode(p, OUTPUT); digitalWrite(p, HIGH); } void loop() {}");
  CHECK(pins(either) == "D2 read, D5 output write, D6 output write");
  CHECK_FALSE(use(either, "D5").sure);
  CHECK(use(either, "D2").sure);
  // How many there are is not known: any of them.
  CHECK(cpp("const int p[] = {5, 6, 7}; void all(int n) { for (int i = 0; i < n; i++) digitalWrite(p[i], HIGH); } void setup() { "
            "all(analogRead(0)); } void loop() {}") == "A0 analog, D5 write, D6 write, D7 write");
  CHECK(cpp("void setup() { switch (digitalRead(2)) { case 0: digitalWrite(5, HIGH); break; default: digitalWrite(6, HIGH); } } void "
            "loop() {}") == "D2 read, D5 write, D6 write");
}

TEST_CASE("what depends on the compiler is known with the board, and else stays one or the other") {
  const std::string text = "#ifdef ESP32\n#define P 5\n#else\n#define P 6\n#endif\nvoid setup() { digitalWrite(P, HIGH); } void loop() {}";
  CHECK(cpp(text) == "D6 write");
  CHECK(pins(read("a.ino", text, "board-esp32-38")) == "IO5 write");
  CHECK(cpp("#if F_CPU > 9\n#define P 5\n#else\n#define P 6\n#endif\nvoid setup() { digitalWrite(P, HIGH); } void loop() {}") ==
        "D5 write, D6 write");
  CHECK(cpp("#ifdef DEBUG\nconst int p = 5;\n#endif\n#ifndef DEBUG\nconst int p = 6;\n#endif\nvoid setup() { digitalWrite(p, HIGH); } void "
            "loop() {}") == "D6 write");
  CHECK(cpp("#if 0\n#error no\nvoid broken( {\n#endif\nvoid setup() {\n#if defined(A) || 1 > 2\ndigitalWrite(4, HIGH);\n#elif (2 << 1) == "
            "4 && !defined B\ndigitalWrite(5, HIGH);\n#else\ndigitalWrite(6, HIGH);\n#endif\n} void loop() {}") == "D5 write");
}

TEST_CASE("what cannot be known is said with its place and never guessed") {
  const auto s = read("a.ino", "void setup() {\n  int p = analogRead(0);\n  digitalWrite(p, HIGH);\n}\nvoid loop() {}");
  CHECK(pins(s) == "A0 analog");
  CHECK(s.asked == 2);
  CHECK(s.told == 1);
  REQUIRE(s.untold.size() == 1);
  CHECK(s.untold[0].place == harness::Spot{"a.ino", 3, 3, 21});
  CHECK(s.untold[0].what.starts_with("which pin digitalWrite means is not known: what analogRead gives"));
  const auto lib = read("a.ino", "#include <Tide.h>\nTide pump(10, 11);\nvoid setup() {}\nvoid loop() {}");
  CHECK(lib.pins.empty());
  REQUIRE(lib.untold.size() == 1);
  CHECK(lib.untold[0].place.line == 2);
}

TEST_CASE("a number is found where it stands, also through macros and includes") {
  const auto at = [](const harness::SourceRead& s, const std::string& terminal) { return use(s, terminal).number; };
  const auto s = read(
      "a.ino", "#define EN 9  // paddle\nconst int äö = 8;\nvoid setup() { pinMode(EN, OUTPUT); digitalWrite(äö, 1); }\nvoid loop() {}");
  CHECK(at(s, "D9") == harness::Spot{"a.ino", 1, 12, 1});
  CHECK(at(s, "D8") == harness::Spot{"a.ino", 2, 16, 1});  // columns count characters
  CHECK(use(s, "D9").name == "EN");
  CHECK(use(s, "D8").name == "äö");
  const auto files = program::readTexts({{"a.ino", "#include \"pins.h\"\nvoid setup() { pinMode(EN, OUTPUT); }\nvoid loop() {}"},
                                         {"pins.h", "#pragma once\n\n#define EN 9\n"}},
                                        "board-uno-atmega328p", program::shippedCalls());
  const auto two = program::pinsUsed(files, "uno", *library().find("board-uno-atmega328p"), program::shippedCalls(), "src/");
  CHECK(at(two, "D9") == harness::Spot{"src/pins.h", 3, 12, 1});
  CHECK(two.files.size() == 2);
}

TEST_CASE("Python is followed through modules, classes, comprehensions, both numbering modes and what runs at the end") {
  const std::string head = "import RPi.GPIO as GPIO\nGPIO.setmode(GPIO.BCM)\n";
  CHECK(python(head + "for p in (17, 27): GPIO.setup(p, GPIO.OUT); GPIO.output(p, 1)") == "J8-11 output write, J8-13 output write");
  CHECK(python("import RPi.GPIO as G\nG.setmode(G.BOARD)\nG.setup([11, 13], G.OUT)\nG.output([11, 13], G.HIGH)") ==
        "J8-11 output write, J8-13 output write");
  CHECK(python(head + "pins = {'a': 17}\nclass M:\n  def __init__(self, p=27):\n    self.p = p\n    GPIO.setup(p, GPIO.OUT)\n  @property\n "
                      " def pin(self):\n    return self.p\nm = M()\nk = M(p=pins['a'])\nGPIO.output(m.pin, 1)") ==
        "J8-11 output, J8-13 output write");
  CHECK(python(head + "ps = [p + 1 for p in [16, 26] if p > 0]\n[GPIO.output(p, 0) for p in ps]") == "J8-11 write, J8-13 write");
  CHECK(python("from gpiozero import Motor\nm = Motor(forward=17, backward=27, enable=18)\nm.forward(0.5)\nm.stop()") ==
        "J8-11 output pwm, J8-12 output write, J8-13 output pwm");
  CHECK(python("from gpiozero import *\nled = LED('BOARD11')\nled.on()") == "J8-11 output write");
  const auto last = [&](const std::string& text) {
    return use(read("a.py", head + "GPIO.setup(17, GPIO.OUT)\n" + text, "sbc-header-40"), "J8-11").last;
  };
  CHECK(last("GPIO.output(17, 1)") == "high");
  CHECK(last("GPIO.output(17, 1)\nGPIO.output(17, 0)") == "low");
  CHECK(last("GPIO.output(17, 1)\nGPIO.cleanup()") == "released");
  CHECK(last("import random\nGPIO.output(17, random.random() > 0.5)") == "unsure");
  CHECK(last("try:\n  while True:\n    GPIO.output(17, 1)\nexcept KeyboardInterrupt:\n  GPIO.output(17, 0)") == "low");
  CHECK(last("while True:\n  GPIO.output(17, 1)\n  GPIO.output(17, 0)") == "unsure");
  CHECK(last("def off():\n  GPIO.output(17, 0)\nimport atexit\natexit.register(off)\nGPIO.output(17, 1)") == "low");
  CHECK(python("from machine import Pin, PWM\np = PWM(Pin(3), freq=500)\np.duty_u16(1000)\nq = Pin('GP4', Pin.IN, Pin.PULL_UP)\nq.value()",
               "board-rp2040-40") == "GP3 output pwm, GP4 pull-up read");
}

TEST_CASE("registers, bit-fields and masks name the pins that their bits are") {
  const auto c = [](const std::string& text, const std::string& board = "board-uno-atmega328p") { return pins(read("a.c", text, board)); };
  CHECK(c("int main(void) { DDRB |= (1 << PB1) | _BV(2); PORTB |= 1 << PB1; PORTB &= ~(1 << 2); }") == "D10 output write, D9 output write");
  CHECK(c("int main(void) { DDRB = 0x03; PORTB = 0x01; PORTB ^= 0x02; }") == "D8 output write, D9 output write");
  CHECK(c("int main(void) { DDRD &= ~(1 << PD2); if (PIND & (1 << PD2)) { DDRD |= 1 << 5; PORTD |= 1 << 5; } }") ==
        "D2 read, D5 output write");
  CHECK(c("#define sbi(r, b) ((r) |= (1 << (b)))\nint main(void) { sbi(DDRB, 0); sbi(PORTB, 0); }") == "D8 output write");
  CHECK(c("int main(void) { DDRD |= 1 << 6; OCR0A = 128; }") == "D6 output pwm");
  CHECK(c("void main(void) { TRISBbits.TRISB3 = 0; LATBbits.LATB3 = 1; TRISC = 0xFE; LATC = 1; RB4 = 1; }", "chip-pic16f877a") ==
        "RB3 output write, RB4 write, RC0 output write");
  CHECK(c("int main(void) { GPIOA->BSRR = 1 << 3; GPIOA->BSRR = 1 << (4 + 16); GPIOA->ODR ^= 1 << 5; }", "board-stm32f103-40") ==
        "PA3 write, PA4 write, PA5 write");
  CHECK(c("int main() { gpio_set_dir_out_masked(0x30); gpio_set_mask(1u << 4); gpio_clr_mask(1u << 5); }", "board-rp2040-40") ==
        "GP4 output write, GP5 output write");
}

TEST_CASE("duty, scale, frequency, pulses and rates are read") {
  const auto s = read("a.ino",
                      "void setup() { pinMode(5, OUTPUT); analogWriteResolution(10); analogWriteFrequency(5, 20000); }\nvoid loop() { "
                      "analogWrite(5, 512); analogWrite(5, 0); "
                      "digitalWrite(2, HIGH); delayMicroseconds(4); digitalWrite(2, LOW); delay(1); }");
  CHECK(*use(s, "D5").duty == Approx(512 / 1023.0));
  CHECK(*use(s, "D5").scale == 1023);
  CHECK(use(s, "D5").frequency->value == 20000);
  CHECK(use(s, "D2").pulse->value == Approx(4e-6));
  CHECK(use(s, "D2").rate->value == Approx(1 / 1.004e-3));
  const auto pico = read("a.c",
                         "int main() { gpio_set_function(2, GPIO_FUNC_PWM); gpio_set_function(3, GPIO_FUNC_PWM); uint s = "
                         "pwm_gpio_to_slice_num(2); pwm_set_wrap(s, 1249); pwm_set_clkdiv(s, 10); "
                         "pwm_set_chan_level(s, PWM_CHAN_B, 625); }",
                         "board-rp2040-40");
  CHECK(*use(pico, "GP3").duty == Approx(0.5));
  CHECK(use(pico, "GP3").frequency->value == Approx(10000));
  CHECK_FALSE(use(pico, "GP2").duty);
}

TEST_CASE("a program is told from what is only near it: comments, texts and dead branches name no pin") {
  CHECK(cpp("// digitalWrite(5, HIGH);\n/* pinMode(6, OUTPUT); */\nvoid setup() { Serial.println(\"digitalWrite(7, HIGH)\"); if (false) "
            "digitalWrite(8, HIGH); } void loop() {}")
            .empty());
  CHECK(cpp("void setup() {} void loop() {} ").empty());
  CHECK(cpp("#define OFF(p) digitalWrite(p, LOW)\nvoid setup() {} void loop() {}").empty());
}

TEST_CASE("whatever encoding a source comes in, it is read") {
  const std::string text = "const int p = 5;\r\nvoid setup() { digitalWrite(p, HIGH); }\r\nvoid loop() {}\r\n";
  std::string wide16 = "\xFF\xFE", big16 = "\xFE\xFF";
  for (const char c : text) {
    wide16 += c;
    wide16 += '\0';
    big16 += '\0';
    big16 += c;
  }
  for (const auto& bytes : {text, "\xEF\xBB\xBF" + text, wide16, big16, wide16.substr(2),
                            "// Gr\xF6\xDF"
                            "e\n" +
                                text,
                            std::string("//\0\0\n", 5) + text, "// old Mac\r" + text}) {
    CHECK(cpp(bytes) == "D5 write");
    const auto s = program::readSource("a", bytes);
    CHECK(s.line(static_cast<std::uint32_t>(s.text.find("void setup"))) >= 2);
  }
  CHECK_FALSE(program::readSource("a",
                                  "Gr\xF6\xDF"
                                  "e")
                  .remarks.empty());
  CHECK(program::readSource("a", "Größe").remarks.empty());
}

TEST_CASE("what is done only after many rounds is found, and a loop that ends by counting goes on behind") {
  const std::string drive = "digitalWrite(6, HIGH);";
  for (const auto& body : {
           "int n = 0;\nvoid setup() { pinMode(6, OUTPUT); }\nvoid loop() { if (++n == 500) " + drive + " delay(10); }",
           "void setup() { pinMode(6, OUTPUT); }\nvoid loop() { static int n; n++; if (n > 100) { n = 0; " + drive + " } }",
           "void setup() { pinMode(6, OUTPUT); int n = 0; while (1) { n++; if (n == 300) " + drive + " } }\nvoid loop() {}",
           "void setup() { pinMode(6, OUTPUT); int n = 0; while (true) { if (n++ > 300) break; delay(1); } " + drive + " }\nvoid loop() {}",
           "void setup() { pinMode(6, OUTPUT); int a = 0, b = 1;\n  for (int n = 0; n < 5000; n++) { a = (a + n) % 7; b = (b * 3 + a) % "
           "11; a += b; b "
           "-= 2; if (n == 3000) " +
               drive + " delay(1); } }\nvoid loop() {}",
           "struct S { int n; } s;\nvoid setup() { pinMode(6, OUTPUT); }\nvoid loop() { s.n += 1; if (s.n == 77) " + drive + " }",
           "int state = 0, waited = 0;\nvoid setup() { pinMode(6, OUTPUT); }\nvoid loop() {\n  switch (state) {\n    case 0: if (++waited "
           "> 50) state = 1; "
           "break;\n    case 1: " +
               drive + " break;\n  }\n}",
       }) {
    INFO(body);
    CHECK(cpp(body) == "D6 output write");
  }
  CHECK(python("from gpiozero import OutputDevice\np = OutputDevice(17)\nn = 0\nwhile True:\n  n += 1\n  if n == 900:\n    p.on()\n") ==
        "J8-11 output write");
  // What no round comes to is not done, and a late round does not make pins up.
  CHECK(cpp("const int debug = 0;\nvoid setup() { pinMode(6, OUTPUT); }\nvoid loop() { if (debug) " + drive + " delay(1); }") ==
        "D6 output");
  const auto s = read("a.ino",
                      "int i = 0;\nconst int p[] = {6, 7};\nvoid setup() { pinMode(6, OUTPUT); pinMode(7, OUTPUT); }\n"
                      "void loop() { digitalWrite(p[i], HIGH); i = (i + 1) % 2; }");
  CHECK(pins(s) == "D6 output write, D7 output write");
  CHECK(s.untold.empty());
}

TEST_CASE("a program that refuses the board says so, and macros of other chips are not there") {
  const std::string choose =
      "#if defined(__AVR_ATmega16__)\n#define P 4\n#elif defined(__AVR_ATmega328P__) && !defined(__SAM3X8E__)\n#define P 6\n"
      "#else\n#error \"no such chip\"\n#endif\nvoid setup() { pinMode(P, OUTPUT); digitalWrite(P, HIGH); }\nvoid loop() {}\n";
  const auto uno = read("a.ino", choose);
  CHECK(pins(uno) == "D6 output write");
  CHECK(uno.untold.empty());
  const auto mega = read("a.ino", choose, "board-mega-atmega2560");
  REQUIRE_FALSE(mega.untold.empty());
  CHECK(mega.untold.front().what.find("not for this board, or not set up: \"no such chip\"") != std::string::npos);
  CHECK(mega.untold.front().place.line == 6);
  // Of a board that says nothing of itself both stand.
  const auto other = program::readTexts({{"a.ino", choose}}, "", program::shippedCalls());
  const auto both = program::pinsUsed(other, "uno", *library().find("board-uno-atmega328p"), program::shippedCalls());
  CHECK(pins(both).find("D4") != std::string::npos);
  CHECK(pins(both).find("D6") != std::string::npos);
}

TEST_CASE("attributes, addresses of a bus and numbers that are worked out are no pins") {
  CHECK(cpp("uint8_t kept __attribute__((section(\".noinit\"))) = 42;\nvoid early(void) __attribute__((naked));\n"
            "void setup() { pinMode(6, OUTPUT); digitalWrite(6, HIGH); }\nvoid loop() {}") == "D6 output write");
  CHECK(cpp("#include <Wire.h>\nvoid setup() { Wire.begin(0x42); }\nvoid loop() {}") == "A4 bus, A5 bus");
  CHECK(pins(read("a.ino", "#include <Wire.h>\nvoid setup() { Wire.begin(21, 22); }\nvoid loop() {}", "board-esp32-38")) ==
        "IO21 bus output, IO22 bus output");
  const auto s = read(
      "a.ino", "int pin = 2;\nvoid setup() {}\nvoid loop() { digitalWrite(pin, HIGH); pin = pin + 1; if (pin > Serial.read()) pin = 2; }");
  CHECK(s.told < s.asked);
  for (const auto& u : s.pins) CHECK_FALSE(u.terminal == "D13");
}
