#include <catch2/catch.hpp>

#include "core/program/read_program.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

// A reading that is not wanted any more stops wherever it is: it asks often, and does little once it was told.
TEST_CASE("a reading of a program gives up wherever it is") {
  const TemporaryFolder folder;
  std::string sketch = "#define TWICE(x) x; x\nint x;\nvoid setup() { pinMode(9, OUTPUT); }\nvoid loop() {\n";
  std::string script = "import machine\np = machine.Pin(9, machine.Pin.OUT)\nwhile True:\n";
  for (int k = 0; k < 3000; ++k) {
    sketch += "  TWICE(if (analogRead(0) > " + std::to_string(k) + ") digitalWrite(9, x = " + std::to_string(k % 2) + "));\n";
    script += "  p.value(" + std::to_string(k % 2) + ")\n";
  }
  for (const auto& [name, text] : {std::pair{"tank.ino", sketch + "}\n"}, {"tank.py", script}}) {
    INFO(name);
    Disk disk;
    const auto file = folder.write(name, text);
    long asked = 0;
    const auto whole = program::readProgram(disk, {file}, "board-uno-atmega328p", program::shippedCalls(), [&] {
      ++asked;
      return false;
    });
    REQUIRE(whole);
    CHECK(asked > 3000);
    for (long at = 1; at < asked; at *= 3) {
      long now = 0, after = 0;
      (void)program::readProgram(disk, {file}, "board-uno-atmega328p", program::shippedCalls(), [&] {
        if (++now <= at) return false;
        ++after;
        return true;
      });
      INFO("told at " << at << " of " << asked);
      CHECK(after > 0);
      CHECK(after < asked / 20);  // what is left of the lists that it is in the middle of
    }
  }
}
