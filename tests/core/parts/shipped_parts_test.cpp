#include <catch2/catch.hpp>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/embedded.h"
#include "core/base/json.h"
#include "core/parts/library.h"
#include "core/parts/read_part.h"
#include "core/parts/truth_table.h"
#include "support/benches.h"
#include "support/schema.h"

using namespace bold;
using namespace bold::parts;
using bold::test::library;

namespace {

double shippedFigure(const std::string& part, const std::string& name) {
  const auto p = library().find(part);
  REQUIRE(p);
  const auto* f = p->figure(name);
  REQUIRE(f);
  return f->figure.typical().value();
}

std::string drives(const TruthRow& row) {
  std::string out;
  for (const auto d : row.outputs) out += d == Drive::High ? 'H' : d == Drive::Low ? 'L' : d == Drive::Open ? '-' : '!';
  return out;
}

// The row of a channel for these inputs; inputs not named are high.
std::string row(const std::string& part, const std::string& channel, std::map<std::string, int> inputs) {
  const auto p = library().find(part);
  REQUIRE(p);
  const auto* c = p->channel(channel);
  REQUIRE(c);
  for (const auto& r : truthTable(*p, *c)) {
    bool here = true;
    for (const auto& [t, level] : r.inputs) here = here && (level == Level::High) == (inputs.contains(t) ? inputs.at(t) == 1 : true);
    if (here) return drives(r);
  }
  return "no row";
}

}  // namespace

TEST_CASE("every shipped part file reads without a complaint") {
  std::vector<Problem> problems;
  Library l;
  l.addOwn(shippedPartFiles(), problems);
  for (const auto& p : problems) FAIL_CHECK(text(p));
  CHECK(l.size() == shippedPartFiles().size());
  CHECK(l.size() >= 50);
}

TEST_CASE("every shipped part meets the published schema") {
  const auto schemas = embedded::schemas();
  const auto file = std::ranges::find(schemas, "part.schema.json", &embedded::File::path);
  REQUIRE(file != schemas.end());
  for (const auto& [path, content] : shippedPartFiles()) {
    INFO(path);
    for (const auto& problem : bold::test::againstSchema(file->text, content)) FAIL_CHECK(problem);
  }
}

TEST_CASE("the figures of shipped parts obey physics") {
  for (const auto& p : library().search("")) {
    INFO(p->id);
    for (const auto& f : p->figures) {
      INFO(f.id);
      if (f.figure.min && f.figure.max) CHECK(*f.figure.min <= *f.figure.max);
      if (f.figure.typ && f.figure.min) CHECK(*f.figure.min <= *f.figure.typ);
      if (f.figure.typ && f.figure.max) CHECK(*f.figure.typ <= *f.figure.max);
      if (f.figure.typ && f.figure.spreadMin) {
        CHECK(*f.figure.spreadMin <= *f.figure.typ);
        CHECK(*f.figure.typ <= *f.figure.spreadMax);
      }
      CHECK_FALSE(f.figure.source.empty());
    }
    for (const auto& t : p->terminals) {
      if (!t.supply || !t.supply->absolute.greatest() || !t.supply->recommended.max) continue;
      INFO(t.id);
      CHECK(*t.supply->recommended.max <= *t.supply->absolute.greatest());
    }
    for (const auto& [name, set] : p->levels)
      CHECK((set.rail.empty() ? *set.low.typical() < *set.high.typical() : set.lowShare < set.highShare));
    for (const auto& c : p->channels) {
      INFO("channel " << c.id);
      CHECK(c.continuous.known());
      if (c.peak.typical()) CHECK(*c.continuous.typical() <= *c.peak.typical());
      if (c.continuousSink.typical()) CHECK(*c.continuous.typical() <= *c.continuousSink.typical());
    }
    for (const auto& e : p->elements) {
      if (const auto* s = std::get_if<Source>(&e.body); s && s->nominal.known()) {
        CHECK(*s->empty.typical() <= *s->nominal.typical());
        CHECK(*s->nominal.typical() <= *s->full.typical());
      }
      if (const auto* m = std::get_if<Mosfet>(&e.body)) {
        for (std::size_t k = 1; k < m->rds.size(); ++k) CHECK(m->rds[k].second <= m->rds[k - 1].second);
        CHECK(m->threshold.greatest().value() < m->rds.front().first);
      }
      if (const auto* b = std::get_if<Bipolar>(&e.body))
        for (std::size_t k = 1; k < b->saturation.size(); ++k) CHECK(b->saturation[k].second >= b->saturation[k - 1].second);
      if (const auto* s = std::get_if<Switch>(&e.body); s && s->v0Max.known())
        for (const double i : {0.0, 0.5, 1.0, 2.0})
          CHECK(*s->v0Max.typical() + *s->resistanceMax.typical() * i >= *s->v0.typical() + *s->resistance.typical() * i);
    }
  }
}

TEST_CASE("figures worked out by hand") {
  CHECK(shippedFigure("brushed-gear25-12v", "stall") == Approx(12 / 5.7));
  CHECK(shippedFigure("brushed-130-3v", "stall") == Approx(2.1).epsilon(0.01));
  CHECK(shippedFigure("pump-diaphragm-12v", "stall") == Approx(2.67).epsilon(0.01));
  CHECK(shippedFigure("stepper-28byj48-5v", "phase") == Approx(0.1));
  CHECK(shippedFigure("nmos-irlz44n", "vds") == 55);
  CHECK(shippedFigure("darlington-tip120", "vce") == 60);
  CHECK(shippedFigure("drv8825-carrier", "sense") == Approx(0.1));
  // 28 AWG is 0.0810 mm2 of copper: 0.213 ohm a metre; each three gauges double the area.
  for (const int awg : {28, 26, 24, 22, 20, 18, 16}) {
    const double diameter = 0.127e-3 * std::pow(92.0, (36.0 - awg) / 39.0);
    const double ohms = 1.724e-8 / (3.14159265 * diameter * diameter / 4);
    CHECK(shippedFigure("wire-" + std::to_string(awg) + "awg", "perMetre") == Approx(ohms).epsilon(0.02));
  }
}

TEST_CASE("headers have the pins that the boards have") {
  const auto count = [](const std::string& id, auto test) { return std::ranges::count_if(library().find(id)->terminals, test); };
  const auto pwm = [](const Terminal& t) { return t.pin && !t.pin->pwm.empty(); };
  const auto pin = [](const Terminal& t) { return t.pin.has_value(); };
  CHECK(count("board-uno-atmega328p", pin) == 20);
  CHECK(count("board-uno-atmega328p", pwm) == 6);
  CHECK(count("sbc-header-40", pin) == 28);
  CHECK(count("sbc-header-40", pwm) == 4);
  CHECK(count("board-rp2040-40", pin) == 26);
  CHECK(count("board-rp2040-40", pwm) == 26);
  CHECK(count("board-usb-daq-8dio", pin) == 8);
  CHECK(count("board-usb-daq-8dio", pwm) == 1);
  CHECK(count("bridge-stack-tb6612", pin) == 12);  // outputs of its expander
  CHECK(count("bridge-stack-tb6612", pwm) == 4);
  CHECK(library().find("sbc-header-40")->find("J8-11")->label == "GPIO17");
  CHECK(library().find("sbc-header-40")->find("J8-2")->label == "5V");
  CHECK(library().find("board-rp2040-40")->find("GP2")->place.position == 4);
  CHECK(library().find("breadboard-half")->terminals.size() == 400);
}

TEST_CASE("truth tables that follow from the conditions are the makers' tables") {
  // L293D and L298N: enable low coasts, both inputs equal brake.
  for (const auto& [part, a, b, en] : {std::tuple{"l293d", "1A", "2A", "1-2EN"}, {"l298n-module", "IN1", "IN2", "ENA"}}) {
    CHECK(row(part, "A", {{a, 1}, {b, 0}, {en, 1}}) == "HL");
    CHECK(row(part, "A", {{a, 0}, {b, 1}, {en, 1}}) == "LH");
    CHECK(row(part, "A", {{a, 0}, {b, 0}, {en, 1}}) == "LL");
    CHECK(row(part, "A", {{a, 1}, {b, 1}, {en, 1}}) == "HH");
    CHECK(row(part, "A", {{a, 1}, {b, 0}, {en, 0}}) == "--");
  }
  // TB6612: PWM low brakes, both low coasts, standby coasts, both high brakes whatever PWM does.
  CHECK(row("tb6612fng", "A", {{"AIN1", 1}, {"AIN2", 0}, {"PWMA", 1}}) == "HL");
  CHECK(row("tb6612fng", "A", {{"AIN1", 0}, {"AIN2", 1}, {"PWMA", 1}}) == "LH");
  CHECK(row("tb6612fng", "A", {{"AIN1", 1}, {"AIN2", 0}, {"PWMA", 0}}) == "LL");
  CHECK(row("tb6612fng", "A", {{"AIN1", 0}, {"AIN2", 1}, {"PWMA", 0}}) == "LL");
  CHECK(row("tb6612fng", "A", {{"AIN1", 1}, {"AIN2", 1}, {"PWMA", 1}}) == "LL");
  CHECK(row("tb6612fng", "A", {{"AIN1", 1}, {"AIN2", 1}, {"PWMA", 0}}) == "LL");
  CHECK(row("tb6612fng", "A", {{"AIN1", 0}, {"AIN2", 0}, {"PWMA", 1}}) == "--");
  CHECK(row("tb6612fng", "A", {{"AIN1", 1}, {"AIN2", 0}, {"PWMA", 1}, {"STBY", 0}}) == "--");
  // The same chips behind an expander, four times.
  for (const std::string m : {"M1", "M2", "M3", "M4"}) {
    CHECK(row("bridge-stack-tb6612", m, {{m + "IN1", 1}, {m + "IN2", 0}, {m + "PWM", 1}}) == "HL");
    CHECK(row("bridge-stack-tb6612", m, {{m + "IN1", 0}, {m + "IN2", 1}, {m + "PWM", 1}}) == "LH");
    CHECK(row("bridge-stack-tb6612", m, {{m + "IN1", 1}, {m + "IN2", 1}, {m + "PWM", 0}}) == "LL");
    CHECK(row("bridge-stack-tb6612", m, {{m + "IN1", 0}, {m + "IN2", 0}, {m + "PWM", 0}}) == "--");
  }
  // Step/dir carriers: enable is active low, reset and sleep are active low.
  CHECK(row("a4988-carrier", "1", {{"EN", 0}}) == "HLHL");
  CHECK(row("a4988-carrier", "1", {{"EN", 1}}) == "----");
  CHECK(row("a4988-carrier", "1", {{"EN", 0}, {"RST", 0}}) == "----");
  CHECK(row("a4988-carrier", "1", {{"EN", 0}, {"SLP", 0}}) == "----");
  CHECK(row("drv8825-carrier", "1", {{"ENBL", 0}}) == "HLHL");
  CHECK(row("drv8825-carrier", "1", {{"ENBL", 0}, {"SLP", 0}}) == "----");
  CHECK(row("uln2003-board", "1", {{"IN1", 1}, {"IN2", 0}, {"IN3", 0}, {"IN4", 0}}) == "L---");
}

TEST_CASE("no output of any stage has both its switches closed for any inputs") {
  for (const auto& p : library().search(""))
    for (const auto& c : p->channels)
      for (const auto& r : truthTable(*p, c)) {
        INFO(p->id << " channel " << c.id);
        CHECK(drives(r).find('!') == std::string::npos);
      }
}

TEST_CASE("the search box finds parts by the words people use") {
  const auto first = [](std::string_view q) {
    const auto hits = library().search(q);
    return hits.empty() ? std::string() : hits.front()->id;
  };
  CHECK(first("uno") == "board-uno-atmega328p");
  CHECK(first("28byj") == "stepper-28byj48-5v");
  CHECK(first("12 v 2 a") == "adapter-12v-2a");
  CHECK(first("8825") == "drv8825-carrier");
  CHECK(first("nema 17 1.68") == "stepper-nema17-1a68");
  CHECK(first("nothing like this").empty());
  CHECK(first("nema 17 1.5 a") == "stepper-nema17-1a68");
  CHECK(first("43 a") == "bts7960-module");
  CHECK(first("5v 2a") == "adapter-5v-2a");
  CHECK(first("darlington") == "darlington-tip120");
  CHECK(first("nano") == "board-nano-atmega328p");
  CHECK(first("battery 7.4 v") == "battery-lipo-2s");
  CHECK(first("12 V 0.5 A, 2 A stall") == "brushed-gear25-12v");
  CHECK(first("pca9685") == "pwm-16-i2c");
  CHECK(first("daq") == "board-usb-daq-8dio");
  CHECK(first("xt60") == "connector-xt60");
  CHECK(first("crocodile") == "lead-croc");
  CHECK(first("jack") == "connector-barrel-2a");
}

TEST_CASE("a motor at its own rating is not too hot") {
  int held = 0;
  for (const auto& p : library().search("")) {
    double watts = 0;  // of all windings at 20 degC
    const parts::Winding* any = nullptr;
    int coils = 0;
    for (const auto& e : p->elements)
      if (const auto* w = std::get_if<parts::Winding>(&e.body)) {
        const auto amps = w->brushed ? w->run.typical() : w->phase.typical();
        if (!amps || !w->resistance.typical() || coils == 2) continue;  // a unipolar motor has two coils on at a time
        watts += *amps * *amps * *w->resistance.typical();
        any = w;
        ++coils;
      }
    if (!any || !any->thermal.typical() || !any->hottest.typical()) continue;
    INFO(p->id);
    // In a room of 25 degC: T = Ta + Rth P (1 + 0.0039 (T - 20)) where a current is given, / (1 + …) for a coil on its voltage.
    const double gain = 0.0039 * *any->thermal.typical() * watts;
    double celsius = (25 + *any->thermal.typical() * watts * (1 - 20 * 0.0039)) / (1 - gain);
    if (!any->brushed && any->nominal.known()) {
      for (int i = 0; i < 50; ++i) celsius = 0.5 * (celsius + 25 + *any->thermal.typical() * watts / (1 + 0.0039 * (celsius - 20)));
    } else {
      REQUIRE(gain < 1);
    }
    CHECK(celsius <= *any->hottest.typical());
    ++held;
  }
  CHECK(held > 10);
}
