#include <catch2/catch.hpp>
#include <cmath>
#include <random>

#include "core/checks/analysis.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// Fixed seeds: a failure is found again by its number.

TEST_CASE("a file cut off anywhere is refused or read, never half believed") {
  const auto whole = harness::writeHarness(good("bridge"));
  int refused = 0;
  for (std::size_t n = 0; n < whole.size(); n += 37) {
    const auto r = harness::readHarness(whole.substr(0, n), "cut");
    refused += !r;
    if (!r) CHECK_FALSE(r.error().what.empty());
  }
  CHECK(refused > 50);
  CHECK(harness::readHarness(whole, "whole").has_value());
}

TEST_CASE("a file with bytes changed anywhere is judged or refused without harm") {
  const auto whole = harness::writeHarness(good("low-side"));
  int judged = 0;
  for (unsigned seed = 0; seed < 300; ++seed) {
    std::mt19937 random(seed);
    auto text = whole;
    for (int i = 0; i < 3; ++i) text[random() % text.size()] = static_cast<char>(32 + random() % 95);
    INFO("seed " << seed);
    const auto r = harness::readHarness(text, "changed");
    if (!r) continue;
    const auto a = analyseFast(r->harness);
    ++judged;
    // Whatever was lost on the way in was named; a bench with holes is not called clear without a word.
    if (!r->problems.empty()) CHECK_FALSE(bold::text(r->problems.front()).empty());
    CHECK_FALSE(summary(a).empty());
  }
  CHECK(judged > 20);
}

TEST_CASE("figures of any size never make the analysis hang or invent numbers") {
  for (const auto* value : {"0 ohm", "1 pohm", "1000 Mohm", "999999 Mohm", "0.000001 ohm", "4k7", "unknown", "1 ohm .. 2 ohm",
                            "2 ohm .. 1 ohm", "-1 ohm", "1e5 ohm", "ohm", ""}) {
    for (const auto* figure : {"pump.winding", "psu.resistance", "r1.resistance"}) {
      INFO(figure << " = " << value);
      const auto a = analyseFast(wiredBench("from low-side\nfigure " + std::string(figure) + " " + value));
      CHECK(a.solved);
      for (const auto& f : a.findings)
        for (const auto& [name, q] : f.args) CHECK(std::isfinite(q.value));
    }
  }
}

TEST_CASE("a bench of one net, of loops, and of nothing but wires is judged in bounded steps") {
  std::string loops = "part uno board-uno-atmega328p\npart usb usb-port-0a5\nplug usb.USB uno.USB\n";
  for (int i = 0; i < 13; ++i)
    loops += "wire uno.D" + std::to_string(i) + " uno.D" + std::to_string(i + 1) + "\nwire uno.D" + std::to_string(i + 1) + " uno.D" +
             std::to_string(i) + "\n";
  CHECK(analyseFast(wiredBench(loops)).solved);
  CHECK(analyseFast(wiredBench("part a resistor-1k\nwire a.A a.A\nwire a.A a.B\nwire a.B a.A")).solved);
  CHECK(analyseFast(wiredBench("part v battery-9v-block\npart w battery-9v-block\nwire v.P w.P\nwire v.N w.N\nwire v.P v.N"))
            .count(checks::Severity::Stop) == 2);
}

TEST_CASE("two packs of different voltage on one net are solved, the weaker one taking nothing it cannot") {
  const auto a = analyseFast(wiredBench("from low-side\npart v battery-9v-block\nwire v.P psu.P\nwire v.N psu.N"));
  REQUIRE(a.solved);
  for (const auto& p : a.solved->points) CHECK(p->solved());
}
