#include "core/checks/suppose.h"

#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

// A stacked four-bridge board on 24 V, whose link would bring the motor supply to the board's VIN.
std::string stacked(const std::string& more) {
  return "part usb usb-port-0a5 USB port\npart uno board-uno-atmega328p Controller\nplug usb.USB uno.USB\npart s1 bridge-stack-l293d S1\n" +
         more +
         "plug uno.power-left s1.power-left\nplug uno.analogue-left s1.analogue-left\nplug uno.digital-7-0-right s1.digital-7-0-right\n"
         "plug uno.digital-13-8-right s1.digital-13-8-right\npart psu adapter-24v-5a\npart m brushed-gear25-12v Gate\nfigure m.winding 48 "
         "ohm\n"
         "figure m.run 80 mA\nwire psu.P s1.VM RD\nwire psu.N s1.GND-M BK\nwire s1.M1-1 m.P BN\nwire s1.M1-2 m.N WH\n"
         "intent m both speed duty=0.45 forward=P stage=s1 channel=M1 in1=s1.M1A in2=s1.M1B speed=uno.D11\n";
}

}  // namespace

TEST_CASE("a link that would destroy a board in its other position is asked for, and remembered once it is stated") {
  const auto open = analyse(wiredBench(stacked("")), library());
  const auto asked = findingsOf(open, "setting-unstated");
  REQUIRE(asked.size() == 1);
  CHECK(asked[0].severity == checks::Severity::Caution);
  CHECK(asked[0].text.find("At fitted: The regulator of Controller gets 25.2 V") != std::string::npos);
  REQUIRE(asked[0].ways.size() == 1);
  CHECK(asked[0].ways[0].field.subject == "s1");
  CHECK(asked[0].ways[0].field.name == "setting power");
  CHECK(open.verdict == Verdict::LookAgain);

  const auto stated = analyse(wiredBench(stacked("set s1.power removed\n")), library());
  const auto told = findingsOf(stated, "setting-unstated");
  REQUIRE(told.size() == 1);
  CHECK(told[0].severity == checks::Severity::Note);
  CHECK(stated.verdict == Verdict::Clear);
}

TEST_CASE("a position that destroys as it stands is a stop of its own and asks nothing") {
  const auto fitted = analyse(wiredBench(stacked("set s1.power fitted\n")), library());
  CHECK(fitted.verdict == Verdict::DoNotSwitchOn);
  CHECK(findingsOf(fitted, "setting-unstated").empty());
  CHECK_FALSE(findingsOf(fitted, "regulator-input").empty());
}

TEST_CASE("what is asked by trials stands until it has been asked again") {
  const auto bench = wiredBench(stacked(""));
  const auto before = analyse(bench, library());
  auto quick = analyseFast(bench);
  CHECK(quick.verdict == Verdict::Clear);
  carryOver(quick, before);
  CHECK(findingsOf(quick, "setting-unstated").size() == 1);
  CHECK(quick.verdict == Verdict::LookAgain);
}
