#include <catch2/catch.hpp>

#include "core/bench/doing_words.h"
#include "core/bench/queries.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
const std::string kValve = "from valve\n";
const std::string kRelay = "from relay-bare\n";
const std::string kStrip = "from light-strip\n";
}  // namespace

TEST_CASE("a valve is on or off: it neither stalls nor turns round, and draws volts over ohms") {
  const auto a = analyseFast(wiredBench(kValve));
  const auto& s = *a.solved;
  for (const auto& p : s.points) {
    CHECK(p->command().moment != bench::Moment::Stalled);
    CHECK(p->command().action != bench::Action::Reverse);
  }
  const auto* on = s.running(0, bench::Corner::Nominal);
  REQUIRE(on);
  CHECK(on->command().title == "Filling valve on");
  CHECK(doingWords(*on, 0) == "is on");
  CHECK(on->element(s.motors[0].device, s.motors[0].windings[0]).value == Approx(12 / 30.0).epsilon(0.03));
  CHECK(doingWords(*s.point(bench::Action::AllOff, bench::Corner::Nominal), 0) == "is off");
}

TEST_CASE("a coil's current needs a path when its switch opens, a light's does not") {
  CHECK(Judged("flyback-missing", kValve).quiet());
  CHECK(Judged("flyback-missing", kValve + "remove d1").only() == kStop);
  CHECK(Judged("flyback-missing", kStrip).quiet());
  CHECK(Judged("flyback-missing", kStrip + "figure strip.inductance 1 mH").only() == kStop);
  CHECK(Judged("flyback-missing", kRelay + "remove d1").only() == kStop);     // the coil's, by a transistor
  CHECK(Judged("flyback-missing", kRelay + "remove d2").only() == kCaution);  // the pump's, by the contact
}

TEST_CASE("a coil that gets too few volts may not switch on, or does not") {
  CHECK(Judged("motor-undervoltage", kValve).quiet());
  CHECK(Judged("motor-undervoltage", kValve + "swap psu adapter-9v-1a").only() == kCaution);
  const Judged dead("motor-undervoltage", kValve + "swap psu adapter-5v-2a");
  CHECK(dead.only() == kStop);
  CHECK(dead.text().find("it does not switch on") != std::string::npos);
}

TEST_CASE("a light may be dimmed and may hang the wrong way round: it only stays dark") {
  for (const char* check : {"polarity-sensitive-load", "pwm-frequency", "snubber-note", "command-outcome"})
    CHECK(Judged(check, kStrip).quiet());
  const std::string round = kStrip + "exchange strip.P strip.N";
  CHECK(Judged("polarity-sensitive-load", round).quiet());
  CHECK(Judged("command-outcome", round).only() == kStop);
}

TEST_CASE("a bare relay closes its contact by the voltage on its coil, whichever of the two is stated") {
  for (const std::string& bench : {kRelay, kRelay + "intent pump\nintent k1 stage=q1 in=uno.D7", kRelay + "exchange k1.A1 k1.A2"}) {
    const auto a = analyseFast(wiredBench(bench));
    const auto& s = *a.solved;
    CAPTURE(bench);
    CHECK(a.unstated.empty());
    CHECK(a.findings.empty());
    for (std::size_t m = 0; m < s.motors.size(); ++m) {
      const auto* on = s.running(static_cast<int>(m), bench::Corner::Nominal);
      REQUIRE(on);
      CHECK(doingWords(*on, 0) != "is off");
      CHECK(s.motors.size() == 2);
      CHECK(on->doing(0) == bench::Doing::On);
      CHECK(on->doing(1) == bench::Doing::Forward);
    }
    const auto* off = s.point(bench::Action::AllOff, bench::Corner::Nominal);
    CHECK(off->doing(0) == bench::Doing::Off);
    CHECK(off->doing(1) == bench::Doing::Coast);
  }
}

TEST_CASE("a relay's coil on a pin, too weak a coil, and the contact that is closed at rest") {
  CHECK(Judged("motor-on-pin", kRelay + "remove q1\nremove r1\nwire uno.D7 k1.A2 BU").only() == kStop);
  CHECK(Judged("command-outcome", kRelay + "swap k1 relay-12v").only() == kStop);
  CHECK(Judged("pin-boot-state", kRelay).quiet());
  CHECK(Judged("pin-boot-state", kRelay + "move k1.NO k1.NC\nintent pump forward=P stage=k1 channel=NC in=uno.D7").only() == kStop);
}

TEST_CASE("solenoids, valves, relays and lights are found by everyday words") {
  for (const auto& [words, id] : std::vector<std::pair<const char*, const char*>>{{"valve", "valve-12v"},
                                                                                  {"solenoid 5v", "solenoid-pull-5v"},
                                                                                  {"led strip", "light-strip-12v"},
                                                                                  {"heater", "heater-pad-12v"},
                                                                                  {"magnet", "electromagnet-5v"},
                                                                                  {"bare relay 12v", "relay-12v"},
                                                                                  {"fan 5v", "fan-40mm-5v"}}) {
    CAPTURE(words);
    const auto hits = library().search(words);
    REQUIRE_FALSE(hits.empty());
    CHECK(hits.front()->id == id);
  }
}
