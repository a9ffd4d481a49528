#include "core/harness/rewire.h"

#include <catch2/catch.hpp>

#include "core/harness/end_choices.h"
#include "core/harness/exchange_part.h"
#include "core/harness/several_wires.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

Harness bare(std::string_view text) {
  auto h = wiredBench(text);
  std::erase_if(h.connections, [](const Connection& c) { return c.kind == ConnectionKind::Jumper; });
  return h;
}
const Harness& parts4() {
  static const auto kBench = bare("part uno board-uno-atmega328p\npart s1 l298n-module\npart pi sbc-header-40\npart x terminal-block-4");
  return kBench;
}
// "uno.D4 s1.IN1; uno.D5 s1.IN2", or why not.
std::string made(const Harness& h, std::string_view text) {
  const auto edit = typedWires(h, library(), text);
  if (!edit) return edit.error().what;
  std::string out;
  for (const auto& c : edit->changes) {
    const auto& put = c.as<Put<Connection>>()->value;
    out += (out.empty() ? "" : "; ") + put.a.text() + " " + put.b.text();
  }
  return out;
}
std::string ends(const Harness& h, const std::string& id) {
  return h.connection(id)->a.text() + " " + h.connection(id)->b.text();
}

}  // namespace

TEST_CASE("several wires in one line: by number, backwards, by place; one stays one") {
  CHECK(made(parts4(), "d4-d7 s1.in1-in4") == "uno.D4 s1.IN1; uno.D5 s1.IN2; uno.D6 s1.IN3; uno.D7 s1.IN4");
  CHECK(made(parts4(), "d7-d4 s1.in1-in4") == "uno.D7 s1.IN1; uno.D6 s1.IN2; uno.D5 s1.IN3; uno.D4 s1.IN4");
  CHECK(made(parts4(), "uno d8-d9 s1 in2-in1") == "uno.D8 s1.IN2; uno.D9 s1.IN1");
  CHECK(made(parts4(), "x.1a-3a x.2b-4b") == "x.1A x.2B; x.2A x.3B; x.3A x.4B");
  CHECK(made(parts4(), "s1.ena-in1 x.1a-2a") == "s1.ENA x.1A; s1.IN1 x.2A");  // as they lie beside each other
  CHECK(made(parts4(), "d4 s1.in1") == "uno.D4 s1.IN1");
  CHECK(made(parts4(), "uno.gnd-2 s1.gnd") == "uno.GND-2 s1.GND");  // a name that holds a dash
}

TEST_CASE("a line of several wires is made whole or not at all, and says why") {
  CHECK(made(parts4(), "d4-d7 s1.in1-in3") == "4 on one side and 3 on the other: as many have to be on both.");
  CHECK(made(parts4(), "d4-gnd s1.in1-in4").find("there is no row and no number that leads on") != std::string::npos);
  auto h = parts4();
  apply(h, *typedWires(h, library(), "d5 s1.in2"));
  CHECK(made(h, "d4-d7 s1.in1-in4") == "uno D5 and s1 IN2 are joined already, by w1.");
  CHECK(made(parts4(), "d4-d7").find("A wire has two ends") != std::string::npos);
  CHECK(made(parts4(), "d4-d7 nobody.in1-in4").find("\"nobody.in1-in4\" is no terminal on this bench") != std::string::npos);
}

TEST_CASE("what a line may go on with: what fits and is free comes first, with why the others do not") {
  auto h = parts4();
  apply(h, *typedWires(h, library(), "d4 s1.in1"));
  const auto all = endChoices(h, library(), "d5 s1.in", 50);
  REQUIRE(all.size() == 4);
  CHECK(all[0].insert == "s1.IN2");
  CHECK(all[0].remark == "free");
  CHECK(all.back().insert == "s1.IN1");
  CHECK(all.back().remark == "taken by w1");
  // A ground with a ground.
  const auto ground = endChoices(h, library(), "uno.gnd s1.", 50);
  REQUIRE_FALSE(ground.empty());
  CHECK(ground.front().insert == "s1.GND");
  CHECK(ground.front().fits);
  CHECK_FALSE(ground.back().fits);
  // The beginning of a pin, of a device; nothing of nothing.
  CHECK(endChoices(h, library(), "d1", 50).size() == 5);  // D1, D10 to D13
  CHECK(endChoices(h, library(), "s1", 3).size() == 3);
  CHECK(endChoices(h, library(), "", 50).empty());
  CHECK(endChoices(h, library(), "nonsense s1.in", 50).empty());
}

TEST_CASE("an end moves where such a connection may be, and nowhere else") {
  auto h = bare("part uno board-uno-atmega328p\npart s1 l298n-module\nwire uno.D4 s1.IN1 YE\nwire uno.D5 s1.IN2 GN");
  CHECK(moveEnd(h, library(), "w1", false, {"uno", "D5"}));
  CHECK(moveEnd(h, library(), "w1", true, {"uno", "D4"}).error().what == "Both ends are uno D4.");
  CHECK(moveEnd(h, library(), "w1", true, {"s1", "IN1"}).error().what == "s1 IN1 is there already.");
  apply(h, *moveEnd(h, library(), "w1", true, {"s1", "IN3"}));
  CHECK(ends(h, "w1") == "uno.D4 s1.IN3");
  CHECK(h.connection("w1")->colour == "YE");
  CHECK_FALSE(moveEnd(h, library(), "w2", false, {"uno", "USB"}));  // a connector is no place for a wire
  CHECK_FALSE(moveEnd(h, library(), "w9", false, {"uno", "D6"}));
}

TEST_CASE("two wires exchange the ends that they have on one device") {
  auto h = bare(
      "part uno board-uno-atmega328p\npart s1 l298n-module\npart s2 l298n-module\nwire uno.D4 s1.IN1 YE\nwire s1.IN2 uno.D5 GN\nwire "
      "uno.D4 s2.IN1 YE");
  apply(h, *swapEnds(h, library(), "w1", "w2"));
  CHECK(ends(h, "w1") == "uno.D4 s1.IN2");
  CHECK(ends(h, "w2") == "s1.IN1 uno.D5");
  apply(h, *swapEnds(h, library(), "w1", "w3"));  // they share D4: those on equal parts
  CHECK(ends(h, "w1") == "uno.D4 s2.IN1");
  CHECK(ends(h, "w3") == "uno.D4 s1.IN2");
  CHECK_FALSE(swapEnds(h, library(), "w1", "w1"));
  CHECK_FALSE(swapEnds(h, library(), "w1", "nobody"));
}

TEST_CASE("a bundle moves along its row, or to another board") {
  auto h = bare(
      "part uno board-uno-atmega328p\npart nano board-nano-atmega328p\npart s1 l298n-module\nwire uno.D4 s1.IN1 YE\nwire uno.D5 s1.IN2 "
      "GN\nwire "
      "uno.D6 s1.IN3 BU");
  const auto run = [&](const char* text) { return *parseTypedRun(h, library(), text); };
  const std::vector<std::string> all{"w1", "w2", "w3"};
  auto moved = h;
  apply(moved, *moveBundle(h, library(), all, run("uno.d8-d10")));
  CHECK(ends(moved, "w1") == "uno.D8 s1.IN1");
  CHECK(ends(moved, "w3") == "uno.D10 s1.IN3");
  moved = h;
  apply(moved, *moveBundle(h, library(), all, run("nano.d4-d6")));
  CHECK(ends(moved, "w2") == "nano.D5 s1.IN2");
  moved = h;
  apply(moved, *moveBundle(h, library(), all, run("s1.in4-in2")));
  CHECK(ends(moved, "w1") == "uno.D4 s1.IN4");
  CHECK(moveBundle(h, library(), all, run("uno.d8-d9")).error().what == "2 terminals for 3 wires: as many terminals as wires are needed.");
}

TEST_CASE("wires are coloured by what they are for") {
  auto h = bare(
      "part uno board-uno-atmega328p\npart v adapter-12v-2a\npart s1 l298n-module\npart m brushed-130-6v\nwire uno.GND s1.GND YE\nwire v.P "
      "s1.12V "
      "YE\nwire uno.D4 s1.IN1 YE\nwire uno.D5 s1.IN2 YE\nwire s1.OUT1 m.P YE");
  apply(h, colourByUse(h, library(), {"w1", "w2", "w3", "w4", "w5"}));
  CHECK(h.connection("w1")->colour == "BK");
  CHECK(h.connection("w2")->colour == "RD");
  CHECK(h.connection("w3")->colour != h.connection("w4")->colour);
  CHECK(h.connection("w5")->colour == library().find("brushed-130-6v")->find("P")->colour);
  CHECK(colourByUse(h, library(), {"w1"}).changes.empty());
}

TEST_CASE("another part takes over the wires, each to where the same is done, and says what has no place") {
  auto h = bare(
      "part uno board-uno-atmega328p\npart v adapter-12v-2a\npart s1 l298n-module\npart m brushed-gear25-12v\nwire uno.D4 s1.IN1 YE\nwire "
      "uno.D5 s1.IN2 "
      "GN\nwire uno.D9 s1.ENA BU\nwire v.P s1.12V RD\nwire v.N s1.GND BK\nwire uno.GND s1.GND BK\nwire s1.OUT1 m.P\nwire s1.OUT2 m.N\nset "
      "s1.heatSink none");
  const auto to = exchangePart(h, library(), "s1", "tb6612fng");
  REQUIRE(to);
  auto other = h;
  const auto back = apply(other, to->edit);
  CHECK(other.device("s1")->part == "tb6612fng");
  CHECK(ends(other, "w1") == "uno.D4 s1.AIN1");
  CHECK(ends(other, "w3") == "uno.D9 s1.PWMA");
  CHECK(ends(other, "w4") == "v.P s1.VM");
  CHECK(other.connection("w5")->b.terminal.starts_with("GND"));
  CHECK(ends(other, "w7").starts_with("s1.AO1"));
  CHECK(to->lost.empty());
  CHECK(to->moved.size() >= 5);
  apply(other, back);
  CHECK(other == h);
  // What is stated goes along: pins by their number in a program, the channel in its order.
  const auto stated = bare(
      "part uno board-uno-atmega328p\npart s1 l298n-module\npart m brushed-gear25-12v\nwire uno.D9 s1.ENB\nwire s1.OUT3 m.P\n"
      "intent m both speed stage=s1 channel=B speed=uno.D9");
  auto pico = stated;
  apply(pico, exchangePart(pico, library(), "uno", "board-rp2040-40")->edit);
  REQUIRE(pico.assignments.size() == 1);
  CHECK(pico.assignments[0].pin == pico.connections[0].a);
  CHECK(library().find("board-rp2040-40")->find(pico.assignments[0].pin.terminal)->pin->code == "9");
  auto array = stated;
  apply(array, exchangePart(array, library(), "s1", "uln2003a")->edit);
  CHECK(array.goals.at(0).channel == library().find("uln2003a")->channels.at(1).id);
  // A board of another format: by what is printed.
  const auto nano = exchangePart(h, library(), "uno", "board-nano-atmega328p");
  REQUIRE(nano);
  CHECK(nano->lost.empty());
  // Nothing there for most of them: said, and taken away.
  const auto resistor = exchangePart(h, library(), "s1", "resistor-1k");
  REQUIRE(resistor);
  CHECK(resistor->lost.size() == 8);
  CHECK_FALSE(exchangePart(h, library(), "s1", "nobody"));
  CHECK_FALSE(exchangePart(h, library(), "nobody", "tb6612fng"));
}

TEST_CASE("a second one of a motor wants what the first wants, and hangs on nothing") {
  auto h = good("bridge");
  const auto motor = h.goals.at(0).motor;
  const auto goals = h.goals.size();
  const auto edit = duplicate(h, motor);
  REQUIRE(edit);
  const auto wires = h.connections.size();
  apply(h, *edit);
  const auto& second = h.devices.back();
  CHECK(second.part == h.device(motor)->part);
  CHECK(second.id != motor);
  CHECK(second.called() != h.device(motor)->called());
  CHECK(h.connections.size() == wires);
  CHECK(h.goals.size() > goals);
  CHECK(h.goals.back().bothDirections == h.goals.at(0).bothDirections);
  apply(h, *duplicate(h, second.id));
  CHECK(h.devices.back().called() != second.called());
  CHECK(analyseFast(h).leftOut.empty());
  CHECK_FALSE(duplicate(h, "nobody"));
}

TEST_CASE("any line is taken apart without harm") {
  const std::vector<std::string> bits{"d4",  "-",  "s1", ".",    "in1",  " ",     "gnd", "uno",
                                      "pos", "12", "--", "x.1a", "\xff", "GND-2", "in4", "d7"};
  unsigned state = 7;
  for (int k = 0; k < 3000; ++k) {
    std::string line;
    for (int n = 0; n < 9; ++n) {
      state = state * 1664525 + 1013904223;
      line += bits[(state >> 16) % bits.size()];
    }
    const auto edit = typedWires(parts4(), library(), line);
    if (edit) {
      auto h = parts4();
      apply(h, *edit);
      CHECK(h.connections.size() == parts4().connections.size() + edit->changes.size());
    }
    (void)endChoices(parts4(), library(), line, 20);
  }
}
