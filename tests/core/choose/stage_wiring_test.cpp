#include "core/choose/stage_wiring.h"

#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <map>
#include <set>

#include "core/checks/analysis.h"
#include "core/checks/trial.h"
#include "core/choose/candidates.h"
#include "core/harness/intent.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

const std::string kUno = "part usb usb-port-0a9\npart u board-uno-atmega328p Board\nplug usb.USB u.USB\n";
const std::string kEsp = "part usb usb-port-0a9\npart u board-esp32-38 Board\nplug usb.USB u.USB\n";

// Stops and cautions of a bench as planned, each check once: "current-limit-setting supply-sequence".
std::string saidOf(const harness::Harness& h, const harness::Edit& edit, const parts::Library& lib) {
  const auto t = tryOut(h, edit, lib, {}, {});
  REQUIRE(t);
  std::set<std::string> said;
  for (const auto& f : t->findings)
    if (f.severity != checks::Severity::Note) said.insert((f.severity == checks::Severity::Stop ? "!" : "") + f.check);
  std::string out;
  for (const auto& s : said) out += (out.empty() ? "" : " ") + s;
  return out;
}

struct Row {
  const char *stage, *motor, *supply, *intent;
  const char *at5, *at3;  // what is said as planned, on a board of 5 V and of 3.3 V: the limits that forbid it; "!" a stop
};

// Reference voltage and sense resistor are trimmed and measured, never planned.
constexpr const char* kTrim = "current-limit-setting";
constexpr const char* kGate = "gate-drive";  // too little for its gate: another transistor, or 5 V
constexpr const char* kSmall = "brushed-n20-6v-low-power";

const std::vector<Row> kMatrix{
    {"l298n-module", "brushed-gear25-12v", "adapter-12v-2a", "both speed ramp", "", ""},
    {"tb6612fng", kSmall, "battery-4aa-nimh", "both speed ramp", "", ""},
    {"drv8833-board", kSmall, "battery-4aa-nimh", "both speed ramp", "", ""},
    {"drv8835-carrier", kSmall, "battery-4aa-nimh", "both speed ramp", "", ""},
    {"drv8871-board", "brushed-gear25-12v", "adapter-12v-2a", "both speed ramp", "", ""},
    {"l293d", kSmall, "battery-5aa-nimh", "both speed ramp", "", ""},
    {"l293", kSmall, "battery-5aa-nimh", "both speed ramp", "", ""},
    {"sn754410", kSmall, "battery-5aa-nimh", "both speed ramp", "bridge-diodes-missing", "bridge-diodes-missing"},
    {"l298", "brushed-gear25-12v", "adapter-12v-2a", "both speed ramp", "", ""},
    {"l9110s-module", kSmall, "battery-4aa-nimh", "both speed ramp", "", ""},
    {"mx1508-module", kSmall, "battery-4aa-nimh", "both speed ramp", "", ""},
    {"bts7960-module", "brushed-gear37-12v", "adapter-12v-5a", "both speed ramp", "", ""},
    {"vnh2sp30-module", "brushed-gear37-12v", "adapter-12v-5a", "both speed ramp", "", "level-high"},
    {"vnh5019-carrier", "brushed-gear37-12v", "adapter-12v-5a", "both speed ramp", "", ""},
    {"bridge-dir-pwm-2x10a", "brushed-gear37-12v", "adapter-12v-5a", "both speed ramp", "", ""},
    {"bridge-in-in-2x3a", "brushed-gear25-12v", "adapter-12v-2a", "both speed ramp", "", ""},
    {"a4988-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both", kTrim, kTrim},
    {"drv8825-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both", kTrim, kTrim},
    {"tmc2208-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both", kTrim, kTrim},
    {"tmc2209-carrier", "stepper-nema17-0a4", "adapter-12v-2a", "both", kTrim, kTrim},
    {"a3967-board", "stepper-nema17-0a4", "adapter-12v-2a", "both", kTrim, "current-limit-setting level-high"},
    {"stepdir-tb6560", "stepper-nema17-1a68", "adapter-12v-5a", "both", "current-limit-setting supply-sequence",
     "current-limit-setting supply-sequence"},
    {"stepdir-box-tb6600", "stepper-nema17-1a68", "adapter-24v-5a", "both", "", "opto-input-current"},
    {"stepdir-box-opto", "stepper-nema17-1a68", "adapter-24v-5a", "both", "", "opto-input-current"},
    {"uln2003-board", "stepper-28byj48-5v", "adapter-5v-2a", "both sequence=wave", "", ""},
    {"uln2003a", "electromagnet-5v", "adapter-5v-2a", "", "", ""},
    {"uln2803a", "electromagnet-5v", "adapter-5v-2a", "", "", ""},
    {"nmos-irlz44n", "pump-diaphragm-12v", "adapter-12v-2a", "speed", "", kGate},
    {"nmos-2n7000", "electromagnet-5v", "adapter-5v-2a", "", "", "!gate-drive !motor-undervoltage"},
    {"nmos-ao3400a", "pump-submersible-5v", "adapter-5v-2a", "speed", "", ""},
    {"nmos-irlb8721", "pump-diaphragm-12v", "adapter-12v-2a", "speed", "", kGate},
    {"nmos-irf520", "pump-diaphragm-12v", "adapter-12v-2a", "speed", kGate, "!command-outcome !gate-drive"},
    {"nmos-irf540n", "pump-diaphragm-12v", "adapter-12v-2a", "speed", kGate, "!command-outcome !gate-drive"},
    {"npn-pn2222a", "pump-submersible-5v", "adapter-5v-2a", "speed", "", ""},
    {"npn-bc337", "electromagnet-5v", "adapter-5v-2a", "", "", ""},
    {"npn-bd139", "pump-submersible-5v", "adapter-5v-2a", "speed", "", ""},
    {"npn-tip31c", "pump-submersible-5v", "adapter-5v-2a", "speed", "", ""},
    {"darlington-tip120", "light-strip-12v", "adapter-12v-2a", "", "", ""},
    {"darlington-tip122", "light-strip-12v", "adapter-12v-2a", "", "", ""},
    {"mosfet-module-d4184", "pump-diaphragm-12v", "adapter-12v-2a", "speed", "", kGate},
    {"mosfet-module-irf520", "pump-diaphragm-12v", "adapter-12v-2a", "speed", kGate, "!command-outcome !gate-drive"},
};

harness::Harness benchFor(const std::string& board, const Row& r) {
  return wiredBench(board + "part v " + r.supply + " Supply\npart m " + r.motor + " Motor\nintent m " + r.intent);
}

std::string errorOf(const harness::Harness& h, const char* stage) {
  const auto edit = choose::wireStage(h, library(), {"m", stage, {}});
  return edit ? "" : edit.error().what;
}

}  // namespace

TEST_CASE("every stage, wired from its part file for a motor that fits it: nothing is said, or the limit that forbids it") {
  for (const auto& r : kMatrix)
    for (const auto& [board, expected] : {std::pair{&kUno, r.at5}, {&kEsp, r.at3}}) {
      const auto h = benchFor(*board, r);
      INFO(r.stage << (board == &kUno ? " at 5 V" : " at 3.3 V"));
      const auto edit = choose::wireStage(h, library(), {"m", r.stage, "v"});
      REQUIRE(edit);
      CHECK(saidOf(h, *edit, library()) == expected);
    }
}

TEST_CASE("every stage of the library stands in the matrix, or cannot be put on by itself") {
  std::set<std::string> known;
  for (const auto& r : kMatrix) known.insert(r.stage);
  const std::map<std::string, std::string> alone{
      {"bridge-stack-l293d", "is plugged onto a board"},
      {"bridge-stack-tb6612", "is plugged onto a board"},
      {"pmos-ao3401a", "has no channel"},
      {"pmos-irf9540n", "has no channel"},
      {"pnp-2n2907a", "has no channel"},
  };
  for (const auto& [path, text] : parts::shippedPartFiles()) {
    if (path.find("stages/") == std::string::npos) continue;
    const auto id = path.substr(path.rfind('/') + 1, path.size() - path.rfind('/') - 6);
    INFO(id);
    if (known.contains(id)) continue;
    REQUIRE(alone.contains(id));
    const auto h = wiredBench(kUno + "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both");
    CHECK(errorOf(h, id.c_str()).find(alone.at(id)) != std::string::npos);
  }
}

TEST_CASE("relays: one contact in the plus of what is only switched, two changeover contacts to turn a motor round") {
  for (const auto& r : {Row{"relay-module-5v-1", "pump-diaphragm-12v", "adapter-12v-2a", "", "", ""},
                        {"relay-module-5v-2", "pump-diaphragm-12v", "adapter-12v-2a", "", "", ""},
                        {"relay-module-5v-2", "brushed-gear25-12v", "adapter-12v-2a", "both ramp", "", ""},
                        {"relay-module-5v-4", "brushed-gear25-12v", "adapter-12v-2a", "both ramp", "", ""}}) {
    INFO(r.stage << " " << r.motor);
    const auto h = benchFor(kUno, r);
    const auto edit = choose::wireStage(h, library(), {"m", r.stage, "v"});
    REQUIRE(edit);
    CHECK(saidOf(h, *edit, library()).empty());
    auto on = h;
    harness::apply(on, *edit);
    const auto intent = *harness::intentOf(on, "m");
    CHECK(intent.signals.size() == (intent.bothDirections ? 2 : 1));
  }
  const auto speed = benchFor(kUno, {"", "pump-diaphragm-12v", "adapter-12v-2a", "speed", "", ""});
  CHECK(errorOf(speed, "relay-module-5v-1").find("sets no speed") != std::string::npos);
  const auto both = benchFor(kUno, {"", "brushed-gear25-12v", "adapter-12v-2a", "both", "", ""});
  CHECK(errorOf(both, "relay-module-5v-1").find("has no channel for Motor") != std::string::npos);
  CHECK(errorOf(both, "relay-5v").find("has no channel for Motor") != std::string::npos);
}

TEST_CASE("as one edit, planned, with the pins stated; taken back to the byte") {
  auto h = benchFor(kUno, kMatrix.front());
  const auto before = h;
  const auto edit = choose::wireStage(h, library(), {"m", "l298n-module", {}});
  REQUIRE(edit);
  CHECK(edit->title == "Put Bridge module L298N on the bench for Motor");
  const auto back = apply(h, *edit);
  for (const auto& d : h.devices)
    if (!before.device(d.id)) CHECK(d.state == harness::State::Planned);
  for (const auto& c : h.connections)
    if (!before.connection(c.id)) CHECK(c.state == harness::State::Planned);
  const auto intent = harness::intentOf(h, "m");
  REQUIRE(intent);
  CHECK(intent->stage == "s1");
  CHECK(intent->channel == "A");
  CHECK(intent->forwardLead == "P");
  CHECK(intent->signals.size() == 3);  // in1, in2 and speed
  (void)apply(h, back);
  CHECK(h == before);
}

TEST_CASE("a pin is taken under whatever name a file has for it, and a motor is not hung on what goes with it") {
  auto h = benchFor(kUno, kMatrix.front());
  for (const auto* pin : {"9", "PB3", "code10"})
    h.assignments.push_back({fmt::format("a{}", h.assignments.size()), "x", "in", {"u", pin}, {}, {}, {}, {}});
  const auto edit = choose::wireStage(h, library(), {"m", "l298n-module", "v"});
  REQUIRE(edit);
  auto planned = h;
  apply(planned, *edit);
  const auto intent = harness::intentOf(planned, "m");
  for (const auto& s : intent->signals) {
    CHECK(s.pin.terminal != "D9");
    CHECK(s.pin.terminal != "D11");
    CHECK(s.pin.terminal != "D10");
  }
  const auto low = good("low-side");
  const auto motor = std::ranges::find_if(low.devices, [](const auto& d) { return d.part.starts_with("pump"); })->id;
  const auto own = choose::wireStage(low, library(), {motor, "q1", {}});
  REQUIRE_FALSE(own);
  CHECK(own.error().what.find("hangs on q1 already") != std::string::npos);
}

TEST_CASE("what cannot be is said in a sentence") {
  const auto bench = [](const std::string& rest) { return wiredBench(kUno + "part v adapter-12v-2a Supply\n" + rest); };
  CHECK(errorOf(bench("part m brushed-gear25-12v Motor\nintent m both"), "nmos-irlz44n") ==
        "MOSFET IRLZ44N switches to ground only: it turns Motor one way.");
  CHECK(errorOf(bench("part m stepper-nema17-0a4 Motor"), "drv8871-board").find("has no channel for Motor") != std::string::npos);
  CHECK(errorOf(bench(""), "l298n-module") == "\"m\" is no motor on this bench.");
  CHECK(errorOf(wiredBench("part v adapter-12v-2a\npart m brushed-gear25-12v Motor"), "l298n-module") ==
        "There is no controller on this bench that could drive it.");
  // Made for another format of board, and steered over a bus.
  CHECK(errorOf(wiredBench("part usb usb-port-0a5\npart u board-rp2040-40 Board\nplug usb.USB u.USB\npart v adapter-9v-1a\npart m "
                           "brushed-gear25-12v Motor"),
                "bridge-stack-tb6612")
            .find("is steered over a bus") != std::string::npos);
  CHECK(errorOf(bench("part m brushed-gear25-12v Motor"), "no-such-part") == "There is no part \"no-such-part\".");
}

TEST_CASE("one stage for another: the old one goes with all that served it, and what it shares stays") {
  // The demo's kind of bench: an L298N module with two motors; one of them gets a board of its own, the module stays for the other.
  const auto two = good("bridge");
  const auto one = choose::wireStage(two, library(), {"left", "drv8833-board", "bat"});
  REQUIRE(one);
  const auto shared = tryOut(two, *one, library(), {}, {});
  CHECK(shared->harness.device("s1"));
  CHECK(harness::intentOf(shared->harness, "left")->stage != "s1");
  CHECK(harness::intentOf(shared->harness, "right")->stage == "s1");
  // A MOSFET with its resistors and its diode: all of it goes.
  const auto h = good("low-side");
  const auto motor = std::ranges::find_if(h.devices, [](const auto& d) { return harness::Device(d).part.starts_with("pump"); })->id;
  const auto edit = choose::wireStage(h, library(), {motor, "mosfet-module-d4184", {}});
  REQUIRE(edit);
  const auto t = tryOut(h, *edit, library(), {}, {});
  for (const auto& d : t->harness.devices) {
    INFO(d.id << " " << d.part);
    CHECK((d.part == "mosfet-module-d4184" || d.part.starts_with("board") || d.part.starts_with("usb") || d.part.starts_with("adapter") ||
           d.id == motor || d.part.starts_with("diode")));
  }
  CHECK(saidOf(h, *edit, library()).empty());
}

TEST_CASE("a second motor hangs on the free channel of a stage that is there: its own pins, no second supply, its jumper taken off") {
  const auto h = wiredBench(kUno +
                            "part v adapter-12v-5a Supply\npart m brushed-gear25-12v First\npart m2 brushed-gear25-12v Second\n"
                            "intent m both speed ramp\nintent m2 both speed ramp");
  auto one = h;
  apply(one, *choose::wireStage(h, library(), {"m", "l298n-module", "v"}));
  const auto edit = choose::wireStage(one, library(), {"m2", "s1", "v"});
  REQUIRE(edit);
  CHECK(edit->title == "Hang Second on channel B of s1");
  CHECK(saidOf(one, *edit, library()).empty());
  auto two = one;
  apply(two, *edit);
  std::set<std::string> pins;
  for (const auto* motor : {"m", "m2"}) {
    const auto intent = harness::intentOf(two, motor);
    for (const auto& s : intent->signals) CHECK(pins.insert(s.pin.text()).second);
  }
  CHECK(pins.size() == 6);
  auto third = wiredBench("part m3 brushed-gear25-12v Third");
  two.devices.push_back(third.devices.front());
  CHECK(choose::wireStage(two, library(), {"m3", "s1", "v"}).error().what == "Bridge module L298N has no free channel for Third.");
}

// Nobody here has seen this board: names, order, an enable that is active low, a second one that is high, a clamp-less bridge.
TEST_CASE("a part file of one's own is wired without a line of code") {
  const std::string own = R"({"format": 1, "id": "odd-bridge", "name": "Odd bridge", "kind": "bridge", "words": ["odd"],
    "levels": {"ttl": {"low": "0.8 V", "high": "2 V"}},
    "terminals": [
      {"id": "KRAFT", "contact": "screw", "supply": {"for": "motor", "return": "NULL", "recommended": "6 V .. 24 V", "absolute": "28 V", "bulk": "100 uF"}},
      {"id": "NULL", "contact": "screw", "ground": true},
      {"id": "HIRN", "supply": {"for": "logic", "return": "NULL", "recommended": "3 V .. 5.5 V", "absolute": "6 V"}},
      {"id": "VOR", "input": {"levels": "ttl", "ground": "NULL", "absolute": "6 V"}},
      {"id": "RUECK", "input": {"levels": "ttl", "ground": "NULL", "absolute": "6 V"}},
      {"id": "HALT", "input": {"levels": "ttl", "ground": "NULL", "absolute": "6 V"}},
      {"id": "WACH", "input": {"levels": "ttl", "ground": "NULL", "absolute": "6 V"}},
      {"id": "X", "contact": "screw", "output": true}, {"id": "Y", "contact": "screw", "output": true}],
    "conditions": {"ready": "!HALT & WACH"},
    "elements": [
      {"for": [["X", "VOR", "RUECK"], ["Y", "RUECK", "VOR"]], "as": ["o", "a", "b"], "elements": [
        {"id": "$o-hi", "switch": ["KRAFT", "$o"], "on": "$a & !$b & ready", "r": "0.1 ohm"},
        {"id": "$o-lo", "switch": ["$o", "NULL"], "on": "$b & ready", "r": "0.1 ohm"},
        {"diode": ["$o", "KRAFT"], "drop": "0.8 V", "at": "1 A"},
        {"diode": ["NULL", "$o"], "drop": "0.8 V", "at": "1 A"}]}],
    "channels": [{"id": "1", "out": ["X", "Y"], "signals": {"in1": "VOR", "in2": "RUECK", "enable": "HALT", "standby": "WACH"},
                  "continuous": "3 A", "peak": "6 A", "protection": "thermal", "return": "NULL"}]})";
  auto lib = library();
  std::vector<Problem> problems;
  lib.addOwn({{"odd.json", own}}, problems);
  for (const auto& p : problems) FAIL_CHECK(p.what);
  for (const auto& board : {kUno, kEsp}) {
    const auto h = wiredBench(board + "part v adapter-12v-2a Supply\npart m brushed-gear25-12v Motor\nintent m both speed ramp");
    const auto edit = choose::wireStage(h, lib, {"m", "odd-bridge", "v"});
    REQUIRE(edit);
    CHECK(saidOf(h, *edit, lib).empty());
  }
}

TEST_CASE("two channels in parallel: inputs with inputs, both outputs on each lead; both bridges and four switches for steppers") {
  auto h = benchFor(kUno, kMatrix.front());
  const auto edit = choose::wireStage(h, library(), {"m", "l298n-module", {}, true});
  REQUIRE(edit);
  apply(h, *edit);
  const auto joined = [&](const char* a, const char* b) {
    return std::ranges::any_of(h.connections, [&](const auto& c) {
      return (c.a == Address{"s1", a} && c.b == Address{"s1", b}) || (c.b == Address{"s1", a} && c.a == Address{"s1", b});
    });
  };
  CHECK(joined("IN1", "IN4"));
  CHECK(joined("IN2", "IN3"));
  CHECK(joined("ENA", "ENB"));
  int leads = 0;
  for (const auto& c : h.connections) leads += c.a.device == "m" || c.b.device == "m";
  CHECK(leads == 4);
  const auto a = analyseFast(harness::asPlanned(h));
  CHECK(findingsOf(a, "paralleled-channels").empty());
  CHECK(a.causes(checks::Severity::Stop) == 0);
  CHECK(harness::intentOf(h, "m")->channel == "A");
  const auto none = choose::wireStage(benchFor(kUno, kMatrix.front()), library(), {"m", "l9110s-module", {}, true});
  REQUIRE_FALSE(none);
  CHECK(none.error().what == "Bridge module L9110S has no two channels that may be joined for Motor.");

  const auto judged = [](const std::string& bench, const char* stage) {
    auto on = wiredBench(kUno + bench);
    const auto put = choose::wireStage(on, library(), {"m", stage, {}});
    REQUIRE(put);
    apply(on, *put);
    return std::pair(analyseFast(harness::asPlanned(on)), *harness::intentOf(on, "m"));
  };
  const auto bridges =
      judged("part v adapter-5v-3a\npart m stepper-nema11-0a67 Motor\nfigure m.winding 11 ohm\nintent m both hold", "tb6612fng");
  CHECK(bridges.first.verdict == Verdict::Clear);
  CHECK(bridges.second.signals.size() == 4);
  CHECK(bridges.second.channel.empty());
  const auto switches = judged("part v adapter-5v-2a\npart m stepper-28byj48-5v Motor\nintent m both sequence=full", "uln2803a");
  CHECK(switches.first.verdict == Verdict::Clear);
  CHECK(switches.second.signals.size() == 4);
}

TEST_CASE("of two stages that fit, the one without contacts that wear comes first") {
  choose::Candidate relay{.stage = "a-relay", .verdict = Verdict::Clear}, bridge{.stage = "bridge", .verdict = Verdict::Clear};
  relay.contacts = true;
  bridge.parts = 3;
  CHECK(choose::better(bridge, relay));
  CHECK_FALSE(choose::better(relay, bridge));
  bridge.verdict = Verdict::LookAgain;
  CHECK(choose::better(relay, bridge));
}
