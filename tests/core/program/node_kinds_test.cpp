#include "core/program/node_kinds.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>

#include "core/base/file_system.h"
#include "core/program/reading.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;
using namespace bold::program;

TEST_CASE("every kind of node of the grammars stands in the table once, and no other") {
  for (const auto language : {Language::C, Language::Cpp, Language::Python}) {
    const auto tabled = tabledKinds(language);
    const auto grammar = grammarKinds(language);
    REQUIRE(grammar.size() > 100);
    for (const auto kind : grammar) {
      INFO(word(language) << ": " << kind);
      CHECK(std::ranges::count(tabled, kind) == 1);
    }
    for (const auto kind : tabled) {
      INFO(word(language) << ": " << kind << " is no node of the grammar");
      CHECK(std::ranges::count(grammar, kind) == 1);
    }
  }
}

TEST_CASE("what is not followed is said, with the pins that it names open") {
  const auto open = [](const std::string& file, const std::string& text) {
    const auto s = read(file, text);
    std::string out;
    for (const auto& u : s.untold) out += fmt::format("{} {}: {}\n", u.place.line, u.what, fmt::join(u.pins, " "));
    return out;
  };
  CHECK(open("a.ino", "void setup() {\nasm(\"sbi 5, 5\");\npinMode(9, OUTPUT);\n}\nvoid loop() {}")
            .starts_with("2 it is nothing that is followed"));
  CHECK(open("a.cpp", "const int PUMP = 9;\nint main() {\n  co_await drive(PUMP);\n}\n").find("D9") != std::string::npos);
  CHECK(open("a.ino", "void setup() {\ngoto out;\nout:\npinMode(9, OUTPUT);\n}\nvoid loop() {}") == "2 a goto is not followed: D9\n");
  CHECK(open("a.ino", "static_assert(sizeof(int) == 2, \"\");\nusing namespace std;\nvoid setup() { delete nullptr; }\nvoid loop() {}")
            .empty());
}

TEST_CASE("what is called within a text, or with arguments out of a mapping, is followed") {
  const std::string head = "from machine import Pin\np = Pin(5, Pin.OUT)\n";
  CHECK(python(head + "print(f'pump {p.on()}')\n", "board-rp2040-40") == "GP5 output write");
  CHECK(python("from machine import Pin\ndef make(pin, mode):\n  return Pin(pin, mode)\nmake(**{'pin': 5, 'mode': Pin.OUT}).on()\n",
               "board-rp2040-40") == "GP5 output write");
}

TEST_CASE("a sketch is read with all tabs of its folder") {
  const TemporaryFolder folder;
  const auto main = folder.write(
      "tank/tank.ino", "#include \"pins.h\"\n#define FAST 200\nvoid setup() { pinMode(PUMP, OUTPUT); }\nvoid loop() { run(); }\n");
  const auto pump = folder.write("tank/a_pump.ino", "void run() { analogWrite(PUMP, FAST); }\n");
  (void)folder.write("tank/pins.h", "#define PUMP 9\n");
  (void)folder.write("tank/old/b.ino", "void broken( {\n");
  Disk disk;
  for (const auto& named : {main, pump}) {
    const auto p = readProgram(disk, {named}, "board-uno-atmega328p", shippedCalls());
    REQUIRE(p);
    const auto s = pinsUsed(*p, "uno", *library().find("board-uno-atmega328p"), shippedCalls());
    CHECK(pins(s) == "D9 output pwm");
    CHECK(use(s, "D9").written == 200);
    CHECK(s.files.size() == 3);
    CHECK(s.untold.empty());
  }
  // What a link leads to is no tab: nobody named it.
  const auto elsewhere = folder.write("elsewhere/secret.ino", "void setup() { pinMode(3, OUTPUT); }\n");
  std::filesystem::create_symlink(elsewhere, folder.path("tank/z.ino"));
  const auto linked = readProgram(disk, {main}, "board-uno-atmega328p", shippedCalls());
  REQUIRE(linked);
  CHECK(linked->sources.files.size() == 3);
  // Sketches that only lie in one folder are programs of their own.
  const auto a = folder.write("sketches/a.ino", "void setup() { pinMode(5, OUTPUT); }\nvoid loop() {}\n");
  (void)folder.write("sketches/b.ino", "void setup() { pinMode(6, OUTPUT); }\nvoid loop() {}\n");
  const auto one = readProgram(disk, {a}, "board-uno-atmega328p", shippedCalls());
  REQUIRE(one);
  CHECK(one->sources.files.size() == 1);
}
