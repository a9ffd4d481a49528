#include "core/harness/connection_table.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("a connection is a row in the words of the bench, blank where nothing is given") {
  auto h = wiredBench(
      "part usb usb-port-0a5\npart uno board-uno-atmega328p\npart s1 l298n-module Left bridge\nplug usb.USB uno.USB\n"
      "wire uno.D9 s1.IN1 YE\nwire uno.GND1 s1.GND BK");
  // The bridge comes with its jumpers set.
  const auto wires = std::ranges::find(h.connections, harness::ConnectionKind::Wire, &harness::Connection::kind);
  const auto first = static_cast<std::size_t>(wires - h.connections.begin());
  wires->gauge = 22;
  wires->length = Metres{0.3};
  std::next(wires)->state = harness::State::ToBeRemoved;
  const auto all = connectionTable(h, library());
  REQUIRE(all.size() == h.connections.size());
  const std::vector rows{all[std::ranges::find(all, harness::ConnectionKind::Plug, &harness::ConnectionRow::kind) - all.begin()],
                         all[first], all[first + 1]};
  CHECK(rows[0].kind == harness::ConnectionKind::Plug);
  CHECK(rows[0].colour.empty());
  CHECK(rows[0].size.empty());
  CHECK(rows[1].id == wires->id);
  CHECK(rows[1].colour == "YE");
  CHECK(rows[1].to == "Left bridge IN1");
  CHECK(rows[1].gauge == "22");
  CHECK(rows[1].size == "22 AWG, 0.3 m");
  CHECK(word(rows[1].state) == "made");
  CHECK(word(rows[2].state) == "to take away");
}
