#include "core/wiring/wire_table.h"

#include <catch2/catch.hpp>
#include <random>

#include "core/base/csv.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using namespace bold::wiring;

namespace {

harness::Harness table() {
  auto h = wiredBench("part u board-uno-atmega328p Board\npart s l298n-module Left\nwire u.D9 s.IN1 YE\nwire u.GND s.GND BK");
  std::erase_if(h.connections, [](const auto& c) { return c.kind == harness::ConnectionKind::Jumper; });
  return h;
}
// "2: why" of the lines that cannot be used.
std::vector<std::string> refused(const ReadTable& t) {
  std::vector<std::string> out;
  for (const auto& line : t.lines)
    if (!line.why.empty()) out.push_back(std::to_string(line.number) + ": " + line.why);
  return out;
}
std::vector<std::string> does(const ReadTable& t) {
  std::vector<std::string> out;
  for (const auto& line : t.lines)
    if (!line.does.empty()) out.push_back(line.does);
  return out;
}

}  // namespace

TEST_CASE("the wire list of every good bench comes back from CSV as the same connections, in any state") {
  for (const auto& name : goodNames()) {
    auto h = good(name);
    for (std::size_t i = 0; i < h.connections.size(); ++i) h.connections[i].state = static_cast<harness::State>(i % 3);
    const auto csv = writeWireTable(h, library());
    const auto same = readWireTable(h, library(), csv);
    INFO(name);
    CHECK(same.edit.changes.empty());
    CHECK(same.unusable == 0);
    // Onto the bare parts.
    auto bare = h;
    bare.connections.clear();
    const auto read = readWireTable(bare, library(), csv);
    CHECK(refused(read) == std::vector<std::string>{});
    apply(bare, read.edit);
    CHECK(bare.connections == h.connections);
    CHECK(writeWireTable(bare, library()) == csv);
  }
}

TEST_CASE("a list as people keep it is read: typed ends, their own headings, semicolons, colours in words") {
  const auto read =
      readWireTable(table(), library(), "Pin;To;Color;AWG;Length\nBoard D8;left in2;green;24;20 cm\nd7;left.in3;gn-ye;;0.3 m\n");
  CHECK(refused(read) == std::vector<std::string>{});
  CHECK(does(read) == std::vector<std::string>{"new: Board D8 – Left IN2", "new: Board D7 – Left IN3"});
  auto h = table();
  apply(h, read.edit);
  REQUIRE(h.connections.size() == 4);
  CHECK(h.connections[2].colour == "GN");
  CHECK(h.connections[2].gauge == 24);
  CHECK(h.connections[2].length == Metres{0.2});
  CHECK(h.connections[3].colour == "GNYE");
}

TEST_CASE("a line changes the connection that it is about: by its id, or by ends that are joined already") {
  auto h = table();
  const auto read = readWireTable(h, library(), "id,from,to,colour\nw1,u.D10,s.IN1,YE\n,s.GND,u.GND,BN\n");
  CHECK(does(read) == std::vector<std::string>{"moves w1 to Board D10 – Left IN1", "changes Board GND – Left GND"});
  CHECK(read.changes == 2);
  apply(h, read.edit);
  CHECK(h.connections.size() == 2);
  CHECK(h.connection("w1")->a == Address{"u", "D10"});
  CHECK(h.connection("w2")->colour == "BN");
}

TEST_CASE("each line that cannot be used is said with why, and the others are taken") {
  const auto read = readWireTable(
      table(), library(),
      "from,to,colour,gauge,length,state\nu.D8,s.IN2,mauve\nu.D8,s.IN9\nu.D8\nu.D8,u.D8\nu.D6,s.ENA,RD,99\nu.D6,s.ENA,RD,22,long\n"
      "u.D6,s.ENA,RD,22,0.1 m,soldered\nu.D5,s.ENB\nu.D5,s.ENB\n");
  CHECK(refused(read) == std::vector<std::string>{
                             "2: \"mauve\" is no colour: RD, GNYE, red or green-yellow are.",
                             "3: \"s.in9\" is no terminal on this bench: write device.terminal, such as s1.in1.",
                             "4: One of its ends is missing.",
                             "5: Both ends are Board D8.",
                             "6: \"99\" is no gauge from 8 AWG to 40 AWG.",
                             "7: \"long\" is no length such as 0.3 m.",
                             "8: \"soldered\" is no state: on the bench, planned or to be removed are.",
                             "10: Line 9 is about the same connection.",
                         });
  CHECK(read.unusable == 8);
  CHECK(does(read) == std::vector<std::string>{"new: Board D5 – Left ENB"});
}

TEST_CASE("a connector is plugged, and no wire ends on it") {
  auto h = wiredBench("part usb usb-port-0a5 USB\npart u board-uno-atmega328p Board\npart s l298n-module Left");
  const auto plug = readWireTable(h, library(), "usb.USB,u.USB\n");
  CHECK(refused(plug) == std::vector<std::string>{});
  apply(h, plug.edit);
  CHECK(h.connections.back().kind == harness::ConnectionKind::Plug);
  CHECK(h.connections.back().colour.empty());
  CHECK(refused(readWireTable(h, library(), "u.USB,s.IN1\n")) ==
        std::vector<std::string>{"1: Board USB is a connector: a wire ends on terminals."});
  CHECK(refused(readWireTable(h, library(), "kind,from,to\nwire,usb.USB,u.USB\n")) ==
        std::vector<std::string>{"2: USB USB is a connector: a wire ends on terminals."});
}

TEST_CASE("any bytes are read without harm, and what they change is taken back to the byte") {
  std::mt19937 dice(5);
  const std::vector<std::string> bits{"u.D9", "s.IN1", ",",    ";", "\n", "\"",    "from",  "to", "RD",
                                      "w1",   " ",     "\xff", "'", "=1", "u.GND", "s.GND", "\t"};
  for (int k = 0; k < 2000; ++k) {
    std::string text;
    for (auto n = dice() % 30; n > 0; --n) text += bits[dice() % bits.size()];
    auto h = table();
    const auto before = writeHarness(h);
    const auto read = readWireTable(h, library(), text);
    for (const auto& line : read.lines) CHECK(line.does.empty() != line.why.empty());
    const auto back = apply(h, read.edit);
    for (const auto& c : h.connections) CHECK(isId(c.id));
    apply(h, back);
    CHECK(writeHarness(h) == before);
  }
}

TEST_CASE("CSV is read as it was written, whatever stands in a field, and runs nothing in a spreadsheet") {
  const std::vector<std::string> fields{"plain", "with, comma", "with \"quotes\"", "two\nlines", "=SUM(A1)", "'=x", "-5", "@a", "", "x;y",
                                        "''",    "'a"};
  const auto line = csvLine(fields);
  const auto read = readCsv(csvLine({"a", "b"}) + line);
  REQUIRE(read.size() == 2);
  CHECK(read[1].fields == fields);
  CHECK(read[1].number == 2);
  CHECK(line.find("\"'=SUM(A1)\"") != std::string::npos);
  CHECK(readCsv("a,b\n\"never closed, c\nd,e\n").size() == 3);
  CHECK(readCsv("").empty());
}
