#include <catch2/catch.hpp>
#include <cmath>

#include "core/parts/library.h"
#include "core/parts/truth_table.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::parts;
using bold::test::library;

// Figures worked out here by hand from formulas, or known to everybody in the trade: what the library says has to agree.
namespace {

std::shared_ptr<const Part> part(const std::string& id, const std::map<std::string, std::string>& overrides = {}) {
  std::vector<Problem> problems;
  auto p = library().withOverrides(id, overrides, problems);
  INFO(id);
  REQUIRE(p);
  REQUIRE(problems.empty());
  return p;
}
double figure(const std::string& id, const std::string& name, const std::map<std::string, std::string>& overrides = {}) {
  const auto p = part(id, overrides);
  const auto* f = p->figure(name);
  INFO(id << " " << name);
  REQUIRE(f);
  return f->figure.typical().value();
}
const Terminal& terminal(const std::string& id, const std::string& name) {
  const auto* t = part(id)->find(name);
  INFO(id << " " << name);
  REQUIRE(t);
  return *t;
}
double supplyMost(const std::string& id, const std::string& t) {
  return terminal(id, t).supply->recommended.max.value();
}
double supplyAbsolute(const std::string& id, const std::string& t) {
  return terminal(id, t).supply->absolute.greatest().value();
}
double high(const std::string& id, const std::string& set) {
  return part(id)->levels.at(set).high.typical().value();
}
template <class E>
const E& element(const std::shared_ptr<const Part>& p) {
  for (const auto& e : p->elements)
    if (const auto* x = std::get_if<E>(&e.body)) return *x;
  FAIL("no such element");
  throw 0;
}
double trip(const std::string& id, const std::map<std::string, std::string>& overrides) {
  return tripCurrent(element<Chopper>(part(id, overrides)))->value;
}
int withPwm(const std::string& id) {
  int n = 0;
  for (const auto& t : part(id)->terminals) n += t.pin && !t.pin->pwm.empty();
  return n;
}
int pins(const std::string& id) {
  int n = 0;
  for (const auto& t : part(id)->terminals) n += t.pin.has_value();
  return n;
}
// Voltage that both switches of a bridge of bipolar transistors lose at a current.
double lost(const std::string& id, const std::string& out, double amps) {
  double sum = 0;
  for (const auto& e : part(id)->elements)
    if (const auto* s = std::get_if<Switch>(&e.body); s && (s->a == out || s->b == out))
      sum += s->v0.typical().value_or(0) + s->resistance.typical().value() * amps;
  return sum;
}

}  // namespace

TEST_CASE("current limits of step/dir stages follow their makers' formulas") {
  CHECK(trip("a4988-carrier", {{"reference", "0.8 V"}, {"sense", "100 mohm"}}) == Approx(0.8 / (8 * 0.1)));
  CHECK(trip("a4988-carrier", {{"reference", "0.8 V"}, {"sense", "50 mohm"}}) == Approx(2.0));
  CHECK(trip("a4988-carrier", {{"reference", "0.54 V"}, {"sense", "68 mohm"}}) == Approx(0.54 / (8 * 0.068)));
  CHECK(trip("drv8825-carrier", {{"reference", "0.75 V"}}) == Approx(1.5));  // with 0.1 ohm: twice the volts
  CHECK(trip("a3967-board", {{"reference", "3 V"}}) == Approx(3 / (8 * 0.75)));
  CHECK(trip("tmc2209-carrier", {{"reference", "1.2 V"}}) == Approx(1.2).epsilon(0.01));  // peak; 0.85 A RMS
  CHECK(trip("tmc2208-carrier", {{"reference", "1 V"}}) == Approx(1.0).epsilon(0.01));
}

TEST_CASE("stall currents are voltage over resistance") {
  CHECK(figure("brushed-130-6v", "stall") == Approx(0.5));
  CHECK(figure("brushed-n20-6v", "stall") == Approx(1.5));
  CHECK(figure("brushed-n20-6v-low-power", "stall") == Approx(0.359).epsilon(0.01));
  CHECK(figure("brushed-370-12v", "stall") == Approx(2.4));
  CHECK(figure("brushed-540-7v2", "stall") == Approx(50));
  CHECK(figure("brushed-550-12v", "stall") == Approx(85).epsilon(0.01));
  CHECK(figure("brushed-775-12v", "stall") == Approx(65).epsilon(0.01));
  CHECK(figure("brushed-100mm-24v-250w", "stall") == Approx(24 / 0.14));
  CHECK(figure("pump-diaphragm-12v-60w", "stall") == Approx(30));
  CHECK(figure("brushed-coin-3v", "stall") == Approx(0.1));
  CHECK(figure("brushed-motor", "stall", {{"nominal", "9 V"}, {"winding", "4.5 ohm"}}) == Approx(2));
}

TEST_CASE("steppers: current times resistance is what is printed as their voltage") {
  const auto volts = [](const std::string& id) { return figure(id, "phase") * figure(id, "winding"); };
  CHECK(volts("stepper-nema8-0a6") == Approx(3.9));
  CHECK(volts("stepper-nema11-0a67") == Approx(3.75).epsilon(0.02));
  CHECK(volts("stepper-nema14-1a0") == Approx(2.7));
  CHECK(volts("stepper-nema17-0a4") == Approx(12));
  CHECK(volts("stepper-nema17-1a68") == Approx(2.8).epsilon(0.02));
  CHECK(volts("stepper-nema17-2a0") == Approx(2.8));
  CHECK(volts("stepper-nema23-2a8") == Approx(2.52));
  CHECK(volts("stepper-nema23-4a2") == Approx(3.78));
  CHECK(figure("stepper-28byj48-12v", "phase") == Approx(0.06));
  CHECK(figure("stepper-unipolar-7v5deg-12v", "phase") == Approx(0.16));
}

TEST_CASE("steps a turn are a whole turn over the step angle, gears included") {
  CHECK(figure("stepper-nema17-1a68", "steps") == Approx(360 / 1.8));
  CHECK(figure("stepper-unipolar-7v5deg-12v", "steps") == Approx(360 / 7.5));
  // 32 steps of the rotor and the gears 31/10, 26/9, 22/11, 32/9.
  CHECK(figure("stepper-28byj48-5v", "steps") == Approx(32.0 * (31.0 / 10) * (26.0 / 9) * (22.0 / 11) * (32.0 / 9)).epsilon(0.0005));
}

TEST_CASE("packs of cells are so many times one cell") {
  CHECK(figure("battery-2aa-alkaline", "nominal") == Approx(2 * 1.5));
  CHECK(figure("battery-3aa-alkaline", "full") == Approx(3 * 1.6));
  CHECK(figure("battery-6aa-alkaline", "empty") == Approx(6 * 0.9));
  CHECK(figure("battery-8aa-alkaline", "resistance") == Approx(8 * 0.2));
  CHECK(figure("battery-5aa-nimh", "nominal") == Approx(5 * 1.2));
  CHECK(figure("battery-5aa-nimh", "full") == Approx(5 * 1.45));
  CHECK(figure("battery-lithium-3s", "full") == Approx(3 * 4.2));
  CHECK(figure("battery-lithium-4s", "full") == Approx(16.8));
  CHECK(figure("battery-lipo-3s", "full") == Approx(12.6));
  CHECK(figure("battery-lead-12v-7ah", "empty") == Approx(6 * 1.75));
}

TEST_CASE("an aged pack has at least twice the resistance of a fresh one, and every pack says how much") {
  const auto aged = [](const std::string& id) { return library().find(id)->figure("resistance")->figure.greatest().value_or(0); };
  CHECK(aged("battery-4aa-alkaline") == Approx(4 * 0.5));
  CHECK(aged("battery-6aa-nimh") == Approx(6 * 0.1));
  CHECK(aged("battery-9v-block") == Approx(6.0));
  CHECK(aged("battery-lithium-2s") == Approx(2 * 0.1));
  int packs = 0;
  for (const auto& p : library().search("battery")) {
    const auto* r = p->figure("resistance");
    if (!p->id.starts_with("battery-") || !r) continue;
    INFO(p->id);
    CHECK(aged(p->id) >= 2 * r->figure.typical().value_or(1e9));
    ++packs;
  }
  CHECK(packs >= 16);
}

TEST_CASE("absolute maxima that everybody in the trade knows") {
  CHECK(figure("nmos-2n7000", "vds") == 60);
  CHECK(figure("nmos-irf540n", "vds") == 100);
  CHECK(figure("nmos-irlb8721", "vds") == 30);
  CHECK(figure("npn-bc337", "vce") == 45);
  CHECK(figure("npn-bd139", "vce") == 80);
  CHECK(figure("darlington-tip122", "vce") == 100);
  CHECK(figure("diode-sb560", "reverse") == 60);
  CHECK(figure("diode-uf4007", "reverse") == 1000);
  CHECK(supplyAbsolute("drv8871-board", "VM") == 50);
  CHECK(supplyAbsolute("drv8835-carrier", "VM") == 12);
  CHECK(supplyAbsolute("vnh5019-carrier", "VM") == 41);
  CHECK(supplyAbsolute("tmc2209-carrier", "VM") == 33);
  CHECK(supplyAbsolute("l298", "VS") == 50);
  CHECK(supplyMost("l298", "VS") == 46);
  CHECK(figure("regulator-7805", "absolute") == 35);
  CHECK(figure("regulator-1117-3v3", "dropout") == Approx(1.3));
}

TEST_CASE("what an L298 loses, and the levels of old and new bridges") {
  CHECK(lost("l298", "OUT1", 1.0) == Approx(2.55));         // 1.35 V above, 1.2 V below
  CHECK(lost("l298n-module", "OUT1", 2.0) == Approx(3.7));  // 2.0 V and 1.7 V
  CHECK(lost("l9110s-module", "A-1", 0.75) == Approx(2.8).epsilon(0.01));
  CHECK(high("l298", "ttl") == Approx(2.3));
  CHECK(high("vnh2sp30-module", "ttl") == Approx(3.25));
  CHECK(high("vnh5019-carrier", "ttl") == Approx(2.1));
  CHECK(high("drv8871-board", "ttl") == Approx(1.5));
  CHECK(part("drv8835-carrier")->levels.at("cmos").highShare == Approx(0.5));
  CHECK(part("a3967-board")->levels.at("cmos").highShare == Approx(0.7));
}

TEST_CASE("boards have the pins that are printed on them") {
  CHECK(pins("board-nano-atmega328p") == 22);
  CHECK(withPwm("board-nano-atmega328p") == 6);
  CHECK(pins("board-mega-atmega2560") == 70);
  CHECK(withPwm("board-mega-atmega2560") == 15);
  CHECK(withPwm("board-leonardo-atmega32u4") == 7);
  CHECK(withPwm("board-micro-atmega32u4") == 7);
  CHECK(pins("sbc-header-26-rev1") == 17);
  CHECK(pins("sbc-header-26-rev2") == 17);
  CHECK(terminal("sbc-header-26-rev1", "P1-13").label == "GPIO21");  // which revision 2 calls 27
  CHECK(terminal("sbc-header-26-rev2", "P1-13").label == "GPIO27");
  CHECK(terminal("sbc-header-26-rev2", "P1-11").label == "GPIO17");
  CHECK(pins("chip-attiny85") == 5);  // the sixth, PB5, is the reset pin
  CHECK(withPwm("chip-pic16f877a") == 2);
  CHECK(terminal("board-esp8266-30", "D1").pin->chip == "GPIO5");
  CHECK(terminal("board-esp8266-30", "D4").pin->strap == "high");
  CHECK(terminal("board-esp32-s3-44", "IO0").pin->strap == "high");
  CHECK(terminal("uln2003a", "1C").aliases == std::vector<std::string>{"pin 16"});
  CHECK(terminal("uln2803a", "COM").aliases == std::vector<std::string>{"pin 10"});
}

TEST_CASE("gauges at the ends of the row follow the formula of the gauge") {
  for (const int awg : {30, 14, 12}) {
    const double diameter = 0.127e-3 * std::pow(92.0, (36.0 - awg) / 39.0);
    CHECK(figure("wire-" + std::to_string(awg) + "awg", "perMetre") ==
          Approx(1.724e-8 / (3.14159265 * diameter * diameter / 4)).epsilon(0.02));
  }
}
