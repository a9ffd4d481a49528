#include "core/choose/candidates.h"

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kFiveVolts = "part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n";
const std::string kThreeVolts = "part usb usb-port-0a9\npart u board-esp32-38 Board\nplug usb.USB u.USB\n";

struct All {
  std::vector<choose::Candidate> sorted;
  std::map<std::string, choose::Candidate> by;

  explicit All(const std::string& bench) {
    const auto h = wiredBench(bench);
    const auto before = choose::beforeStages(h, library(), "m", {});
    for (const auto& s : choose::stagesFor(h, library(), "m")) sorted.push_back(*choose::candidate(h, library(), "m", s, "v", {}, *before));
    std::ranges::sort(sorted, choose::better);
    for (const auto& c : sorted) by.emplace(c.stage + (c.parallel ? " in parallel" : ""), c);
  }
  bool clear(const char* stage) const { return by.at(stage).excluded.empty() && by.at(stage).verdict == Verdict::Clear; }
  // The checks that are against it; "-" where it cannot be put there.
  std::string against(const char* stage) const {
    const auto& c = by.at(stage);
    if (!c.excluded.empty()) return "-";
    std::string out;
    for (const auto& f : c.against) out += (out.empty() ? "" : " ") + f.check;
    return out;
  }
  std::set<std::string> possible() const {
    std::set<std::string> out;
    for (const auto& c : sorted)
      if (c.excluded.empty()) out.insert(c.stage);
    return out;
  }
};

}  // namespace

// 5.7 ohm at 12 V: stalled 2.1 A, running 0.5 A, both ways by PWM, gently. A full adapter gives 12.6 V.
TEST_CASE("a 12 V gearmotor of 2 A stalled: stages for 12 V and 2.5 A are clear, those for 11 V are not") {
  const All all(kFiveVolts + "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed ramp\n");
  for (const auto* stage : {"drv8871-board", "l298n-module", "l298", "bridge-in-in-2x3a", "bts7960-module"}) {
    INFO(stage);
    CHECK(all.clear(stage));
  }
  // DRV8833: 11.8 V at most; MX1508: 10 V; L9110S: 12 V.
  for (const auto* stage : {"drv8833-board", "mx1508-module", "l9110s-module"}) {
    INFO(stage);
    CHECK(all.against(stage).find("motor-supply-too-high") != std::string::npos);
    CHECK(all.by.at(stage).verdict == Verdict::DoNotSwitchOn);
  }
  // TB6612FNG: 15 V and 3.2 A peak are enough for 2.1 A, but not for a winding at the low end of its class.
  CHECK(all.against("tb6612fng") == "stall-current");
  CHECK(all.by.at("tb6612fng").verdict == Verdict::LookAgain);
  // Both ways: no transistor alone. Two leads: no step/dir stage.
  CHECK(all.by.at("nmos-irlz44n").excluded.find("one way") != std::string::npos);
  CHECK(all.by.at("a4988-carrier").excluded.find("no channel") != std::string::npos);
  // Its two channels joined stand twice as much: and nothing has to be fitted besides, which puts it first.
  CHECK(all.clear("tb6612fng in parallel"));
  CHECK(all.sorted.front().stage == "tb6612fng");
  CHECK(all.sorted.front().parallel);
  CHECK(all.sorted.front().parts == 0);
  CHECK(all.sorted[1].pins == 2);  // then two pins and a capacitor
  CHECK(all.sorted[1].parts == 1);
}

// 1.68 A a phase, two coils of four leads.
TEST_CASE("a bipolar stepper: step/dir stages first; what is trimmed is asked for, not planned; both bridges have no limit of their own") {
  const All all(kFiveVolts + "part v adapter-24v-5a Supply\npart m stepper-nema17-1a68 Motor\nintent m both\n");
  for (const auto* stage : {"a3967-board", "a4988-carrier", "drv8825-carrier", "stepdir-box-opto", "stepdir-box-tb6600", "stepdir-tb6560",
                            "tmc2208-carrier", "tmc2209-carrier"})
    CHECK(all.possible().contains(stage));
  // 24 V across 1.65 ohm: far too much without a limit.
  for (const auto* bridge : {"l298n-module", "l298", "bridge-dir-pwm-2x10a"}) CHECK(all.by.at(bridge).verdict == Verdict::DoNotSwitchOn);
  CHECK(all.against("bts7960-module") == "-");  // one bridge only
  CHECK(all.against("a4988-carrier") == "current-limit-setting");
  CHECK(all.clear("stepdir-box-tb6600"));
}

// Four coils on a common tap, 5 V, a plug of five.
TEST_CASE("a small unipolar stepper goes by its plug onto its board") {
  const All all(kFiveVolts + "part v adapter-5v-2a Supply\npart m stepper-28byj48-5v Motor\nintent m both sequence=wave\n");
  CHECK(all.possible() == std::set<std::string>{"uln2003-board", "uln2003a", "uln2803a"});
  CHECK(all.clear("uln2003-board"));
  CHECK(all.by.at("uln2003-board").pins == 4);
}

TEST_CASE("a stage on a supply that an unknown part hangs on is not judged: it does not fit by silence") {
  auto h = wiredBench(kFiveVolts + "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed ramp\n");
  h.devices.push_back({.id = "x", .part = "a-part-that-nobody-knows"});
  h.connections.push_back({.id = "wx", .a = {"x", "A"}, .b = {"v", "P"}});
  h.connections.push_back({.id = "wy", .a = {"x", "B"}, .b = {"v", "N"}});
  const auto before = choose::beforeStages(h, library(), "m", {});
  const auto c = choose::candidate(h, library(), "m", {"drv8871-board"}, "v", {}, *before);
  REQUIRE(c);
  CHECK(c->verdict == Verdict::NotJudged);
  CHECK(c->unjudged.find("a-part-that-nobody-knows") != std::string::npos);
  CHECK(choose::standing(*c) == "not judged");
}

// 3.3 V at the gate: the AO3400A promises 2.5 V and less, the IRLZ44N 4 V, the IRF520 10 V.
TEST_CASE("at 3.3 V the gate decides which MOSFET will do") {
  const All all(kThreeVolts + "part v adapter-12v-2a Supply\npart m pump-diaphragm-12v Motor\nintent m speed\n");
  CHECK(all.clear("nmos-ao3400a"));
  CHECK(all.against("nmos-irlz44n") == "gate-drive");
  CHECK(all.by.at("nmos-irlz44n").verdict == Verdict::LookAgain);
  CHECK(all.by.at("nmos-irf520").verdict == Verdict::DoNotSwitchOn);
}
