#include <catch2/catch.hpp>

#include "core/bench/bench.h"
#include "core/harness/add_part.h"
#include "core/harness/intent.h"
#include "core/harness/mark_done.h"
#include "core/harness/names.h"
#include "core/harness/read_harness.h"
#include "core/harness/remove_device.h"
#include "core/harness/typed_end.h"
#include "core/harness/wire_colour.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {
std::string typedWire(const Harness& h, std::string_view text) {
  const auto w = parseTypedWire(h, library(), text);
  return w ? w->a.text() + " " + w->b.text() : w.error().what;
}
}  // namespace

TEST_CASE("a wire is typed in the words people use") {
  const auto h = wiredBench("part uno board-uno-atmega328p\npart s1 l298n-module Left\npart sbc sbc-header-40");
  CHECK(typedWire(h, "d9 s1.in1") == "uno.D9 s1.IN1");
  CHECK(typedWire(h, "  UNO.D9   left.+12v ") == "uno.D9 s1.12V");
  CHECK(typedWire(h, "uno.gnd s1.gnd") == "uno.GND s1.GND");
  CHECK(typedWire(h, "gpio17 s1.ena") == "sbc.J8-11 s1.ENA");
  CHECK(typedWire(h, "pb1 s1.ena") == "uno.D9 s1.ENA");  // the chip's own name is an alias
  CHECK(typedWire(h, "pb9 s1.ena") == "\"pb9\" is no terminal on this bench: write device.terminal, such as s1.in1.");
  CHECK(typedWire(h, "d9") == "A wire has two ends: write them with a space between, such as d9 s1.in1.");
  CHECK(typedWire(h, "d9 d9") == "Both ends are uno.D9.");
  CHECK(typedWire(h, "3v3 s1.ena") == "\"3v3\" could be uno.3V3 or sbc.J8-17: write device.terminal.");
}

TEST_CASE("of equal labels the first free one is taken") {
  auto h = wiredBench("part uno board-uno-atmega328p\npart q npn-pn2222a\nwire uno.GND q.E");
  CHECK(typedWire(h, "uno.gnd q.b") == "uno.GND q.B");  // the id itself was typed
  const auto sbc = wiredBench("part sbc sbc-header-40\npart q npn-pn2222a\nwire sbc.J8-6 q.E");
  CHECK(typedWire(sbc, "gnd q.b") == "sbc.J8-9 q.B");
}

TEST_CASE("a new wire is coloured by what it joins") {
  const auto h = good("low-side");
  const auto colour = [&](const Address& a, const Address& b) { return colourOf(h, library(), a, b); };
  CHECK(colour({"psu", "N"}, {"uno", "D2"}) == "BK");
  CHECK(colour({"psu", "P"}, {"uno", "D2"}) == "RD");
  CHECK(colour({"uno", "GND-2"}, {"psu", "P"}) == "BK");
}

TEST_CASE("a part comes with its fitted jumpers, as one edit") {
  Harness h;
  const auto e = addPart(h, library(), "l298n-module");
  REQUIRE(e);
  const auto back = apply(h, *e);
  CHECK(h.devices.size() == 1);
  CHECK(h.devices[0].id == "s1");
  CHECK(h.connections.size() == 2);
  CHECK(h.connections[0].kind == ConnectionKind::Jumper);
  apply(h, back);
  CHECK(h.devices.empty());
  CHECK(h.connections.empty());
  CHECK_FALSE(addPart(h, library(), "no-such-part"));
}

TEST_CASE("marking as done makes planned things real and takes away what was to be removed") {
  auto h = good("low-side");
  h.connections[2].state = State::ToBeRemoved;
  h.connections[3].state = State::Planned;
  h.devices[4].settings["heatSink"] = {"none", "fitted"};
  const auto gone = h.connections[2].id;
  const auto kept = h.connections[3].id;
  auto copy = h;
  const auto back = apply(copy, markAllDone(copy));
  CHECK(copy.openChanges() == 0);
  CHECK(copy.connection(gone) == nullptr);
  CHECK(copy.connection(kept)->state == State::OnBench);
  CHECK(copy.devices[4].settings.at("heatSink").value == "fitted");
  apply(copy, back);
  CHECK(copy.openChanges() == 3);
}

TEST_CASE("removing a device takes its connections and what is stated about it along") {
  auto h = good("low-side");
  const auto back = apply(h, removeDevice(h, "pump"));
  CHECK(h.device("pump") == nullptr);
  CHECK(h.goals.empty());
  CHECK(h.assignments.empty());
  CHECK(h.program.empty());
  for (const auto& c : h.connections) CHECK((c.a.device != "pump" && c.b.device != "pump"));
  apply(h, back);
  CHECK(h.goals.size() == 1);
  CHECK(h.assignments.size() == 1);
}

TEST_CASE("a number that counts two pins is asked, with the places of both; behind its system it is taken") {
  const auto h = wiredBench("part uno board-uno-atmega328p\npart s1 l298n-module Left\npart sbc sbc-header-40");
  CHECK(typedWire(h, "sbc.12 s1.ena") ==
        "\"sbc.12\" can be GPIO12 by program (J8, right column, 5th from the bottom, position 32), or GPIO18 by position (J8, right "
        "column, 6th "
        "from the top, position 12): write code 12 or pos 12.");
  CHECK(typedWire(h, "sbc.pos12 s1.ena") == "sbc.J8-12 s1.ENA");
  CHECK(typedWire(h, "sbc pos 12 s1.ena") == "sbc.J8-12 s1.ENA");
  CHECK(typedWire(h, "sbc gpio 12 s1.ena") == "sbc.J8-32 s1.ENA");
  CHECK(typedWire(h, "sbc code 12 s1.ena") == "sbc.J8-32 s1.ENA");
  CHECK(typedWire(h, "uno.9 s1.ena") == "uno.D9 s1.ENA");
  // 1 and 2 are one header's first two by place, and reserved lines by nobody's number.
  CHECK(typedWire(h, "sbc.1 s1.ena") ==
        "\"sbc.1\" can be GPIO1 by program (J8, right column, 7th from the bottom, position 28), or 3V3 by position "
        "(J8, left column, 1st from the top, position 1): write code 1 or pos 1.");
}

TEST_CASE("a bench is shown in another numbering of its board, wires stay where they are, and the file says so") {
  auto h = wiredBench("part sbc sbc-header-40 Board\npart s1 l298n-module S1\nwire sbc.J8-11 s1.ENA");
  CHECK(shownEnds(h, library(), h.connections.back()) == "Board GPIO17 – S1 ENA");
  const auto back = apply(h, {"", {SetNames{"position"}}});
  CHECK(shownEnds(h, library(), h.connections.back()) == "Board pos 11 – S1 ENA");
  const auto b = bench::makeBench(h, library());
  CHECK(b.called(b.terminal({"sbc", "J8-11"})) == "Board pos 11");
  CHECK(b.terminal({"sbc", "GPIO17"}) == b.terminal({"sbc", "J8-11"}));  // its print is still understood
  const auto written = writeHarness(h);
  const auto again = readHarness(written, "x.harness");
  REQUIRE(again);
  CHECK(again->harness.names == "position");
  (void)apply(h, back);
  CHECK(h.names.empty());
}

TEST_CASE("a file that names a pin by number is understood where one pin is meant, and told both places where two are") {
  const auto problem = [](const char* pin) {
    auto h = good("array-sbc");
    for (auto& a : h.assignments)
      if (a.role == "in1") a.pin.terminal = pin;
    for (auto& c : h.connections)
      if (c.a.terminal == "J8-11") c.a.terminal = pin;
    const auto b = bench::makeBench(h, library());
    std::string all;
    for (const auto& x : b.problems) all += x.what + "\n";
    return all;
  };
  CHECK(problem("pos11") == "");
  CHECK(problem("gpio17") == "");
  CHECK(problem("pin11") == "");
  CHECK(problem("11").find(
            "GPIO11 by program (J8, left column, 9th from the bottom, position 23), or GPIO17 by position (J8, left column, 6th "
            "from the top, position 11)") != std::string::npos);
}
