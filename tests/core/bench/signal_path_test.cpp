#include "core/bench/signal_path.h"

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/checks/analysis.h"
#include "core/harness/part_copies.h"
#include "support/benches.h"
#include "support/expected.h"

using namespace bold;
using namespace bold::bench;
using namespace bold::test;

namespace {

Path between(const std::string& notation, const std::string& pin, const std::string& input) {
  const auto b = makeBench(wiredBench(notation), library());
  const Nets nets(b);
  return pathBetween(b, nets, b.terminal(*parseAddress(pin)), b.terminal(*parseAddress(input)));
}

const std::string kInverter =
    "from step-dir\nunwire uno.D4 s1.EN\npart q1 npn-pn2222a\npart r1 resistor-10k\npart r2 resistor-10k\nwire uno.D4 r1.A\nwire r1.B "
    "q1.B\n"
    "wire q1.C s1.EN\nwire q1.E uno.GND-2\nwire r2.A s1.EN\nwire r2.B uno.5V\n";

// A gate of two switches: its output is pulled up or down by what its input reads.
std::string gate(const std::string& up, const std::string& down) {
  return R"({"format": 1, "id": "my-gate", "name": "Gate", "kind": "logic", "levels": {"cmos": {"of": "VCC", "low": 0.3, "high": 0.7}},
    "terminals": [{"id": "VCC", "supply": {"for": "logic", "return": "GND", "recommended": "4.5 V .. 5.5 V", "absolute": "7 V"}},
                  {"id": "GND", "ground": true}, {"id": "A", "input": {"levels": "cmos", "ground": "GND", "absolute": "7 V"}}, {"id": "Y"}],
    "elements": [{"id": "up", "switch": ["VCC", "Y"], "on": ")" +
         up + R"(", "r": "30 ohm"}, {"id": "down", "switch": ["Y", "GND"], "on": ")" + down + R"(", "r": "30 ohm"},
                 {"resistor": ["A", "GND"], "r": "1 Mohm"}]})";
}

Analysis withGate(const std::string& up, const std::string& down) {
  auto h = wiredBench("from step-dir\nunwire uno.D2 s1.STEP\n");
  h.parts.push_back({"my-gate", std::make_shared<const Json>(parsedJson(gate(up, down))), nullptr});
  h.devices.push_back({});
  h.devices.back().id = "g1";
  h.devices.back().part = "my-gate";
  const auto wire = [&](const char* id, const char* a, const char* b) {
    harness::Connection c;
    c.id = id;
    c.a = *parseAddress(a);
    c.b = *parseAddress(b);
    h.connections.push_back(c);
  };
  wire("g-vcc", "g1.VCC", "uno.5V");
  wire("g-gnd", "g1.GND", "uno.GND-3");
  wire("g-a", "g1.A", "uno.D2");
  wire("g-y", "g1.Y", "s1.STEP");
  std::vector<Problem> problems;
  const auto all = harness::withDocumentParts(library(), h, "b.harness", problems);
  REQUIRE(problems.empty());
  return analyse(h, all);
}

}  // namespace

TEST_CASE("a signal is followed through copper, a transistor that turns it over, and a level shifter that does not") {
  CHECK(between("from step-dir", "uno.D2", "s1.STEP") == Path::Copper);
  CHECK(between("from step-dir", "uno.D2", "s1.DIR") == Path::None);
  CHECK(between(kInverter, "uno.D4", "s1.EN") == Path::Inverted);
  const auto shifter = textOf("strangers", "level-shifter-2n7000");
  CHECK(between(shifter, "uno.GP2", "s1.STEP") == Path::Straight);
  CHECK(between(textOf("strangers", "logic-nobody-knows"), "uno.D2", "s1.STEP") == Path::Unclear);
}

TEST_CASE("a buffer that is a part of the user's own passes the steps on") {
  const auto a = withGate("A", "!A");
  for (const auto& f : a.findings) {
    INFO(f.check << ": " << f.text);
    CHECK(f.severity != checks::Severity::Stop);
    CHECK(f.severity != checks::Severity::NotJudged);
  }
}

TEST_CASE("what is switched on through an inverter is written high to run, and the wires are held against that") {
  const auto runs = [](const std::string& enable) {
    return analyse(wiredBench(kInverter + "intent m both hold stage=s1 step=uno.D2 dir=uno.D3 enable=uno.D4" + enable), library())
               .verdict != Verdict::DoNotSwitchOn;
  };
  CHECK(runs(""));
  CHECK(runs("^"));
  CHECK_FALSE(runs("!"));
}
