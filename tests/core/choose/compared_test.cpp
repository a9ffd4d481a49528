#include <catch2/catch.hpp>
#include <cmath>

#include "core/charts/operating_area.h"
#include "core/checks/check.h"
#include "core/choose/control_resistor.h"
#include "core/choose/level_shift.h"
#include "core/choose/margin_rows.h"
#include "core/choose/motor_gets.h"
#include "core/choose/stage_wiring.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// What candidates are compared by: rows of margins, what is left for the motor, what a stage stands.
namespace {

std::unique_ptr<bench::SolvedBench> withStage(const std::string& bench, const char* stage) {
  auto h = wiredBench("part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n" + bench);
  const auto edit = choose::wireStage(h, library(), {"m", stage, "v"});
  REQUIRE(edit);
  apply(h, *edit);
  return solved(harness::asPlanned(h));
}

const std::string kGearmotor = "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed ramp";

}  // namespace

TEST_CASE("rows of margins name checks that there are, each once") {
  std::set<std::string_view> seen;
  for (const auto& row : choose::marginRows()) {
    CHECK_FALSE(row.label.empty());
    CHECK(row.means.ends_with("."));
    for (const auto id : row.checks) {
      INFO(id);
      CHECK(checks::findCheck(id));
      CHECK(seen.insert(id).second);
    }
  }
}

TEST_CASE("of several margins the tightest is in its row, of what it is about alone") {
  const auto margin = [](const char* check, const char* subject, double value, double most) {
    checks::Margin m{.quantity = "x", .subjects = {subject}, .unit = Unit::Amp, .value = value};
    m.limits = {checks::atMost(checks::LimitKind::Recommended, checks::Severity::Caution, most, "most")};
    m.check = check;
    return m;
  };
  const checks::Margins all{margin("stall-current", "s1.OUT1", 1, 2), margin("stall-current", "s1", 3, 2),
                            margin("stall-current", "s2", 9, 2), margin("running-current", "m", 1, 4), margin("wire-current", "s1", 9, 1)};
  const auto rows = choose::inRows(all, {"s1", "m"});
  CHECK(rows.size() == 2);
  CHECK(rows.at("stall").used() == Approx(1.5));
  CHECK(rows.at("run").used() == Approx(0.25));
}

// 12 V, 0.5 A: an L298N loses 1.8 to 2.5 V of it, a DRV8871 half an ohm's.
TEST_CASE("what is left for a motor behind its stage") {
  const auto module = choose::motorGets(*withStage(kGearmotor, "l298n-module"), "m");
  const auto board = choose::motorGets(*withStage(kGearmotor, "drv8871-board"), "m");
  REQUIRE(module.running);
  REQUIRE(board.running);
  CHECK(module.running->value > 9);
  CHECK(module.running->value < 10.6);
  CHECK(board.running->value > 11.2);
  CHECK(*module.stalled < *module.running);
  CHECK(*module.most > *module.running);
  CHECK(*module.speed < *board.speed);
  CHECK(*board.speed > 0.93);
  CHECK_FALSE(choose::motorGets(*withStage(kGearmotor, "drv8871-board"), "nobody").running);
  // A chopper regulates the current: its voltage says nothing.
  const auto stepper =
      choose::motorGets(*withStage("part v adapter-24v-5a\npart m stepper-nema17-1a68 Motor\nintent m both", "stepdir-box-tb6600"), "m");
  CHECK_FALSE(stepper.running);
  CHECK_FALSE(stepper.speed);
}

TEST_CASE("what a stage stands, and what the motor asks of it") {
  const auto s = withStage(kGearmotor, "l298n-module");
  const auto area = charts::operatingArea(*s, "m");
  REQUIRE(area);
  CHECK(area->least == 4.8);
  CHECK(area->most == 35);
  CHECK(area->continuous == 1.5);
  CHECK(area->peak == 2.5);
  const auto asked = charts::whiskers(*s, "m");
  REQUIRE(asked.size() == 2);
  CHECK(asked[0].volts == Approx(12.6));
  CHECK(*asked[0].stall > *asked[0].run);
  CHECK(*asked[0].stall > *asked[1].stall);  // a supply that is nearly empty gives less
  // (12.6 - 2.9) / 5.7: between a drop of 1.5 and 4 V.
  CHECK(*asked[0].stall > 8.6 / 5.9);
  CHECK(*asked[0].stall < 11.1 / 5.7);
  // A low-side switch: what it may keep off.
  const auto low =
      charts::operatingArea(*withStage("part v adapter-12v-2a\npart m pump-diaphragm-12v Motor\nintent m", "nmos-irlz44n"), "m");
  REQUIRE(low);
  CHECK(low->least == 0);
  CHECK(low->absolute == 55);
  CHECK(low->withSink > low->continuous);
  CHECK_FALSE(charts::operatingArea(*solved(wiredBench(kGearmotor)), "m"));
}

TEST_CASE("the resistor before a base or gate: of the row, as strong as the load asks for, never more than the pin gives") {
  parts::Bipolar t;
  t.vbe = {.typ = 0.7};
  parts::Pins pins;
  pins.resistance = {.typ = 20};
  pins.recommended = {.typ = 0.02};
  const choose::Drive five{Volts{5}, pins};
  // 100 mA / 20 = 5 mA, a tenth more to be sure: 4.3 V / 5.5 mA - 20 = 762: 680 is the next below.
  CHECK(choose::baseResistor(t, five, Amps{0.1}).value == Approx(680));
  CHECK(choose::baseCurrent(t, five, Ohms{680}).value == Approx(4.3 / 700));
  // 1 A would take 55 mA: the pin gives 20, 4.3 / 0.02 - 20 = 195, and 180 would be more than that.
  CHECK(choose::baseResistor(t, five, Amps{1}).value == Approx(220));
  t.darlington = true;
  CHECK(choose::baseResistor(t, five, Amps{1}) > choose::baseResistor({}, five, Amps{1}));
  // 5 V / 20 mA - 20 = 230: the next above.
  CHECK(choose::gateResistor(five).value == Approx(270));
  for (double amps = 0.001; amps < 5; amps *= 1.3)
    for (const double level : {3.3, 5.0}) {
      const choose::Drive drive{Volts{level}, pins};
      CHECK(choose::baseCurrent({}, drive, choose::baseResistor({}, drive, Amps{amps})).value <= 0.0201);
    }
}

TEST_CASE("no level shifters where the pins give 5 V, or nothing is wired to them") {
  auto h = wiredBench("part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n" + kGearmotor);
  CHECK_FALSE(choose::shiftLevels(h, library(), "s1"));
  const auto edit = choose::wireStage(h, library(), {"m", "l298n-module", "v"});
  REQUIRE(edit);
  apply(h, *edit);
  CHECK_FALSE(choose::shiftLevels(h, library(), "s1"));  // 5 V
  auto esp = wiredBench("part usb usb-port-0a9\npart u board-esp32-38 Board\nplug usb.USB u.USB\n" + kGearmotor);
  const auto there = choose::wireStage(esp, library(), {"m", "l298n-module", "v"});
  REQUIRE(there);
  apply(esp, *there);
  const auto shifted = choose::shiftLevels(esp, library(), "s1");
  REQUIRE(shifted);
  const auto pins = harness::intentOf(esp, "m")->signals;
  apply(esp, *shifted);
  CHECK(harness::intentOf(esp, "m")->signals == pins);  // the program does not notice
  CHECK(analyseFast(harness::asPlanned(esp)).causes(checks::Severity::Stop) == 0);
  CHECK_FALSE(choose::shiftLevels(esp, library(), "s1"));  // nothing is straight any more
}
