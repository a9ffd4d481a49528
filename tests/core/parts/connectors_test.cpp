#include "core/parts/connectors.h"

#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::parts;
using namespace bold::test;

namespace {
Connector only(const char* part, const char* id) {
  const auto all = connectorsNamed(*library().find(part), id);
  REQUIRE(all.size() == 1);
  return all.front();
}
}  // namespace

TEST_CASE("what is plugged as a whole has its poles in order") {
  const auto usb = only("board-uno-atmega328p", "usb");
  CHECK(usb.id == "USB");
  CHECK(usb.terminals == std::vector<std::string>{"USB-P", "USB-N"});
  CHECK(only("board-uno-atmega328p", "power, left").terminals.size() == 8);
  CHECK(only("board-uno-atmega328p", "power-left").id == "power-left");
  // Screws, single pads and holes are joined one by one.
  for (const auto* part : {"l298n-module", "breadboard-half", "npn-pn2222a"})
    for (const auto& c : connectorsOf(*library().find(part))) {
      INFO(part << " " << c.id);
      CHECK(c.contact == "pin");
    }
  CHECK(connectorsOf(*library().find("breadboard-half")).empty());
}

TEST_CASE("connectors go into each other by poles, names and kind") {
  const auto usb = only("board-uno-atmega328p", "USB");
  const auto jack = only("board-uno-atmega328p", "jack");
  const auto plug = only("adapter-9v-1a", "jack");
  CHECK(mates(plug, jack));
  CHECK_FALSE(mates(plug, usb));
  CHECK(mates(only("usb-port-0a5", "USB"), usb));
  CHECK(mates(only("bridge-stack-l293d", "power-left"), only("board-uno-atmega328p", "power-left")));
  CHECK_FALSE(mates(only("bridge-stack-l293d", "power-left"), only("board-uno-atmega328p", "digital-7-0-right")));
  CHECK(mates(only("a4988-carrier", "left-row"), only("stack-three-carriers", "X-socket-left-row")));
  CHECK_FALSE(mates(only("a4988-carrier", "left-row"), only("board-uno-atmega328p", "power-left")));
  CHECK(mates(only("stepper-28byj48-5v", "plug"), only("uln2003-board", "motor")));
  CHECK_FALSE(mates(only("connector-ph-2", "plug"), jack));
}
