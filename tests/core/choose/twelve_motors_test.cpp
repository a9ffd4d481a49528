#include <catch2/catch.hpp>
#include <map>

#include "core/choose/smallest_change.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// Twelve motors of different classes: which stages fit, which do not and by which limit, and the least that would let them in, worked out
// by hand before the first run.
namespace {

struct Tries {
  harness::Harness bench;
  choose::Before before;
  std::map<std::string, choose::Candidate> by;
  std::string first;

  explicit Tries(const std::string& text)
      : bench(wiredBench("part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n" + text)),
        before(*choose::beforeStages(bench, library(), "m", {})) {
    std::vector<choose::Candidate> all;
    for (const auto& o : choose::stagesFor(bench, library(), "m"))
      all.push_back(*choose::candidate(bench, library(), "m", o, "v", {}, before));
    std::ranges::sort(all, choose::better);
    first = all.front().stage;
    for (const auto& c : all) by.emplace(c.stage + (c.parallel ? " in parallel" : ""), c);
  }
  bool fits(const char* stage) const { return by.at(stage).excluded.empty() && by.at(stage).verdict == Verdict::Clear; }
  /// The check that is against it is among those that stop it.
  bool stoppedBy(const char* stage, const char* check) const {
    for (const auto& f : by.at(stage).against)
      if (f.severity == checks::Severity::Stop && f.check == check) return true;
    return false;
  }
  bool cautionedBy(const char* stage, const char* check) const {
    for (const auto& f : by.at(stage).against)
      if (f.severity == checks::Severity::Caution && f.check == check) return by.at(stage).verdict == Verdict::LookAgain;
    return false;
  }
  std::string change(const char* stage) const {
    const auto c = choose::smallestChange(bench, library(), "m", by.at(stage), {}, before);
    return c ? c->text : std::string("none");
  }
};

}  // namespace

// 4 ohm, four cells of 1.6 V full with some ohms of their own: stalled under 1.5 A. A BTS7960 needs 6 V, the pack has 6 V when it is new.
TEST_CASE("motor 1: a small 6 V gearmotor on four cells, both ways") {
  const Tries t("part v battery-4aa-alkaline\npart m brushed-n20-6v Motor\nintent m both speed ramp");
  CHECK(t.fits("tb6612fng"));
  CHECK(t.stoppedBy("bts7960-module", "motor-supply-too-low"));
  CHECK(t.by.at("nmos-irlz44n").excluded.find("one way") != std::string::npos);
  CHECK(t.change("bts7960-module").find("or more") != std::string::npos);
}

// 2.1 A stalled at 12 V: the DRV8833 stands 11.8 V, a 12 V adapter gives 12.6.
TEST_CASE("motor 2: a 12 V gearmotor of 25 mm, both ways") {
  const Tries t("part v adapter-12v-2a\npart m brushed-gear25-12v Motor\nintent m both speed ramp");
  CHECK(t.first == "tb6612fng");  // two channels joined: nothing besides
  CHECK(t.fits("drv8871-board"));
  CHECK(t.stoppedBy("drv8833-board", "motor-supply-too-high"));
  CHECK(t.change("drv8833-board") == "with a supply of 11.2 V (11.8 V full) or less, such as Adapter 9 V 1 A");
}

// 2.18 ohm and two of the bridge's own volts: (12.6 - 2.5) / 2.2 = 4 to 5 A stalled, over the 2.5 A of one channel, under those of two.
TEST_CASE("motor 3: a 12 V gearmotor of 37 mm, both ways") {
  const Tries t("part v adapter-12v-5a\npart m brushed-gear37-12v Motor\nintent m both speed ramp");
  CHECK(t.fits("bts7960-module"));
  CHECK(t.fits("bridge-dir-pwm-2x10a"));
  CHECK_FALSE(t.fits("l298n-module"));
  CHECK(t.fits("l298n-module in parallel"));
  CHECK(t.stoppedBy("mx1508-module", "motor-supply-too-high"));
}

// 0.6 A running, 2.4 A stalled, one way: one pin; a module with its resistors on it takes a diode and nothing else.
TEST_CASE("motor 4: a diaphragm pump, one way, by speed") {
  const Tries t("part v adapter-12v-2a\npart m pump-diaphragm-12v Motor\nintent m speed");
  CHECK(t.first == "mosfet-module-d4184");
  CHECK(t.fits("nmos-irlz44n"));
  CHECK(t.stoppedBy("nmos-2n7000", "running-current"));
  CHECK(t.change("nmos-2n7000") == "none");
  CHECK(t.stoppedBy("uln2003a", "running-current"));
}

// 5 A running, some 28 A stalled: what carries 7 A for long and 250 A for a moment does, but not a held pump for long; what carries 1
// or 1.5 A does not. The battery has no switch: with whatever stage.
TEST_CASE("motor 5: a 60 W pump on a lead battery") {
  const Tries t("part v battery-lead-12v-7ah\npart m pump-diaphragm-12v-60w Motor\nintent m");
  CHECK(t.cautionedBy("nmos-irlb8721", "stall-current"));
  CHECK(t.stoppedBy("l298n-module", "running-current"));
  CHECK(t.stoppedBy("darlington-tip120", "running-current"));
  CHECK(t.change("l298n-module") == "none");
}

// 3 V: a DRV8871 begins at 6.5 V, which the motor does not stand: no supply is right for both.
TEST_CASE("motor 6: a 130-size motor on two cells") {
  const Tries t("part v battery-2aa-alkaline\npart m brushed-130-3v Motor\nintent m");
  CHECK(t.fits("nmos-ao3400a"));
  CHECK(t.stoppedBy("drv8871-board", "motor-supply-too-low"));
  CHECK(t.change("drv8871-board") == "none");
}

// 0.1 A a coil at 5 V.
TEST_CASE("motor 7: a small unipolar stepper, 5 V") {
  const Tries t("part v adapter-5v-2a\npart m stepper-28byj48-5v Motor\nintent m both sequence=full");
  CHECK(t.first == "uln2003-board");
  CHECK(t.fits("uln2803a"));
  CHECK(t.by.at("a4988-carrier").excluded.find("no channel") != std::string::npos);
}

// Its board is made for 12 V at most, and stands 50: an adapter of 12 V is right at its edge, one of 15 V would not be.
TEST_CASE("motor 8: the same, 12 V") {
  const Tries t("part v adapter-12v-2a\npart m stepper-28byj48-12v Motor\nintent m both sequence=full");
  CHECK(t.fits("uln2003-board"));
  CHECK(t.by.at("uln2003-board").margins.at("supply").used().value_or(0) == Approx(1).margin(0.03));
  CHECK(t.fits("uln2003a"));
}

// 30 ohm: 12 V drive 0.35 A through both bridges, no limit needed. A stage with one: 0.4 A RMS are 0.566 A at the crest, in steps of 0.05 A
// 0.55 A; of a DRV8825 V_ref = 0.55 x 5 x 0.1 ohm.
TEST_CASE("motor 9: a stepper of 30 ohm, by voltage or by current") {
  const Tries t("part v adapter-12v-2a\npart m stepper-nema17-0a4 Motor\nintent m both hold");
  CHECK(t.fits("l298n-module"));
  CHECK(t.cautionedBy("drv8825-carrier", "current-limit-setting"));
  CHECK(t.change("drv8825-carrier") == "with its current trimmed to 550 mA (reference 275 mV, measured)");
  CHECK(t.change("a4988-carrier") == "none");  // its sense resistor differs from maker to maker
}

// 1.68 A a phase, 1.5 A as the DRV8825 is cooled: 2.12 A at the crest. But with 50 K to spare in the worst case its small board stands
// less: 1.75 A; 0.875 V.
TEST_CASE("motor 10: a stepper of 1.68 A") {
  const Tries t("part v adapter-24v-5a\npart m stepper-nema17-1a68 Motor\nintent m both");
  CHECK(t.fits("stepdir-box-tb6600"));
  CHECK(t.change("drv8825-carrier") == "with its current trimmed to 1.75 A (reference 875 mV, measured)");
  CHECK(t.stoppedBy("l298n-module", "phase-current-unlimited"));
}

// 4.2 A a phase: a box goes to 4.2 A at the crest, which its switches are planned at, and grows warm there: one position less keeps it
// cool. An A3967 stands 0.85 A at the crest: a seventh of what the motor is made for holds nothing.
TEST_CASE("motor 11: a stepper of 4.2 A") {
  const Tries t("part v adapter-24v-15a\npart m stepper-nema23-4a2 Motor\nintent m both");
  CHECK(t.cautionedBy("stepdir-box-opto", "junction-temperature"));
  CHECK(t.change("stepdir-box-opto") == "with its peak current, switches 1 to 3 at 3.76 A");
  CHECK(t.cautionedBy("a3967-board", "current-limit-setting"));
  CHECK(t.change("a3967-board") == "none");
}

// 0.16 A, electronics inside: one way, not chopped.
TEST_CASE("motor 12: a 12 V blower with electronics, only on and off") {
  const Tries t("part v adapter-12v-2a\npart m fan-80mm-12v Motor\nintent m");
  CHECK(t.first == "mosfet-module-d4184");
  CHECK(t.fits("nmos-irlz44n"));
  CHECK(t.fits("npn-bc337"));
  CHECK(t.by.at("a4988-carrier").excluded.find("no channel") != std::string::npos);
}
