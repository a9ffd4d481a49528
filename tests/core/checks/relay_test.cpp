#include <catch2/catch.hpp>
#include <sstream>

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

namespace {

// Two changeover relays: each brings one lead of the motor to plus while it is on, and to minus at rest.
std::string reversing(const std::string& second, const std::string& intent) {
  return "part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-5a Adapter\n"
         "part k1 relay-module-5v-2 Relays\npart m brushed-gear37-12v Gate\nfigure m.winding 6 ohm\nwire uno.5V k1.VCC RD\n"
         "wire uno.GND k1.GND BK\nwire uno.D7 k1.IN1 YE\nwire uno.D8 k1.IN2 GN\nwire k1.COM1 m.P BN 18AWG 0.3m\n"
         "wire k1.COM2 m.N WH 18AWG 0.3m\nwire psu.P k1.NO1 RD 18AWG 0.2m\nwire psu.N k1.NC1 BK 18AWG 0.2m\n" +
         second + intent;
}
const std::string kSecond = "wire psu.P k1.NO2 RD 18AWG 0.2m\nwire psu.N k1.NC2 BK 18AWG 0.2m\n";

}  // namespace

TEST_CASE("a motor that two relays turn round is stated by a pin for each way, and judged both ways") {
  for (const auto* stage : {"", "stage=k1 "}) {
    INFO(stage);
    const auto sound = analyse(
        wiredBench(reversing(kSecond, "intent m both forward=P " + std::string(stage) + "forward=uno.D7 reverse=uno.D8\n")), library());
    INFO(summary(sound));
    CHECK(sound.verdict == Verdict::Clear);
  }
  const auto turned = analyse(wiredBench(reversing(kSecond, "intent m both forward=N forward=uno.D8 reverse=uno.D7\n")), library());
  INFO(summary(turned));
  CHECK(turned.verdict == Verdict::Clear);
  const auto crossed = analyse(wiredBench(reversing(kSecond, "intent m both forward=P forward=uno.D8 reverse=uno.D7\n")), library());
  REQUIRE(crossed.causes(checks::Severity::Stop) == 1);
  CHECK(crossed.findings.front().headline == "Relays IN1 and IN2 are crossed");
  // A pole that is missing at one lead: which pin is for which way is still told, and one way does not work.
  const auto open = analyse(
      wiredBench(reversing("wire psu.N k1.NC2 BK 18AWG 0.2m\n", "intent m both forward=P forward=uno.D7 reverse=uno.D8\n")), library());
  CHECK(open.findings.front().text.find("Gate reverse: Gate coasts.") != std::string::npos);
  // Contacts that only switch both leads turn nothing round: its plan is one pin, as of any relay.
  const auto both = wiredBench(reversing("wire psu.N k1.NO2 BK 18AWG 0.2m\n", ""));
  auto switched = both;
  std::erase_if(switched.connections, [](const auto& c) { return c.a.text() == "psu.N" && c.b.text() == "k1.NC1"; });
  CHECK(solved(switched)->motors.front().poles.empty());
  // Without a plan the wires say which pin is for which way.
  const auto unstated = analyse(wiredBench(reversing(kSecond, "")), library());
  REQUIRE(unstated.unstated.size() == 1);
  CHECK(unstated.unstated[0].text.find("Controller D7 reaches forward, Controller D8 reaches reverse") != std::string::npos);
}

TEST_CASE("what turns a motor round may be fed by a converter, and one pin for one contact is judged as it is stated") {
  auto bench = wiredBench(reversing(kSecond + "part bk buck-lm2596 Buck\nfigure bk.set 9 V\nwire psu.P bk.IN-P RD 18AWG 0.2m\n"
                                              "wire psu.N bk.IN-N BK 18AWG 0.2m\n",
                                    "intent m both forward=P forward=uno.D7 reverse=uno.D8\n"));
  for (auto& c : bench.connections)
    if (c.b.text().starts_with("k1.NO")) c.a = *parseAddress("bk.OUT-P");
  const auto fed = analyse(bench, library());
  INFO(summary(fed));
  CHECK(fed.count(checks::Severity::Stop) == 0);
  CHECK(fed.solved->motors.front().poles.size() == 4);
  const auto one = wiredBench(reversing(kSecond, "intent m stage=k1 channel=1-NO in=uno.D7\n"));
  CHECK(solved(one)->motors.front().poles.empty());
}

TEST_CASE("inputs that two motors share are set by each for itself") {
  const auto a = analyse(
      wiredBench("part usb usb-port-0a5\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-5a\n"
                 "part s1 l298n-module S1\nset s1.reg on\npart a brushed-gear25-12v A\npart b brushed-gear25-12v B\nwire psu.P s1.12V\n"
                 "wire psu.N s1.GND\nwire uno.GND s1.GND\nwire uno.D7 s1.IN1\nwire uno.D8 s1.IN2\nwire s1.IN1 s1.IN3\nwire s1.IN2 s1.IN4\n"
                 "wire s1.OUT1 a.P\nwire s1.OUT2 a.N\nwire s1.OUT3 b.P\nwire s1.OUT4 b.N\n"),
      library());
  INFO(summary(a));
  CHECK(a.count(checks::Severity::Stop) == 0);
}

TEST_CASE("relays that bring the leads to both poles at rest are told by their contacts, and exchanging those mends it") {
  const std::string plan = "intent m both forward=P forward=uno.D7 reverse=uno.D8\n";
  const auto bench = wiredBench(reversing("wire psu.N k1.NO2 BK 18AWG 0.2m\nwire psu.P k1.NC2 RD 18AWG 0.2m\n", plan));
  const auto a = analyse(bench, library());
  const auto found = findingsOf(a, "pin-boot-state");
  REQUIRE(found.size() == 1);
  REQUIRE(found[0].repair);
  CHECK(found[0].repair->text.find("NC2") != std::string::npos);
  auto mended = bench;
  harness::apply(mended, found[0].repair->edit);
  CHECK(analyse(harness::asPlanned(mended), library()).verdict == Verdict::Clear);
}

TEST_CASE("channels in parallel need nobody to say which of them is meant") {
  for (const auto* name : {"array-parallel", "l298n-parallel", "tb6612-parallel"}) {
    INFO(name);
    std::istringstream lines(readFile("tests/benches/good/" + std::string(name) + ".bench"));
    std::string text;
    for (std::string line; std::getline(lines, line);)
      if (!line.starts_with("intent")) text += line + "\n";
    const auto a = analyse(wiredBench(text), library());
    CHECK(a.count(checks::Severity::Stop) == 0);
    CHECK(a.unstated.size() == 1);
  }
}

namespace {

// Two bare relays, each coil under a transistor: COM on the leads, NO on plus, NC on minus.
std::string bareRelays(const std::string& intent) {
  return "part usb usb-port-0a9\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-5a Adapter\n"
         "part k1 relay-5v K1\npart k2 relay-5v K2\npart q1 npn-pn2222a Q1\npart q2 npn-pn2222a Q2\npart r1 resistor-1k\npart r2 "
         "resistor-1k\npart d1 diode-1n4007\npart d2 diode-1n4007\npart m brushed-gear37-12v Gate\nfigure m.winding 6 ohm\n"
         "wire uno.D7 r1.A YE\nwire uno.D8 r2.A GN\nwire r1.B q1.B\nwire r2.B q2.B\nwire q1.E uno.GND\nwire q2.E uno.GND-2\n"
         "wire uno.5V k1.A1\nwire k1.A1 k2.A1\nwire k1.A2 q1.C\nwire k2.A2 q2.C\nwire d1.K k1.A1\nwire d1.A k1.A2\nwire d2.K k2.A1\n"
         "wire d2.A k2.A2\nwire k1.COM m.P BN 18AWG 0.3m\nwire k2.COM m.N WH 18AWG 0.3m\nwire psu.P k1.NO RD 18AWG 0.2m\n"
         "wire psu.P k2.NO RD 18AWG 0.2m\nwire psu.N k1.NC BK 18AWG 0.2m\nwire psu.N k2.NC BK 18AWG 0.2m\n" +
         intent;
}

}  // namespace

TEST_CASE("bare relays turn a motor round by their coils: stated for the motor, or for each coil") {
  for (const auto* plan : {"intent m both forward=P forward=uno.D7 reverse=uno.D8",
                           "intent k1 stage=q1 in=uno.D7\nintent k2 stage=q2 in=uno.D8\nintent m both forward=P"}) {
    INFO(plan);
    const auto a = analyse(wiredBench(bareRelays(plan)), library());
    INFO(summary(a));
    CHECK(a.verdict == Verdict::Clear);
    const auto& s = *a.solved;
    for (const auto& [way, doing] :
         {std::pair{bench::Action::Forward, bench::Doing::Forward}, {bench::Action::Reverse, bench::Doing::Reverse}}) {
      const auto it = std::ranges::find_if(s.points, [&, w = way](const auto& p) {
        return p->command().action == w && s.motors[p->command().motor].intent &&
               s.bench.devices[s.motors[p->command().motor].device].doc.id == "m" && p->command().moment == bench::Moment::Running;
      });
      REQUIRE(it != s.points.end());
      CHECK((*it)->doing((*it)->command().motor) == doing);
    }
  }
  const auto crossed = analyse(wiredBench(bareRelays("intent m both forward=P forward=uno.D8 reverse=uno.D7")), library());
  REQUIRE_FALSE(crossed.findings.empty());
  CHECK(crossed.findings.front().headline == "Q1 base and Q2 base are crossed");
  CHECK(analyse(wiredBench(bareRelays("intent m both forward=P forward=uno.D7 reverse=uno.D8\nunwire d2.A k2.A2")), library())
            .findings.front()
            .check == "flyback-missing");
  // Nothing stated: each coil and the motor say which pins reach them.
  const auto open = analyse(wiredBench(bareRelays("")), library());
  CHECK(open.unstated.size() == 3);
  CHECK(open.count(checks::Severity::Stop) == 0);
}
