#include <catch2/catch.hpp>
#include <map>
#include <queue>
#include <set>

#include "core/parts/connectors.h"
#include "core/picture/layout.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::picture;
using namespace bold::test;

namespace {

// Everything the arrow keys get to from one place.
std::set<Address> walked(const Layout& layout, const Address& from) {
  std::set<Address> seen{from};
  std::queue<Address> open;
  open.push(from);
  while (!open.empty()) {
    const auto here = open.front();
    open.pop();
    for (const auto way : {Direction::Left, Direction::Right, Direction::Up, Direction::Down})
      if (const auto next = nextPlace(layout, here, way); next && seen.insert(*next).second) open.push(*next);
  }
  return seen;
}

harness::Harness benchWith(const std::string& part) {
  harness::Harness h;
  h.devices = {{.id = "u1", .part = "board-uno-atmega328p"}, {.id = "x1", .part = part}, {.id = "r1", .part = "resistor-1k"}};
  return h;
}

}  // namespace

TEST_CASE("every terminal of every part is drawn, and the arrow keys get to each") {
  int terminals = 0;
  for (const auto& part : library().search("")) {
    if (part->kind == "wire") continue;
    INFO(part->id);
    const auto l = layOut(benchWith(part->id), library());
    const auto reached = walked(l, {"r1", "A"});
    for (const auto& t : part->terminals) {
      INFO(t.id);
      CHECK(l.terminal({"x1", t.id}));
      CHECK(reached.contains({"x1", t.id}));
      ++terminals;
    }
    // And every socket as a whole.
    for (const auto& c : parts::connectorsOf(*part))
      if (c.contact == "socket") {
        INFO(c.id);
        CHECK(l.connector({"x1", c.id}));
        CHECK(reached.contains({"x1", c.id}));
      }
  }
  CHECK(terminals > 2000);
}

TEST_CASE("a board that sits on another shows the headers it is plugged in by") {
  const auto l = layOut(benchWith("bridge-stack-l293d"), library());
  for (const auto* id : {"power-left", "analogue-left", "digital-13-8-right", "digital-7-0-right"}) {
    INFO(id);
    CHECK(l.connector({"u1", id}));
    CHECK(l.connector({"x1", id}));
  }
}

TEST_CASE("what hangs on a part that no library knows is drawn all the same") {
  auto h = good("bridge");
  auto& stage = *std::ranges::find(h.devices, "l298n-module", &harness::Device::part);
  const auto id = stage.id;
  stage.part = "nobody-knows";
  const auto l = layOut(h, library());
  int drawn = 0;
  for (const auto& c : h.connections)
    if (c.a.device == id || c.b.device == id) {
      INFO(c.id);
      CHECK(l.thread(c.id));
      ++drawn;
    }
  CHECK(drawn > 5);
}
