#include <catch2/catch.hpp>

#include "core/bench/queries.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kServo = "from servo-on-buck\n";
const std::string kPump = "from pump-on-boost\n";

// What a converter takes from its supply while a motor runs, W, and what it gives.
std::pair<double, double> balance(const std::string& notation, const char* converter) {
  const auto a = analyseFast(wiredBench(notation));
  const auto& s = *a.solved;
  const auto* p = s.running(0, bench::Corner::Nominal);
  REQUIRE(p);
  const auto volts = [&](const char* x, const char* y) {
    return p->across(s.bench.terminal({converter, x}), s.bench.terminal({converter, y}))->value;
  };
  double in = 0;
  double out = 0;
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const double amps = std::abs(p->link(static_cast<int>(l)).value);
    for (const auto t : {s.bench.links[l].a, s.bench.links[l].b}) {
      if (s.bench.address(t) == std::string(converter) + ".IN-P") in += amps;
      if (s.bench.address(t) == std::string(converter) + ".OUT-P") out += amps;
    }
  }
  return {in * volts("IN-P", "IN-N"), out * volts("OUT-P", "OUT-N")};
}

}  // namespace

TEST_CASE("a converter asks its supply for the power that it passes on") {
  const auto [servoIn, servoOut] = balance(kServo, "bk");
  CHECK(servoIn == Approx(servoOut / 0.83 + 12 * 0.005).epsilon(0.03));
  const auto [pumpIn, pumpOut] = balance(kPump, "up");
  CHECK(pumpIn == Approx(pumpOut / 0.88 + 5 * 0.001).epsilon(0.03));
}

TEST_CASE("an output voltage that nobody measured is asked for, and nothing is said of what it feeds") {
  const Judged f("not-solved", "from servo-on-buck\nfigure bk.set unknown");
  CHECK(f.text() == "Without the output voltage of Step-down nothing it feeds can be judged. Enter it as a figure of Step-down.");
  REQUIRE_FALSE(f.findings.front().ways.empty());
  CHECK(f.findings.front().ways.front().field == checks::Field{"bk", "figure set"});
  CHECK(Judged("servo-supply", "from servo-on-buck\nfigure bk.set unknown").quiet());
  CHECK(Judged("not-solved", kServo).quiet());
}

TEST_CASE("a converter that cannot hold its output says which of its ends gives way") {
  CHECK(Judged("converter-output", kServo).quiet());
  CHECK(Judged("converter-output", kPump).quiet());
  const Judged low("converter-output", kServo + "swap psu adapter-5v-2a");
  CHECK(low.only() == kCaution);
  CHECK(low.text().find("and needs 6.6 V") != std::string::npos);
  const Judged cells("converter-output", kPump + "swap bat battery-2aa-alkaline\nfigure pump.winding 10 ohm\nfigure pump.run 0.5 A");
  CHECK(cells.only() == kCaution);
  const Judged weak("converter-output", kPump + "figure pump.winding 8 ohm\nfigure pump.run 1 A");
  CHECK(weak.only() == kCaution);
  CHECK(weak.text().find("more than the 2 A that its switch lets through") != std::string::npos);
  const Judged start("converter-output", kPump + "figure pump.winding 5 ohm\nfigure pump.run 0.5 A");
  CHECK(start.only() == kNote);
}

TEST_CASE("a converter fed beyond its input, the wrong way round or from its output is stopped once") {
  CHECK(Judged("motor-supply-too-high", kPump + "swap bat adapter-24v-5a\nfigure up.set 28 V").only() == kStop);
  CHECK(Judged("regulator-input", kPump + "swap bat adapter-24v-5a\nfigure up.set 28 V").quiet());
  CHECK(Judged("supply-reversed", kServo + "exchange bk.IN-P bk.IN-N").only() == kStop);
  const Judged turned("regulator-reversed", kServo + "exchange bk.IN-P bk.OUT-P");
  CHECK(turned.only() == kStop);
  CHECK(Judged("servo-supply", kServo + "figure bk.set 11 V\nswap psu adapter-24v-5a").only() == kStop);
}

TEST_CASE("a step-up converter passes a higher supply on") {
  const auto a = analyseFast(wiredBench(kPump + "swap bat adapter-24v-5a"));
  const auto& s = *a.solved;
  const auto out = s.running(0, bench::Corner::Nominal)->across(s.bench.terminal({"up", "OUT-P"}), s.bench.terminal({"up", "OUT-N"}));
  CHECK(out->value > 23);
  CHECK(out->value < 24);
}
