#include <catch2/catch.hpp>

#include "core/parts/library.h"
#include "core/parts/truth_table.h"

using namespace bold;
using namespace bold::parts;

// An opto-isolated step/dir box, the fourth of the parts that the description was tried on (see
// docs/decisions/0007-four-parts-tried.md): LEDs with their resistors, isolated from the motor side.
namespace {
const std::string kBox = R"({"format": 1, "id": "opto-box", "name": "Opto-isolated box", "kind": "step/dir",
  "figures": {"bare": {"unit": "A", "value": "3 A"}},
  "settings": [{"id": "input", "values": ["5 V", "24 V"], "default": "5 V"}],
  "terminals": [
    {"for": [["PUL"], ["DIR"], ["ENA"]], "as": ["s"], "terminals": [{"id": "$s-P", "label": "$s+", "contact": "screw"}, {"id": "$s-N", "label": "$s-", "contact": "screw"}]},
    {"id": "VCC", "contact": "screw", "supply": {"for": "motor", "return": "GND", "recommended": "9 V .. 42 V", "absolute": "45 V"}}, {"id": "GND", "ground": true, "contact": "screw"},
    {"for": [["A-P"], ["A-N"], ["B-P"], ["B-N"]], "as": ["o"], "terminals": [{"id": "$o", "output": true, "contact": "screw"}]}],
  "conditions": {"off": "V(ENA-P,ENA-N) > 2.5 V"},
  "elements": [
    {"for": [["PUL"], ["DIR"], ["ENA"]], "as": ["s"], "elements": [
      {"when": {"input": "5 V"}, "resistor": ["$s-P", "~$s"], "r": "270 ohm"},
      {"when": {"input": "24 V"}, "resistor": ["$s-P", "~$s"], "r": "2.2 kohm"},
      {"diode": ["~$s", "$s-N"], "drop": "1.2 V", "at": "10 mA", "reverse": "5 V"}]},
    {"id": "chopper", "chopper": ["VCC", "GND"], "coils": [["A-P", "A-N"], ["B-P", "B-N"]], "on": "!off & V(VCC,GND) > 8 V", "rds": "0.4 ohm"}],
  "channels": [{"id": "1", "out": ["A-P", "A-N", "B-P", "B-N"], "continuous": "@bare", "protection": "current-limit", "return": "GND"}]})";
}

TEST_CASE("an opto-isolated box is described by the same elements as everything else") {
  auto l = Library::shipped();
  std::vector<Problem> problems;
  l.addOwn({{"box.json", kBox}}, problems);
  for (const auto& p : problems) FAIL_CHECK(text(p));
  const auto box = l.find("opto-box");
  REQUIRE(box);
  CHECK(box->terminals.size() == 12);
  CHECK(box->find("PUL-P")->label == "PUL+");
  // Its condition reads a voltage between two terminals, so no input level of a ground it does not have.
  CHECK(truthTable(*box, box->channels[0]).size() == 1);
  int leds = 0;
  for (const auto& e : box->elements) leds += std::holds_alternative<Diode>(e.body);
  CHECK(leds == 3);
}
