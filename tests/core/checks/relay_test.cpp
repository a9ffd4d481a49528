#include <catch2/catch.hpp>

#include "core/bench/queries.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {
const std::string kPump = "from pump-relay\n";
}

TEST_CASE("a relay's contact closes by its input alone, and carries what the motor draws") {
  const auto a = analyseFast(wiredBench(kPump));
  const auto& s = *a.solved;
  const auto* on = s.running(0, bench::Corner::Nominal);
  REQUIRE(on);
  const auto volts = [&](const char* x, const char* y) {
    return on->across(s.bench.terminal(*parseAddress(x)), s.bench.terminal(*parseAddress(y)))->value;
  };
  CHECK(volts("pump.P", "pump.N") > 11.5);
  CHECK(volts("k1.COM", "k1.NO") == Approx(0.6 * 0.05).epsilon(0.05));
  const auto* off = s.point(bench::Action::AllOff, bench::Corner::Nominal);
  REQUIRE(off);
  CHECK(std::abs(off->element(s.motors[0].device, s.motors[0].windings[0]).value) < 1e-6);
}

TEST_CASE("a motor behind a relay: what its contact stands, what 3.3 V do to its input, what runs at boot") {
  for (const char* check : {"switch-rating", "level-high", "flyback-missing", "pin-boot-state", "command-outcome", "running-current"})
    CHECK(Judged(check, kPump).quiet());
  CHECK(Judged("flyback-missing", kPump + "remove d1").only() == kCaution);
  CHECK(Judged("flyback-missing", kPump + "remove d1").text().find("arc over its contact, which wears") != std::string::npos);
  CHECK(Judged("switch-rating", kPump + "figure k1.rating 0.5 A").only() == kStop);  // 1.4 A at its start
  CHECK(Judged("switch-rating", kPump + "figure k1.rating 1 A").only() == kCaution);
  CHECK(Judged("switch-rating", kPump + "figure k1.volts 5 V").only() == kCaution);
  CHECK(Judged("pin-boot-state", kPump + "move k1.NO k1.NC\nintent pump forward=P stage=k1 channel=1-NC in=uno.D7").only() == kStop);
  CHECK_FALSE(Judged("logic-supply-out-of-range", kPump + "unwire uno.5V k1.VCC").quiet());
}

TEST_CASE("relay modules are found by everyday words") {
  for (const char* words : {"relay", "relay module", "relay module 5v"}) {
    const auto hits = library().search(words);
    REQUIRE_FALSE(hits.empty());
    CHECK(hits.front()->kind == "relay module");
  }
}

TEST_CASE("a power bank that is asked for too little switches itself off") {
  const Judged idle("low-load-cut-off", "from servo\nswap usb power-bank-5v");
  CHECK(idle.only() == kCaution);
  CHECK(idle.text().find("With everything off usb gives 45 mA; below about 60 mA") == 0);
  CHECK(Judged("low-load-cut-off", "from servo").quiet());
  CHECK(Judged("low-load-cut-off", "from tilt-on-cells").quiet());  // an ESP32 board draws 120 mA
}

TEST_CASE("a contact may be wired by either end, in either lead, and two turn a motor round: no rail is shorted") {
  const std::string swapped = kPump + "exchange k1.COM k1.NO";
  for (const auto& notation : {swapped, kPump + "unwire psu.P k1.COM\nunwire k1.NO pump.P\nunwire pump.N psu.N\nwire psu.P pump.P RD "
                                                "20AWG 0.3m\nwire pump.N k1.NO BK 20AWG 0.3m\nwire k1.COM psu.N BK 20AWG 0.3m"})
    CHECK(analyseFast(wiredBench(notation)).causes(checks::Severity::Stop) == 0);
  CHECK(Judged("flyback-missing", swapped + "\nremove d1").only() == kCaution);
  const std::string round =
      "part usb usb-port-0a5\npart uno board-uno-atmega328p\nplug usb.USB uno.USB\npart psu adapter-12v-2a\npart k "
      "relay-module-5v-2\npart m brushed-gear25-12v\nwire uno.5V k.VCC RD\nwire uno.GND k.GND BK\nwire uno.D7 k.IN1 YE\nwire uno.D8 "
      "k.IN2 GN\nwire psu.P k.NO1 RD\nwire psu.P k.NO2 RD\nwire psu.N k.NC1 BK\nwire psu.N k.NC2 BK\nwire k.COM1 m.P BN\nwire "
      "k.COM2 m.N WH";
  for (const char* check : {"output-short", "paralleled-channels", "command-outcome"}) CHECK(Judged(check, round).quiet());
}
