#include <catch2/catch.hpp>

#include "support/judged.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("running-current: continuous cautions, half as much again stops, a heat sink helps") {
  CHECK(Judged("running-current", "from l293d").quiet());
  CHECK(Judged("running-current", "from l293d\nfigure m.run 0.7 A").only() == kCaution);
  CHECK(Judged("running-current", "from l293d\nfigure m.winding 4 ohm\nfigure m.run 1 A").only() == kStop);
  CHECK(Judged("running-current", "from darlington\nfigure m.winding 3 ohm\nfigure m.run 1.2 A").only() == kCaution);
  CHECK(Judged("running-current", "from darlington\nfigure m.winding 3 ohm\nfigure m.run 1.2 A\nset q1.heatSink fitted").quiet());
}

TEST_CASE("running-current: two motors on one channel are added") {
  const std::string two =
      "from bridge\nremove right\npart other brushed-gear-plastic-6v\nfigure other.winding 2 ohm\nfigure left.winding 2 ohm\nfigure "
      "left.run 0.9 A\nfigure other.run 0.9 A\n";
  CHECK(Judged("running-current", two).quiet());
  const Judged shared("running-current", two + "wire other.P left.P\nwire other.N left.N");
  CHECK(shared.only() == kCaution);
  CHECK(shared.arg("current") > 1.5);
}

TEST_CASE("stall-current: what protects the stage decides how grave it is") {
  // Thermal only, L293D: 0.6 A for long, 1.2 A peak.
  CHECK(Judged("stall-current", "from l293d\nfigure m.winding 20 ohm").quiet());
  CHECK(Judged("stall-current", "from l293d\nfigure m.winding 10 ohm").only() == kNote);
  CHECK(Judged("stall-current", "from l293d\nfigure m.winding 6 ohm").only() == kCaution);
  CHECK(Judged("stall-current", "from l293d\nfigure m.winding 3 ohm").only() == kStop);
  // None, PN2222A: 0.6 A for long, 1 A peak.
  CHECK(Judged("stall-current", "from npn\nfigure pump.winding 10 ohm").quiet());
  CHECK(Judged("stall-current", "from low-side\nfigure pump.winding 4.5 ohm").quiet());
}

TEST_CASE("stall-current: the far end of a catalogue counts one step less and asks for a measurement") {
  // 12 ohm measured, against the class with windings down to 2.1 ohm.
  const Judged measured("stall-current", "from l293d\nfigure m.winding 20 ohm");
  CHECK(measured.quiet());
  const auto h = wiredBench("from l293d\nfigure m.run 0.5 A");
  auto catalogue = h;
  for (auto& d : catalogue.devices)
    if (d.id == "m") d.overrides.clear();
  const auto f = findingsOf(analyseFast(catalogue), "stall-current");
  REQUIRE(f.size() == 1);
  CHECK(f[0].severity == kCaution);
}

TEST_CASE("stall-current: behind a current limit there is nothing to stall") {
  CHECK(Judged("stall-current", "from step-dir").quiet());
}

TEST_CASE("pin-current: recommended cautions, absolute stops, a motor's base through a resistor is fine") {
  CHECK(Judged("pin-current", "from npn").quiet());
  CHECK(Judged("pin-current", "from npn\nfigure r1.resistance 150 ohm").only() == kCaution);
  const Judged hot("pin-current", "from npn\nfigure r1.resistance 47 ohm");
  CHECK(hot.only() == kStop);
  CHECK(hot.arg("current") > 0.04);
  CHECK(hot.arg("limit") == 0.04);
}

TEST_CASE("motor-on-pin: between pins, to ground, and not behind a stage") {
  const std::string base = "part usb usb-port-0a5\npart uno board-uno-atmega328p\nplug usb.USB uno.USB\npart m brushed-130-3v\n";
  const Judged ground("motor-on-pin", base + "wire uno.D9 m.P\nwire uno.GND m.N");
  CHECK(ground.only() == kStop);
  CHECK(ground.findings[0].harm == checks::Harm::Damage);
  CHECK(Judged("motor-on-pin", base + "wire uno.D9 m.P\nwire uno.D10 m.N").only() == kStop);
  CHECK(Judged("motor-on-pin", base + "wire uno.5V m.P\nwire uno.GND m.N").quiet());
  CHECK(Judged("motor-on-pin", "from servo").quiet());
}

TEST_CASE("base-drive: overdrive of two is quiet, one to two cautions, starved stops") {
  CHECK(Judged("base-drive", "from npn").quiet());
  CHECK(Judged("base-drive", "from darlington").quiet());
  const Judged thin("base-drive", "from npn\nfigure r1.resistance 1.5 kohm");
  CHECK(thin.only() == kCaution);
  CHECK(thin.arg("overdrive") > 1);
  CHECK(thin.arg("overdrive") < 2);
  const Judged starved("base-drive", "from npn\nfigure r1.resistance 10 kohm");
  CHECK(starved.only() == kStop);
  CHECK(starved.arg("overdrive") < 1);
  // A Darlington below one ampere needs a five-hundredth.
  CHECK(Judged("base-drive", "from darlington-sbc\nfigure r1.resistance 1 kohm").quiet());
}

TEST_CASE("gate-drive: the lowest promised row, never the threshold") {
  CHECK(Judged("gate-drive", "from low-side").quiet());
  const std::string pico = "from low-side\nswap uno board-rp2040-40 D5=GP5 USB=USB GND=GND\nintent pump stage=q1 in=uno.GP5";
  const Judged low("gate-drive", pico);
  CHECK(low.only() == kCaution);
  CHECK(low.arg("vgs") == Approx(3.3 * 10000 / (10000 + 220 + 85)).margin(0.02));
  CHECK(low.arg("row") == 4.0);
  // A divider that leaves 1.8 V is below the greatest threshold.
  CHECK(Judged("gate-drive", pico + "\nfigure r1.resistance 10 kohm").only() == kStop);
}

TEST_CASE("current-limit-setting: never set, above the motor, above the cooling, weak") {
  CHECK(Judged("current-limit-setting", "from step-dir").quiet());
  const Judged never("current-limit-setting", "from step-dir\nfigure s1.reference unknown");
  CHECK(never.only() == kCaution);
  CHECK(never.text().starts_with("Its reference voltage is unknown"));
  CHECK(never.findings[0].formula.find("set V_ref = 1.9 V") != std::string::npos);
  CHECK(Judged("current-limit-setting", "from step-dir\nfigure s1.reference 2 V").only() ==
        kStop);  // 2.5 A at the crest, the driver takes 2 A
  CHECK(Judged("current-limit-setting", "from step-dir\nset s1.heatSink none").only() == kCaution);  // 1.06 A, 1 A bare
  CHECK(Judged("current-limit-setting", "from step-dir\nfigure s1.reference 0.4 V").only() == kNote);
  CHECK(Judged("current-limit-setting", "from step-dir\nswap m stepper-nema17-0a4").only() == kStop);      // 1.06 A into 0.4 A
  CHECK(Judged("current-limit-setting", "from step-dir\nremove m\nfigure s1.reference unknown").quiet());  // no motor, no matter
}

TEST_CASE("current-limit-setting: the wrong sense resistor doubles the current") {
  const Judged wrong("current-limit-setting", "from step-dir\nfigure s1.sense 50 mohm");
  CHECK(wrong.only() == kStop);
  CHECK(wrong.arg("trip") == Approx(1.2 / (8 * 0.05)));
}

TEST_CASE("current-limit-setting: what a box is set to, not what it comes set to") {
  CHECK(Judged("current-limit-setting", "from opto-box-tb6600").quiet());
  const Judged low("current-limit-setting", "from opto-box-tb6600\nset s1.current 1.2 A");
  REQUIRE(low.findings.size() == 1);
  CHECK(low.findings[0].formula == "I_trip = 1.2 V / (1 x 1 Ω) = 1.2 A; RMS 849 mA");
}

TEST_CASE("stall-current, running-current: joined channels share what their motor draws") {
  CHECK(Judged("stall-current", "from array-parallel").quiet());
  CHECK(Judged("running-current", "from array-parallel").quiet());
  CHECK_FALSE(Judged("running-current", "from array-parallel\nunwire s1.1B s1.2B").quiet());
  CHECK(Judged("paralleled-channels", "from l298n-parallel").quiet());
}

TEST_CASE("wire-current: a gauge between those of the library is held to the next thinner one, one without figures is told") {
  const auto judged = [](const std::string& awg) {
    auto h = wiredBench("from low-side");
    for (auto& c : h.connections)
      if (c.kind == harness::ConnectionKind::Wire) c.gauge = std::stoi(awg);
    return analyseFast(h);
  };
  CHECK(judged("27").solved->bench.gauges.contains(27));
  CHECK(judged("27").solved->bench.gauges.at(27).freeAir.typical() == judged("28").solved->bench.gauges.at(28).freeAir.typical());
  CHECK(judged("10").solved->bench.gauges.contains(10));
  const auto unknown = judged("36");
  CHECK_FALSE(unknown.solved->bench.gauges.contains(36));
  CHECK(std::ranges::any_of(unknown.why, [](const std::string& w) {
    return w == "What a wire of 36 AWG may carry is not known. It is not held against its current.";
  }));
}
