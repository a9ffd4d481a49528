#include "core/choose/smallest_change.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kUnoFed = "part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n";

struct Tried {
  harness::Harness bench;
  choose::Candidate candidate;
  std::optional<choose::SmallestChange> change;

  Tried(const std::string& text, const char* stage, bool parallel = false) : bench(wiredBench(kUnoFed + text)) {
    const auto before = choose::beforeStages(bench, library(), "m", {});
    candidate = *choose::candidate(bench, library(), "m", {stage, parallel}, "v", {}, *before);
    change = choose::smallestChange(bench, library(), "m", candidate, {}, *before);
  }
  std::string text() const { return change ? change->text : std::string(); }

  // What is said when these steps are taken, that is as grave as what was against the stage; by a judgement of its own.
  int left(const std::vector<std::size_t>& steps) const {
    auto h = bench;
    apply(h, candidate.edit);
    const auto rows = choose::changeRows(h, library(), "m", candidate.device);
    for (std::size_t k = 0; k < steps.size(); ++k)
      if (steps[k] != std::size_t(-1)) apply(h, rows[change->row[k]][steps[k]].edit(h));
    const bool stops = candidate.verdict == Verdict::DoNotSwitchOn;
    const auto a = analyseFast(harness::asPlanned(h));
    return a.count(checks::Severity::Stop) + (stops ? 0 : a.count(checks::Severity::Caution));
  }
};

}  // namespace

// Stalled 2.1 A; a DRV8833 stands 11.8 V at its supply: an adapter whose upper end is 1.05 times its nominal voltage may be 11.23 V.
TEST_CASE("the smallest change: a supply as low as the stage stands, named as it is printed and as it is when full") {
  const Tried t("part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed ramp", "drv8833-board");
  CHECK(t.text() == "with a supply of 11.2 V (11.8 V full) or less, such as Adapter 9 V 1 A");
  CHECK_FALSE(t.change->plannable);  // it has to be bought
}

// A VNH2SP30 module wants 3.25 V and more at its inputs; an ESP32 gives 3.3 V at best, less under load.
TEST_CASE("the smallest change: a board of 3.3 V gets level shifters where a stage reads 5 V") {
  auto bench = wiredBench(
      "part usb usb-port-0a9\npart u board-esp32-38 Board\nplug usb.USB u.USB\npart v adapter-12v-5a Supply\npart m brushed-gear37-12v "
      "Motor\n"
      "intent m both speed ramp");
  const auto before = choose::beforeStages(bench, library(), "m", {});
  const auto c = choose::candidate(bench, library(), "m", {"vnh2sp30-module"}, "v", {}, *before);
  REQUIRE(c->against.size() == 1);
  CHECK(c->against.front().check == "level-high");
  const auto change = choose::smallestChange(bench, library(), "m", *c, {}, *before);
  REQUIRE(change);
  CHECK(change->text == "with level shifters before its inputs");
  CHECK(change->plannable);
  apply(bench, c->edit);
  apply(bench, change->changes.front().edit(bench));
  CHECK(analyseFast(harness::asPlanned(bench)).verdict == Verdict::Clear);
  CHECK(std::ranges::count(bench.devices, "level-shifter-4", &harness::Device::part) == 1);
}

// Reversed at full speed its own voltage adds to the supply's: 37 mm gearmotor, 3.3 ohm with the bridge: far over 2.5 A of an L298N.
TEST_CASE("the smallest change: what the program does comes before what is bought") {
  const Tried t("part v adapter-12v-5a Supply\npart m brushed-gear37-12v Motor\nintent m both speed", "l298n-module");
  CHECK(t.text() == "with a gentle start");
  CHECK(t.change->plannable);
}

TEST_CASE("the smallest change: nothing for what fits, for what cannot be put there, and where nothing helps") {
  CHECK_FALSE(Tried("part v adapter-12v-2a\npart m brushed-gear25-12v\nintent m both speed ramp", "drv8871-board").change);
  CHECK_FALSE(Tried("part v adapter-12v-2a\npart m brushed-gear25-12v\nintent m both", "nmos-irlz44n").change);
  // 0.2 A for a pump of 0.6 A: no setting makes a 2N7000 carry it.
  CHECK_FALSE(Tried("part v adapter-12v-2a\npart m pump-diaphragm-12v\nintent m speed", "nmos-2n7000").change);
}

TEST_CASE("the smallest change: what it names passes, one step less of any of it fails") {
  const std::vector<std::string> benches{
      "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed",
      "part v adapter-12v-5a Supply\npart m brushed-gear37-12v Motor\nintent m both speed",
      "part v adapter-24v-5a Supply\npart m stepper-nema17-1a68 Motor\nintent m both",
      "part v adapter-12v-5a Supply\npart m pump-diaphragm-12v Motor\nintent m speed pwm=31kHz",
      "part v battery-lipo-3s Supply\npart m brushed-130-6v Motor\nintent m both speed",
  };
  int named = 0;
  int pairs = 0;
  int supplied = 0;
  for (const auto& text : benches)
    for (const auto* stage : {"l298n-module", "drv8833-board", "tb6612fng", "l9110s-module", "drv8871-board", "a4988-carrier",
                              "nmos-irlz44n", "npn-tip31c", "mx1508-module", "l293d", "uln2003a", "bts7960-module"}) {
      const Tried t(text, stage);
      if (!t.change) continue;
      INFO(text << " " << stage << ": " << t.text());
      ++named;
      pairs += t.change->step.size() > 1;
      CHECK(t.left(t.change->step) == 0);
      if (!t.change->supply.empty() && t.change->step.size() == 1) {
        auto with = t.bench;
        apply(with, t.candidate.edit);
        for (auto& d : with.devices)
          if (d.id == "v") d.part = t.change->supply;
        const auto a = analyseFast(harness::asPlanned(with));
        CHECK(a.count(checks::Severity::Stop) == 0);
        ++supplied;
      }
      for (std::size_t k = 0; k < t.change->step.size(); ++k) {
        auto less = t.change->step;
        --less[k];  // before the first step there is none at all
        CHECK(t.left(less) > 0);
      }
    }
  CHECK(named > 15);
  CHECK(pairs > 0);
  CHECK(supplied > 3);
}
