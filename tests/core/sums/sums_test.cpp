#include <fmt/core.h>

#include <catch2/catch.hpp>

#include "core/harness/intent.h"
#include "core/sums/sum.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

struct Paper {
  harness::Harness h;
  std::unique_ptr<bench::SolvedBench> solvedBench;
  std::vector<sums::Sum> all;

  Paper(const std::string& text, const std::string& motor) : h(wiredBench(text)), solvedBench(solved(h)) {
    const auto b = sums::sumBench(h, library(), *solvedBench, motor);
    REQUIRE(b);
    all = sums::sumsFor(*b);
  }
  const sums::Sum* find(const std::string& id) const {
    for (const auto& s : all)
      if (s.id == id) return &s;
    return nullptr;
  }
  sums::SumResult of(const std::string& id, std::vector<std::string> values) const {
    INFO(id);
    REQUIRE(find(id));
    const auto out = find(id)->of(values);
    if (const auto* p = std::get_if<std::vector<sums::SumProblem>>(&out)) FAIL(p->front().what);
    return std::get<sums::SumResult>(out);
  }
  std::string problem(const std::string& id, std::vector<std::string> values) const {
    REQUIRE(find(id));
    const auto out = find(id)->of(values);
    const auto* p = std::get_if<std::vector<sums::SumProblem>>(&out);
    return p ? p->front().input + ": " + p->front().what : "none";
  }
};

}  // namespace

TEST_CASE("sums of a transistor stage: base resistor, duty, heat sink, fuse, gauge, supply") {
  const Paper p("from npn", "pump");
  // PN2222A-like: VBE 0.7 V; forced to a tenth or less; the row's next value below.
  const auto base = p.of("base-resistor", {"100 mA"});
  CHECK(base.text.find("(E12 row)") != std::string::npos);
  CHECK(base.formula.find("in the pin) = ") != std::string::npos);
  CHECK_FALSE(base.use.empty());
  auto changed = p.h;
  apply(changed, base.edit);
  CHECK(changed != p.h);
  CHECK(p.problem("base-resistor", {"much"}).starts_with("load: "));
  CHECK(p.problem("base-resistor", {"100 V"}).starts_with("load: "));
  CHECK(p.problem("base-resistor", {"500 A"}) == "load: It lies between 1 mA and 50 A.");

  // 1.35 x 0.6 A = 0.81 A: the next is 1 A; 2.4 A held are 2.4 times as much.
  const auto fuse = p.of("fuse", {"0.6 A", "2.4 A"});
  CHECK(fuse.text == "1 A, slow. A held motor draws 2.4 times as much: it blows in seconds.");
  CHECK(p.problem("fuse", {"2 A", "1 A"}) == "stalled: A held motor draws more than a running one.");
  // 20 W, 150 degC, 25 K to spare, 30 degC of air: 95 K / 20 W.
  CHECK(p.of("heat-sink", {"20 W", "30 degC"}).text.starts_with("4.75 K/W or less"));
}

TEST_CASE("sums of a stepper: reference, modes, pulses, rate") {
  const Paper p("from step-dir-8825", "m");
  // DRV8825: I_trip = V_ref / (5 x R_sense), 0.1 ohm: 1 A RMS is 1.414 A at the crest, 0.707 V.
  const auto reference = p.of("current-reference", {"1 A", "0.5 V"});
  CHECK(reference.text == "Trim the reference to 707 mV. The measured 500 mV let 707 mA through each coil.");
  CHECK(reference.use == "Enter 500 mV as measured");
  auto h = p.h;
  apply(h, reference.edit);
  CHECK(h.device(p.h.devices.back().id));
  CHECK(harness::judgedPart(h) != harness::judgedPart(p.h));
  // 16 microsteps of a DRV8825: the third mode input alone is high.
  CHECK(p.of("step-modes", {"16"}).text.find("high") != std::string::npos);
  CHECK(p.problem("step-modes", {"7"}).find("It makes 1, 2, 4, 8, 16, 32.") != std::string::npos);
  // 90 degrees of 3200 pulses a turn through 4 to 1.
  CHECK(p.of("pulses", {"90", "3200", "4", "1"}).text == "3200 pulses (0.25 turns).");
  CHECK(p.of("pulses", {"1", "200", "1", "1"}).text.find("It is not whole: 0.555556") != std::string::npos);
  CHECK(p.of("pulses", {"360", "200", "1", "8"}).text == "1600 pulses (1 turns).");
  // 60 turns a minute are one a second; 400 Hz are two turns a second of 200.
  const auto rate = p.of("pulse-rate", {"60", "400 Hz", "200", "1"});
  CHECK(rate.text == "60 turns a minute take 200 Hz; 400 Hz give 120 turns a minute.");
  auto planned = p.h;
  apply(planned, rate.edit);
  CHECK(harness::intentOf(planned, "m")->rate == Hertz{200});
}

TEST_CASE("sums of a chopped motor: duty in every scale, gauge by drop, supply for all") {
  const Paper p("from bridge", "left");
  const auto duty = p.of("duty-scale", {"50"});
  CHECK(duty.text.starts_with("50 of 100, 128 of 255, 512 of 1023, 32768 of 65535. Under its load it starts from "));
  CHECK(p.of("duty-scale", {"1"}).text.ends_with("it hums and stands."));
  CHECK(p.problem("duty-scale", {"120"}) == "duty: It lies between 0 and 100.");
  auto h = p.h;
  apply(h, duty.edit);
  CHECK(harness::intentOf(h, "left")->dutyCap == 0.5);
  // 1 A over 2 x 5 m, 3 % of some 5 V: 0.15 V, 15 mOhm/m... 18 AWG has 0.82 mm2: 0.22 V; 16 AWG 1.31 mm2: 0.137 V.
  const auto gauge = p.of("wire-gauge", {"5 m", "1 A", "3"});
  CHECK(gauge.text.find(" AWG (") != std::string::npos);
  CHECK(gauge.text.find("are lost") != std::string::npos);
  auto wired = p.h;
  apply(wired, gauge.edit);
  for (const auto& c : wired.connections)
    if (c.a.device == "left" || c.b.device == "left") CHECK(c.length == Metres{5});
  CHECK(p.problem("wire-gauge", {"100 m", "100 A", "1"}) == "drop: Not even 8 AWG is enough: shorten it, or allow more.");
  const auto supply = p.of("supply-size", {"1 A", "3 A", "30", "2"});
  CHECK(supply.text.starts_with("1.3 A for long and 3 A for a moment; a pack of 2.6 Ah for 2 h."));
}

TEST_CASE("sums of every good bench: fields as they are filled in give a result, and what is used can be taken back") {
  int worked = 0;
  for (const auto& name : goodNames()) {
    INFO(name);
    const auto h = good(name);
    const auto s = solved(h);
    for (const auto& m : s->motors) {
      const auto b = sums::sumBench(h, library(), *s, s->bench.devices[m.device].doc.id);
      REQUIRE(b);
      for (const auto& sum : sums::sumsFor(*b)) {
        INFO(sum.id);
        std::vector<std::string> values;
        for (const auto& in : sum.inputs) values.push_back(in.value);
        const auto out = sum.of(values);
        if (const auto* p = std::get_if<std::vector<sums::SumProblem>>(&out)) FAIL_CHECK(p->front().input << ": " << p->front().what);
        const auto* result = std::get_if<sums::SumResult>(&out);
        if (!result) continue;
        ++worked;
        CHECK_FALSE(result->text.empty());
        CHECK_FALSE(result->formula.empty());
        auto changed = h;
        const auto back = apply(changed, result->edit);
        (void)apply(changed, back);
        CHECK(changed == h);
      }
    }
  }
  CHECK(worked > 300);
}
