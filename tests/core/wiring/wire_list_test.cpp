#include "core/wiring/wire_list.h"

#include <catch2/catch.hpp>

#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using namespace bold::wiring;

namespace {

const harness::Harness& demo() {
  static const auto kDemo = [] {
    auto read = harness::readHarness(readFile("demo/wave-tank.harness"), "demo");
    return std::move(read->harness);
  }();
  return kDemo;
}
const ListedWire& wire(const std::vector<ListedWire>& list, const std::string& id) {
  return *std::ranges::find(list, id, &ListedWire::id);
}
std::vector<std::string> only(const std::vector<ListedWire>& list, std::string_view words) {
  const WireFilter filter(words, demo(), library());
  std::vector<std::string> out;
  for (const auto& w : list)
    if (filter.fits(w)) out.push_back(w.id);
  return out;
}

}  // namespace

TEST_CASE("each wire of the demo bench is told by what it carries and for which motor") {
  const auto list = wireList(demo(), library());
  REQUIRE(list.size() == demo().connections.size());
  CHECK(wire(list, "w1").carries == Carries::Supply);
  CHECK(wire(list, "w2").carries == Carries::Ground);
  CHECK(wire(list, "w4").carries == Carries::Signal);
  CHECK(wire(list, "w4").motors == std::vector<std::string>{"paddle"});
  CHECK(wire(list, "w14").carries == Carries::Motor);
  CHECK(wire(list, "w14").motors == std::vector<std::string>{"paddle"});
  CHECK(wire(list, "w16").motors == std::vector<std::string>{"gate"});
  CHECK(wire(list, "w1").motors.size() == 2);  // a rail of the stage that both hang on
  CHECK(wire(list, "w1").names[1] == "S1 +12V");
  CHECK(wire(list, "w1").size == "20 AWG, 0.3 m");
}

TEST_CASE("the list is grouped, every wire once") {
  const auto list = wireList(demo(), library());
  for (const auto by : {By::Stage, By::Motor, By::Board}) {
    std::vector<int> all;
    for (const auto& g : grouped(list, demo(), library(), by)) {
      CHECK_FALSE(g.title.empty());
      all.insert(all.end(), g.wires.begin(), g.wires.end());
    }
    std::ranges::sort(all);
    REQUIRE(all.size() == list.size());
    for (int i = 0; i < static_cast<int>(all.size()); ++i) CHECK(all[i] == i);
  }
  std::vector<std::string> titles;
  for (const auto& g : grouped(list, demo(), library(), By::Stage)) titles.push_back(g.title);
  CHECK(titles.front() == "S1");
  CHECK(std::ranges::count(titles, "S2") == 1);
  CHECK(titles.back() == "No stage");
}

TEST_CASE("a filter takes the words of a person with a probe") {
  auto list = wireList(demo(), library());
  CHECK(only(list, "").size() == list.size());
  CHECK(only(list, "open").size() == list.size());
  auto& w4 = const_cast<ListedWire&>(wire(list, "w4"));
  w4.fitted = w4.tugged = w4.seen = true;
  CHECK(only(list, "open").size() == list.size() - 1);
  CHECK(left(list) == static_cast<int>(list.size()) - 1);
  w4.wrong = true;
  CHECK(only(list, "wrong") == std::vector<std::string>{"w4"});
  CHECK(only(list, "s1 ena") == std::vector<std::string>{"w4", "w8"});
  const auto ground = only(list, "ground");
  CHECK(std::ranges::count(ground, "w2") == 1);
  CHECK(std::ranges::count(ground, "w1") == 0);
  const auto gate = only(list, "sluice motor");
  CHECK(gate == std::vector<std::string>{"w16", "w17"});
  CHECK(only(list, "no such thing").empty());
  // The second motor of the bench is the gate: its leads, its signals, the rails that it shares, and nothing of the others.
  const auto second = only(list, "motor 2");
  CHECK(second == only(list, "sluice gate"));
  CHECK(second == only(list, "GATE"));
  for (const auto* own : {"w7", "w12", "w13", "w16", "w17", "w1"}) CHECK(std::ranges::count(second, own) == 1);
  for (const auto* other : {"w4", "w14", "w15", "w33"}) CHECK(std::ranges::count(second, other) == 0);
  CHECK(only(list, "motor 2 ground") == only(list, "ground sluice gate"));
}

TEST_CASE("the voltage to expect is that of the solved bench") {
  const auto s = solved(demo());
  CHECK(expectedVoltage(*s, {"psu", "P"}).find("V") != std::string::npos);
  CHECK(expectedVoltage(*s, {"psu", "N"}) == "0 V");
  const auto pin = expectedVoltage(*s, {"uno", "D9"});
  CHECK(pin.starts_with("0 V to "));
  CHECK(expectedVoltage(*s, {"nobody", "D9"}).empty());
}

TEST_CASE("every connection of every good bench is listed, planned and unknown things too") {
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    const auto list = wireList(h, library());
    REQUIRE(list.size() == h.connections.size());
    for (const auto& w : list)
      for (const auto& n : w.names) CHECK_FALSE(n.empty());
  }
  auto h = wiredBench("part u board-uno-atmega328p\npart s l298n-module\nwire u.D9 s.IN1");
  h.devices[1].part = "nobody-knows";
  std::erase_if(h.connections, [](const auto& c) { return c.kind != harness::ConnectionKind::Wire; });
  h.connections.at(0).state = harness::State::Planned;
  const auto list = wireList(h, library());
  REQUIRE(list.size() == 1);
  CHECK(standing(list[0]) == "to make");
}
