#include "core/parts/search.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>

#include "core/bench/bench.h"
#include "core/parts/typed_part.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::parts;
using namespace bold::test;

TEST_CASE("figures are told from words, with or without a space before the unit") {
  const auto q = parseQuery("NEMA 17, 1.5 a 2.8V 500mA");
  CHECK(q.words == std::vector<std::string>{"nema", "17"});
  REQUIRE(q.figures.size() == 3);
  CHECK(q.figures[0] == AnyQuantity(1.5, Unit::Amp));
  CHECK(q.figures[1] == AnyQuantity(2.8, Unit::Volt));
  CHECK(q.figures[2].value == Approx(0.5));
}

TEST_CASE("the word behind a figure goes with it") {
  const auto q = parseQuery("12 V 0.5 A, 2 A stall");
  REQUIRE(q.figureWords.size() == 3);
  CHECK(q.figureWords[2] == "stall");
}

TEST_CASE("numbers in ids sort as numbers") {
  CHECK(naturallyBefore("stepper-5v", "stepper-12v"));
  CHECK_FALSE(naturallyBefore("stepper-12v", "stepper-5v"));
  CHECK_FALSE(naturallyBefore("same", "same"));
  CHECK(naturallyBefore("a", "ab"));
}

TEST_CASE("no text breaks the search or the typed part") {
  rc::prop("any text", [](const std::string& text) {
    (void)library().search(text);
    for (const auto& t : typedParts(text)) {
      const auto part = library().find(t.part);
      RC_ASSERT(part);
      for (const auto& [name, value] : t.overrides) RC_ASSERT(part->figure(name) != nullptr);
    }
  });
}

TEST_CASE("a typed motor has the winding that follows from voltage and stall current") {
  const auto t = typedParts("12 V 0.5 A, 2 A stall");
  REQUIRE_FALSE(t.empty());
  CHECK(t[0].part == "brushed-motor");
  CHECK(t[0].overrides.at("nominal") == "12 V");
  CHECK(parse<Ohms>(t[0].overrides.at("winding"))->value == Approx(6));
  CHECK(parse<Amps>(t[0].overrides.at("run"))->value == Approx(0.5));
}

TEST_CASE("of two currents the larger is the stall current, and a measured resistance counts before it") {
  CHECK(parse<Ohms>(typedParts("6 V motor 1.5 A 0.3 A").front().overrides.at("winding"))->value == Approx(4));
  CHECK(parse<Ohms>(typedParts("6 V motor 0.3 A 1.5 A 3.2 ohm").front().overrides.at("winding"))->value == Approx(3.2));
}

TEST_CASE("what is printed as a stepper's voltage gives its resistance") {
  const auto t = typedParts("stepper 1.5 A 3 V");
  REQUIRE(t.size() == 1);
  CHECK(t[0].part == "stepper-bipolar");
  CHECK(parse<Ohms>(t[0].overrides.at("winding"))->value == Approx(2));
  CHECK_FALSE(typedParts("stepper 0.4 A 12 V").front().overrides.contains("winding"));
}

TEST_CASE("two figures may be a motor or an adapter, and a named part is neither") {
  const auto t = typedParts("12 v 2 a");
  REQUIRE(t.size() == 2);
  CHECK(t[1].part == "adapter");
  CHECK(t[1].overrides.at("full") == "12.6 V");
  CHECK(typedParts("nano").empty());
  CHECK(typedParts("drv8825 2 a").empty());
  CHECK(typedParts("-5 V").empty());
}

TEST_CASE("a typed motor is judged like any other: its stall current is known") {
  auto h = good("tb6612");
  const auto typed = typedParts("6 V 0.2 A, 9 A stall").front();
  for (auto& d : h.devices)
    if (d.id == "left") {
      d.part = typed.part;
      d.overrides = typed.overrides;
    }
  CHECK_FALSE(findingsOf(analyseFast(h), "stall-current").empty());
}

TEST_CASE("everyday words find the part that people mean, first") {
  const auto first = [](const char* words) {
    const auto hits = library().search(words);
    return hits.empty() ? std::string() : hits.front()->id;
  };
  CHECK(first("relay") == "relay-module-5v-1");
  CHECK(first("fan 12v") == "fan-80mm-12v");
  CHECK(first("4xAA") == "battery-4aa-alkaline");
  CHECK(first("4 x AA") == "battery-4aa-alkaline");
  CHECK(first("4×AA") == "battery-4aa-alkaline");
  CHECK(first("4AA") == "battery-4aa-alkaline");
  CHECK(first("power bank") == "power-bank-5v");
  CHECK(first("pump") == "pump-diaphragm-12v");
  CHECK(first("buck") == "buck-lm2596");
  CHECK(first("step-up 5v") == "boost-5v");
  // A resistance as it is printed means a resistor: the one of that value, else the one whose value is entered.
  CHECK(first("220R") == "resistor-220r");
  CHECK(first("10k") == "resistor-10k");
  CHECK(first("R100") == "resistor");
  CHECK(first("4k7") == "resistor");
}
