#include <algorithm>
#include <catch2/catch.hpp>
#include <cmath>
#include <set>

#include "core/bench/steering.h"
#include "core/checks/analysis.h"
#include "core/choose/pin_demands.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;
using bench::Steering;

namespace {

const std::string kBlower = "part psu adapter-12v-2a Adapter\npart b blower-80mm-12v Blower\nwire psu.P b.P RD\nwire psu.N b.N BK\n";

// A pump behind a MOSFET whose gate D5 reaches.
const std::string kGatedPump =
    "part usb usb-port-0a9\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart psu adapter-12v-2a Adapter\n"
    "part q nmos-irlz44n\npart r resistor-220r\npart rp resistor-10k\npart d diode-1n5819\npart p pump-diaphragm-12v Pump\n"
    "wire uno.D5 r.A\nwire r.B q.G\nwire rp.A q.G\nwire rp.B q.S\nwire q.S psu.N\nwire uno.GND q.S\nwire psu.P p.P\nwire p.N q.D\n"
    "wire d.K p.P\nwire d.A p.N\n";

// A bridge board whose inputs nothing is wired to.
std::string touched(const std::string& supply) {
  return "part psu " + supply +
         " Supply\npart s drv8833-board Stage\nset s.sleepLink fitted\npart c capacitor-100u-35v\npart m brushed-gear-plastic-6v Paddle\n"
         "wire psu.P s.VCC RD\nwire psu.N s.GND BK\nwire c.P s.VCC\nwire c.N s.GND\nwire s.OUT1 m.P BN\nwire s.OUT2 m.N WH\n";
}

// A gate that a changeover switch turns round, with an emergency stop in the plus.
std::string reversed(const std::string& crossings) {
  return "part psu adapter-12v-5a Adapter\npart e switch-emergency-stop Stop\npart t switch-dpdt Way\npart m brushed-gear37-12v Gate\n"
         "figure e.rating 5 A\nwire psu.P e.11 RD 18AWG 0.3m\nwire e.12 t.1A RD 18AWG 0.3m\nwire psu.N t.1B BK 18AWG 0.3m\n"
         "wire t.1C m.P BN 18AWG 0.3m\nwire t.2C m.N WH 18AWG 0.3m\nintent m both switched=hand\n" +
         crossings;
}
const std::string kCrossed = "wire t.1A t.2B RD 18AWG 0.1m\nwire t.1B t.2A BK 18AWG 0.1m\n";

Steering steering(const std::string& notation) {
  const auto s = solved(wiredBench(notation));
  return bench::steeringOf(s->bench, s->nets, s->motors.front());
}

}  // namespace

TEST_CASE("what switches a motor is as it is stated, else as the wires have it") {
  CHECK(steering(kBlower) == Steering::AlwaysOn);
  CHECK(steering(kBlower + "intent b switched=hand") == Steering::ByHand);
  CHECK(steering(kBlower + "intent b switched=program") == Steering::Pins);
  CHECK(steering(kGatedPump) == Steering::Pins);
  CHECK(steering(kGatedPump + "intent p switched=always") == Steering::AlwaysOn);
  CHECK(steering(kGatedPump + "intent p switched=hand") == Steering::Pins);  // D5 reaches it
  CHECK(steering(kGatedPump + "intent p in=uno.D5 stage=q") == Steering::Pins);
  CHECK(steering(touched("adapter-5v-2a") + "intent m switched=hand") == Steering::ByHand);
}

TEST_CASE("a statement that the wires do not bear out is said once, and one that they do needs no pins") {
  for (const auto* stated : {"", "intent b switched=hand", "intent b switched=always"}) {
    INFO(stated);
    const auto a = analyse(wiredBench(kBlower + stated), library());
    INFO(summary(a));
    CHECK(a.verdict == Verdict::Clear);
  }
  const auto program = analyse(wiredBench(kBlower + "intent b switched=program"), library());
  REQUIRE(program.causes(checks::Severity::Stop) == 1);
  CHECK(program.findings.front().check == "switched-otherwise");
  CHECK(Judged("switched-otherwise", kGatedPump + "intent p switched=always").only() == kCaution);
  CHECK(Judged("switched-otherwise", kGatedPump + "intent p switched=hand").only() == kCaution);
  CHECK(Judged("switched-otherwise", kGatedPump + "intent p switched=program").quiet());
  CHECK(Judged("switched-otherwise", kGatedPump + "intent p stage=q in=uno.D5").quiet());
  // Pins and a hand for one motor cannot both be true.
  const auto both = analyse(wiredBench(kGatedPump + "intent p switched=hand stage=q in=uno.D5"), library());
  CHECK(both.verdict == Verdict::NotJudged);
  CHECK(summary(both).find("is stated to be switched by hand, and pins are stated for it too") != std::string::npos);
}

TEST_CASE("an input that is touched with a lead: which supply it may come from, and no pin is asked for") {
  const auto stated = "intent m both switched=hand";
  const auto a = analyse(wiredBench(touched("adapter-5v-2a") + stated), library());
  INFO(summary(a));
  CHECK(a.verdict == Verdict::Clear);
  CHECK(Judged("touched-input", touched("adapter-9v-1a") + stated).only() == kCaution);
  CHECK(Judged("touched-input", touched("adapter-9v-1a") + "intent m both").quiet());
  CHECK(Judged("touched-input", touched("adapter-5v-2a") + stated).quiet());
  // Not stated: nobody gets to the inputs.
  CHECK_FALSE(analyseFast(wiredBench(touched("adapter-5v-2a"))).unstated.empty());
}

TEST_CASE("a changeover switch is judged in both positions, an emergency stop closed and open") {
  const auto sound = analyse(wiredBench(reversed(kCrossed)), library());
  INFO(summary(sound));
  CHECK(sound.count(checks::Severity::Stop) == 0);
  const auto& s = *sound.solved;
  std::set<bench::Doing> doings;
  for (const auto& p : s.points) doings.insert(p->doing(0));
  CHECK(doings.contains(bench::Doing::Forward));
  CHECK(doings.contains(bench::Doing::Reverse));
  const auto straight = reversed("wire t.1A t.2A RD 18AWG 0.1m\nwire t.1B t.2B BK 18AWG 0.1m\n");
  CHECK(Judged("never-switched-on", straight).only() == kStop);
  const auto oneWay = reversed("wire t.1A t.2B RD 18AWG 0.1m\nwire t.1C t.2A BK 18AWG 0.1m\n");
  CHECK(Judged("never-switched-on", oneWay).only() == kStop);
  CHECK(Judged("never-switched-on", reversed(kCrossed)).quiet());
  for (const auto* check : {"rail-dead", "end-switch", "contacts-short", "supply-short"}) CHECK(Judged(check, reversed(kCrossed)).quiet());
  // Thrown over, the second throw of one pole joins plus to minus.
  const auto shorted = analyse(wiredBench(reversed(kCrossed + "wire t.1C t.1A RD 18AWG 0.1m\n")), library());
  CHECK(shorted.verdict == Verdict::DoNotSwitchOn);
}

TEST_CASE("what nothing but copper leads to its supply runs in some position of its switches") {
  CHECK(Judged("never-switched-on", kBlower).quiet());
  CHECK(Judged("never-switched-on", kBlower + "unwire psu.N b.N\nwire psu.P b.N\npart l light-strip-12v\nwire psu.P l.P\nwire psu.N l.N")
            .only() == kStop);
}

TEST_CASE("a motor that no program switches asks for no pin") {
  const auto demands = [](const std::string& notation) { return choose::pinDemands(*solved(wiredBench(notation)), "p"); };
  CHECK(demands(kGatedPump + "intent p switched=always").empty());
  CHECK_FALSE(demands(kGatedPump).empty());
}

TEST_CASE("a connector in the leads of a motor is pulled once, all its poles together") {
  const auto s = solved(wiredBench("from daq-connector"));
  const auto it = std::ranges::find(s->points, "J1 pulled", [](const auto& p) { return p->command().title; });
  REQUIRE(it != s->points.end());
  CHECK((*it)->command().action == bench::Action::SwitchedOff);
  const auto& m = s->motors.front();
  CHECK(std::abs((*it)->element(m.device, m.windings.front()).value) < 1e-6);
  const auto* running = s->running(0, bench::Corner::Nominal);
  REQUIRE(running);
  CHECK(std::abs(running->element(m.device, m.windings.front()).value) > 1e-3);
}

TEST_CASE("of a motor whose winding is not known nobody says that nothing sets it going") {
  CHECK(Judged("never-switched-on", "part psu adapter-12v-2a\npart m brushed-motor\nwire psu.P m.P\nwire psu.N m.N").quiet());
}
