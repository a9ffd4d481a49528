#include <catch2/catch.hpp>

#include "core/bench/signal_path.h"
#include "core/checks/analysis.h"
#include "support/benches.h"
#include "support/judged.h"

using namespace bold;
using namespace bold::test;

namespace {

double volts(const bench::OperatingPoint& p, const bench::Bench& b, const char* x, const char* y) {
  return p.across(b.terminal(*parseAddress(x)), b.terminal(*parseAddress(y)))->value;
}

}  // namespace

TEST_CASE("an optocoupler's output carries its transfer ratio of the diode's current, and no more than its load lets it") {
  // Lit by the pin: the valve of the good bench is asked to run, so that D6 is high.
  const auto a = analyseFast(wiredBench("from opto-mosfet"));
  const auto& s = *a.solved;
  const auto* on = s.running(0, bench::Corner::Nominal);
  const auto* off = s.point(bench::Action::AllOff, bench::Corner::Nominal);
  REQUIRE(on);
  const double diode = volts(*on, s.bench, "r1.A", "r1.B") / 330;
  CHECK(diode == Approx((5.0 - 1.2) / 330).epsilon(0.08));
  // 10 kohm at its emitter asks for 1.2 mA, a tenth of what it could: saturated, a quarter of a volt lost.
  const double load = volts(*on, s.bench, "r2.A", "r2.B") / 10e3;
  CHECK(load < diode);
  CHECK(volts(*on, s.bench, "o1.C", "o1.E") < 0.4);
  CHECK(std::abs(volts(*off, s.bench, "r2.A", "r2.B")) < 0.01);
  // A ratio that is given keeps the spread of its kind, and half of it is the least.
  // A load that asks for more than the ratio gives leaves it out of saturation: what flows is ratio times the diode's current.
  const auto weak = analyseFast(wiredBench("from opto-mosfet\nfigure o1.ratio 0.1"));
  const auto* dim = weak.solved->running(0, bench::Corner::Nominal);
  REQUIRE(dim);
  const auto& b = weak.solved->bench;
  const double lit = volts(*dim, b, "r1.A", "r1.B") / 330;
  CHECK(volts(*dim, b, "r2.A", "r2.B") / 10e3 == Approx(0.05 * lit).epsilon(0.02));
}

TEST_CASE("the path through an optocoupler is followed, by either end of its diode") {
  const auto path = [](const std::string& bench, const char* pin, const char* input) {
    const auto b = bench::makeBench(wiredBench(bench), library());
    const bench::Nets nets(b);
    return pathBetween(b, nets, b.terminal(*parseAddress(pin)), b.terminal(*parseAddress(input)));
  };
  CHECK(path("from opto-mosfet", "uno.D6", "q1.G") == bench::Path::Straight);
  CHECK(path("from inverter-valve", "uno.D5", "q1.G") == bench::Path::Inverted);
  // The pin at the cathode: lit by a low.
  CHECK(path("from opto-mosfet\nunwire uno.D6 r1.A\nunwire o1.K uno.GND\nwire uno.5V r1.A\nwire uno.D6 o1.K", "uno.D6", "q1.G") ==
        bench::Path::Inverted);
}

TEST_CASE("an optocoupler keeps two grounds apart, and one the wrong way round is noticed") {
  CHECK(Judged("ground-not-shared", "from opto-mosfet").quiet());
  CHECK(Judged("command-outcome", "from opto-mosfet").quiet());
  CHECK(Judged("command-outcome", "from opto-mosfet\nexchange o1.A o1.K").only() == kStop);
  CHECK(Judged("sensor-level", "from opto-module-limit").quiet());
  CHECK(Judged("sensor-level", "from opto-module-limit\nunwire om.GND-1 psu.N").only() == kStop);
}
