#include "core/checks/find.h"

#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::checks;
using namespace bold::test;

namespace {
std::vector<Found> found(std::string_view text) {
  static const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  static const auto a = analyseFast(h);
  return find(h, library(), a.findings, text);
}
}  // namespace

TEST_CASE("parts, terminals, wires and findings are found by what they are called") {
  REQUIRE_FALSE(found("circulation").empty());
  CHECK(found("circulation").front().kind == Found::Kind::Device);
  CHECK(found("circulation").front().subject == "pump");
  CHECK(found("S1 IN3").front().subject == "s1.IN3");
  CHECK(found("s1.in3").front().subject == "s1.IN3");
  const auto d1 = found("d1 wrong way");
  REQUIRE(d1.size() == 1);
  CHECK(d1.front().kind == Found::Kind::Finding);
  CHECK(d1.front().text == "D1 is the wrong way round");
  // A wire by both its ends, and a pin by the chip's own name.
  const auto wires = found("controller d9 s1");
  CHECK(std::ranges::count(wires, Found::Kind::Wire, &Found::kind) >= 1);
  CHECK(found("pb1").front().subject == "uno.D9");
}

TEST_CASE("nothing is found for nothing, every word has to fit, and no search is endless") {
  CHECK(found("").empty());
  CHECK(found("   ").empty());
  CHECK(found("circulation nowhere").empty());
  CHECK(found("a").size() == 60);
}
