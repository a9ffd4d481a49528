#include <catch2/catch.hpp>
#include <set>

#include "support/benches.h"
#include "support/generate.h"

using namespace bold;
using namespace bold::test;
using checks::Severity;

namespace {
// Cautions that were looked at and are right on a bench that people do build.
const std::set<std::string> kReviewed{
    "bridge-jumpers logic-supply-out-of-range",  // the same bench, enables on their jumpers
    "bridge-jumpers pin-boot-state",             // its inputs float until the program runs: nothing but pull resistors helps
    "bridge logic-supply-out-of-range",          // 6 V less the regulator's dropout is just under 4.5 V
    "darlington stall-current",                  // 1.8 A for a start, 1 A for long without a heat sink
    "stepper-bridges pin-boot-state",            // enables on their jumpers, inputs that float at boot
    "step-dir-tb6560 supply-sequence",           // its motor supply can be plugged in before the board's USB
    "one-battery-5v-out pack-over-discharge",    // bare lithium cells
    "one-battery-vin pack-over-discharge",       // the same
    "bts7960-lipo no-cut-off",                   // nor a switch: its plug is all there is
    "bridge-loose-bjt shoot-through",            // both pins high short both legs, and nothing but the program prevents it
    "bts7960-lipo pack-over-discharge",          // bare lithium cells
    "l293d junction-temperature",                // half an ampere through the worst L293D in a socket at 40 degC
};
}  // namespace

TEST_CASE("good benches show no stop and only reviewed cautions") {
  REQUIRE(goodNames().size() >= 50);
  for (const auto& name : goodNames()) {
    const auto a = analyse(good(name), library());
    for (const auto& f : a.findings) {
      INFO(name << ": " << f.check << ": " << f.text);
      CHECK(f.severity != Severity::Stop);
      CHECK(f.severity != Severity::NotJudged);
      if (f.severity == Severity::Caution) CHECK(kReviewed.contains(name + " " + f.check));
    }
    CHECK((a.verdict == Verdict::Clear || a.verdict == Verdict::LookAgain));
  }
}

TEST_CASE("generated sound benches of one to six motors are clear") {
  for (int n = 1; n <= 6; ++n) {
    const auto a = analyseFast(benchOf(n));
    for (const auto& f : a.findings) {
      INFO(n << " motors: " << f.check << ": " << f.text);
      CHECK(f.severity == Severity::Note);
    }
    CHECK(a.verdict == Verdict::Clear);
  }
}

TEST_CASE("removing any one wire of the wave tank is noticed, but for doubled grounds") {
  const auto h = wiredBench(readFile("demo/wave-tank.bench"));
  REQUIRE(analyseFast(h).verdict == Verdict::Clear);
  std::vector<std::string> missed;
  for (std::size_t i = 0; i < h.connections.size(); ++i) {
    auto broken = h;
    broken.connections.erase(broken.connections.begin() + static_cast<std::ptrdiff_t>(i));
    const auto a = analyseFast(broken);
    if (a.count(Severity::Stop) + a.count(Severity::Caution) == 0)
      missed.push_back(h.connections[i].a.text() + " " + h.connections[i].b.text());
  }
  // The adapter, module, carrier and controller share two grounds each way round.
  for (const auto& m : missed) INFO(m);
  CHECK(std::set<std::string>(missed.begin(), missed.end()) ==
        std::set<std::string>{"psu.N s2.GND", "uno.GND s1.GND", "uno.GND-2 s2.GND-2"});
}
