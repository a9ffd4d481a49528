#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/checks/planned.h"
#include "core/choose/candidates.h"
#include "core/choose/pin_demands.h"
#include "core/choose/stage_wiring.h"
#include "core/harness/edit_maker.h"
#include "core/harness/exchange_part.h"
#include "core/harness/intent.h"
#include "core/harness/left_out.h"
#include "core/harness/mark_done.h"
#include "core/harness/marks.h"
#include "core/harness/read_harness.h"
#include "core/harness/remove_device.h"
#include "core/parts/connectors.h"
#include "core/parts/roles.h"
#include "core/program/pins_used.h"
#include "core/program/read_program.h"
#include "core/wiring/program_edit.h"
#include "core/wiring/program_plan.h"
#include "core/wiring/read_back.h"
#include "core/wiring/wire_table.h"
#include "support/benches.h"
#include "support/run_length.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

// What the program writes it reads: every kind of edit on every good bench, and all of them after each other.
namespace {

std::string firstDoubt(const Harness& h) {
  const auto open = leftOut(h);
  return open.empty() ? std::string() : text(open.front());
}

// Written, read and written again: nothing is doubted, nothing is another, not a byte moves.
Harness through(const Harness& h, const std::string& what) {
  INFO(what);
  const auto written = writeHarness(h);
  auto read = readHarness(written, "b");
  REQUIRE(read);
  CHECK(firstDoubt(read->harness) == "");
  CHECK(writeHarness(read->harness) == written);
  auto before = judgedPart(h);
  for (auto& s : before.sources)
    for (auto& f : s.files) f.standing = Standing::Unlooked;  // which is not kept
  CHECK(judgedPart(read->harness) == before);
  return std::move(read->harness);
}

using Maker = std::function<std::vector<Edit>(const Harness&)>;

std::vector<std::pair<std::string, Maker>> makers() {
  std::vector<std::pair<std::string, Maker>> out;
  const auto motors = [](const Harness& h) {
    std::vector<std::string> ids;
    for (const auto& d : h.devices)
      if (const auto p = library().find(d.part); p && parts::isMotor(*p)) ids.push_back(d.id);
    return ids;
  };
  out.emplace_back("a stage for a motor", [=](const Harness& h) {
    std::vector<Edit> all;
    for (const auto& m : motors(h))
      if (auto e = choose::wireStage(h, library(), {m, "l298n-module", {}, false})) all.push_back(*e);
    return all;
  });
  out.emplace_back("pins for its signals", [](const Harness& h) {
    const auto demands = choose::pinDemands(h, library(), {});
    const auto plan = choose::placeSignals(h, library(), demands);
    return plan.problem.empty() ? std::vector<Edit>{choose::pinEdit(h, library(), plan)} : std::vector<Edit>{};
  });
  out.emplace_back("a program that uses its pins", [](const Harness& h) {
    std::vector<Edit> all;
    for (const auto& d : h.devices) {
      const auto part = library().find(d.part);
      if (!part || !parts::isController(*part)) continue;
      const auto python = !program::shippedCalls().boards.contains(d.part);
      const std::string text = python ? "import gpiozero\nled = gpiozero.PWMLED(18, frequency=0.5)\nled.value = 0.3\n"
                                      : "const int a = 9;\nvoid setup() { pinMode(a, OUTPUT); }\nvoid loop() { digitalWrite(a, HIGH); "
                                        "delayMicroseconds(0); digitalWrite(a, LOW); analogWrite(a, 300); delay(4000000); }\n";
      const auto read = program::readTexts({{python ? "tank.py" : "tank.ino", text}}, d.part, program::shippedCalls());
      all.push_back(wiring::programEdit(h, library(), read, d.id, "sketch folder/"));
    }
    return all;
  });
  out.emplace_back("what the program tells of the motors",
                   [](const Harness& h) { return std::vector<Edit>{wiring::planEdit(h, wiring::planFromProgram(h, analyseFast(h)))}; });
  out.emplace_back("the wire list of its own", [](const Harness& h) {
    auto other = h;
    for (auto& c : other.connections)
      if (c.kind == ConnectionKind::Wire) c.colour = c.colour == "RD" ? "GNYE" : "RD", c.gauge = 20, c.length = Metres{0.25};
    return std::vector<Edit>{wiring::readWireTable(h, library(), wiring::writeWireTable(other, library())).edit};
  });
  out.emplace_back("marks", [](const Harness& h) {
    std::vector<Edit> all;
    if (h.connections.empty()) return all;
    const auto& c = h.connections.front();
    all.push_back(mark(h, library(), c.id, Marked::Fitted, {"AB", "2026-11-30T10:12"}, {}));
    all.push_back(
        mark(h, library(), c.id, Marked::Wrong, {"AB", "2026-11-30T10:12"}, {std::array{c.b, c.a}, "it was round the wrong way"}));
    return all;
  });
  out.emplace_back("a round of reading back", [](const Harness& h) {
    Round r{"round1", "AB", "2026-11-30T10:12", 7, {}, {}, nullptr};
    if (!h.connections.empty())
      r.answers.push_back({h.connections.front().id, true, wireDigest(h, library(), h.connections.front()), "d9", h.connections.front().a,
                           "2026-11-30T10:13"});
    if (!h.devices.empty()) r.counts[h.devices.front().id] = 4;
    return std::vector<Edit>{{"x", {Put<Round>{r, {}}}}};
  });
  out.emplace_back("what is stated of a motor", [=](const Harness& h) {
    std::vector<Edit> all;
    for (const auto& m : motors(h)) {
      auto i = intentFor(h, m);
      i.pwm = Hertz{490};
      i.rate = Hertz{800};
      i.pulse = Seconds{2e-6};
      i.dutyCap = 0.8;
      i.stepsPerTurn = 200;
      i.sequence = "half";
      for (auto& s : i.signals) {
        s.numbering = "program";
        s.active = Active::Low;
      }
      all.push_back(stating(h, i, "x"));
    }
    return all;
  });
  out.emplace_back("another part in its place", [](const Harness& h) {
    std::vector<Edit> all;
    for (const auto& d : h.devices)
      if (d.part == "board-uno-atmega328p")
        if (auto e = exchangePart(h, library(), d.id, "board-mega-atmega2560")) all.push_back(e->edit);
    return all;
  });
  out.emplace_back("plans that are done", [](const Harness& h) { return std::vector<Edit>{markAllDone(h)}; });
  out.emplace_back("how things lie and are called", [](const Harness& h) {
    std::vector<Edit> all{{"x", {SetNames{"position"}}}};
    if (h.devices.empty()) return all;
    auto d = h.devices.front();
    d.name = "Name, with \"signs\"";
    d.lie = {3, true};
    d.orderSeen = true;
    d.settings["anything"] = {"", "planned"};
    d.settings.erase("anything");
    d.state = State::ToBeRemoved;
    all.push_back({"x", {Put<Device>{d, {}}}});
    return all;
  });
  out.emplace_back("a device gone", [](const Harness& h) {
    return h.devices.size() < 2 ? std::vector<Edit>{} : std::vector<Edit>{removeDevice(h, h.devices.back().id)};
  });
  return out;
}

}  // namespace

TEST_CASE("what any edit makes of any good bench is read again as it was written") {
  const auto all = makers();
  std::map<std::string, int> made;
  const int every = oneOf(3);
  int number = 0;
  for (const auto& name : goodNames()) {
    auto h = through(good(name), name);
    // Twice in a row: what is read of the first is a document like any other.
    const int turns = ++number % every == 0 ? 2 : 1;
    for (const auto& [what, make] : all) {
      for (int turn = 0; turn < turns; ++turn) {
        auto next = h;
        bool any = false;
        for (const auto& e : make(h)) {
          if (e.changes.empty()) continue;
          apply(next, e);
          any = true;
        }
        if (any) h = through(next, fmt::format("{}: {}, {}", name, what, turn));
        made[what] += any;
      }
    }
  }
  for (const auto& [what, make] : all) {
    INFO(what);
    CHECK(made[what] > 0);
  }
}

TEST_CASE("line ends and the spacing of a list stay as somebody wrote them") {
  auto text = readFile("demo/wave-tank.harness");
  const auto edited = [](const std::string& before) {
    auto h = readHarness(before, "b")->harness;
    auto d = h.devices.front();
    d.name = "Another name";
    apply(h, {"x", {Put<Device>{d, {}}}});
    apply(h, {"x", {Put<Connection>{{.id = "new-wire", .a = {"uno", "D2"}, .b = {"uno", "D3"}}, {}}}});
    return writeHarness(h);
  };
  std::string windows;
  for (const char c : text) windows += c == '\n' ? std::string("\r\n") : std::string(1, c);
  const auto out = edited(windows);
  CHECK(readHarness(out, "b"));
  for (std::size_t at = out.find('\n'); at != std::string::npos; at = out.find('\n', at + 1)) REQUIRE(out[at - 1] == '\r');
  std::string back = out;
  std::erase(back, '\r');
  CHECK(back == edited(text));
  // A list on one line stays on one line, blank lines between entries stay.
  const std::string dense = R"({"format":2,"devices":[{"id":"a","part":"resistor-1k"},{"id":"b","part":"resistor-1k"}],
"connections":[

  {"id":"w1","wire":["a.A","b.A"]},

  {"id":"w2","wire":["a.B","b.B"]}

],"goals":[]})";
  auto h = readHarness(dense, "b")->harness;
  auto d = h.devices[1];
  d.name = "B";
  apply(h, {"x", {Put<Device>{d, {}}}});
  auto c = h.connections[0];
  c.colour = "RD";
  apply(h, {"x", {Put<Connection>{c, {}}}});
  const auto now = writeHarness(h);
  CHECK(now.find(R"("devices":[{"id":"a","part":"resistor-1k"},{"id":"b",)") != std::string::npos);
  CHECK(now.find("\"connections\":[\n\n  {") != std::string::npos);
  CHECK(now.find("},\n\n  {\"id\":\"w2\",\"wire\":[\"a.B\",\"b.B\"]}\n\n],\"goals\":[]}") != std::string::npos);
  CHECK(leftOut(readHarness(now, "b")->harness).empty());
}

TEST_CASE("a plug may name whole connectors as the cards print them") {
  int with = 0;
  for (const auto& id : library().search("")) {
    for (const auto& c : parts::connectorsOf(*id)) {
      const auto address = parseAddress("x." + c.name);
      INFO(id->id << " " << c.name);
      REQUIRE(address);
      const auto named = parts::connectorsNamed(*id, address->terminal);
      CHECK(std::ranges::any_of(named, [&](const parts::Connector& n) { return n.name == c.name; }));
      with += c.name.find_first_of(" ,") != std::string::npos;
    }
    for (const auto& t : id->terminals) {
      INFO(id->id << " " << t.label);
      CHECK(parseAddress("x." + t.label));
    }
  }
  CHECK(with > 20);
  // On a bench: a shield on its board, by the names that stand on its card.
  const std::string bench =
      R"({"format": 2, "devices": [{"id": "uno", "part": "board-uno-atmega328p"}, {"id": "sh", "part": "bridge-stack-l293d"}],
    "connections": [{"id": "p", "plug": ["sh.power, left", "uno.power, left"]}, {"id": "q", "plug": ["sh.digital 7-0, right", "uno.digital-7-0-right"]}],
    "goals": []})";
  const auto reading = readHarness(bench, "b");
  REQUIRE(reading);
  CHECK(firstDoubt(reading->harness) == "");
  const auto a = analyseFast(reading->harness);
  CHECK(a.solved->bench.problems.empty());
  CHECK(a.solved->bench.links.size() > 10);
  for (const auto& bad : {"uno.", "uno. D5", "uno.D5 ", "uno..D5", "uno D5", ".D5", "uno.\nD5"}) CHECK_FALSE(parseAddress(bad));
}
