#include "core/harness/left_out.h"

#include <fmt/core.h>
#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/json_text.h"
#include "core/checks/analysis.h"
#include "core/harness/any_change.h"
#include "core/harness/intent.h"
#include "core/harness/read_harness.h"
#include "core/report/report.h"
#include "support/benches.h"
#include "support/generate.h"
#include "support/run_length.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

Harness opened(std::string_view text) {
  auto r = readHarness(text, "b");
  REQUIRE(r);
  return std::move(r->harness);
}

// The demo bench as it ships, without the copies of parts, each of which is the library's own.
const Json& demo() {
  static const Json json = [] {
    auto j = parsedJson(readFile("demo/wave-tank.harness"));
    j.erase("parts");
    return j;
  }();
  return json;
}

// Everything that is said of a bench, and every current of it.
std::string judgement(const Analysis& a) {
  std::string out(headline(a.verdict));
  for (const auto* list : {&a.why, &a.assumptions})
    for (const auto& x : *list) out += "\n" + x;
  for (const auto& f : a.findings) out += "\n" + f.identity() + f.headline + f.text + f.formula;
  for (const auto& p : a.solved->points) {
    out += "\n" + p->command().id;
    for (std::size_t l = 0; p->solved() && l < a.solved->bench.links.size(); ++l)
      out += fmt::format(" {:.4g}", p->link(static_cast<int>(l)).value);
  }
  return out;
}

// Only said, never judged: what people call things.
bool onlySaid(const std::string& pointer) {
  const auto key = pointer.substr(pointer.rfind('/') + 1);
  return pointer == "/title" || key == "name" || key == "group" || (key == "id" && !pointer.starts_with("/devices"));
}

struct Place {
  std::string pointer;
  TextPath path;
};
void everyPlace(const Json& j, const std::string& pointer, const TextPath& path, std::vector<Place>& out) {
  if (!path.empty()) out.push_back({pointer, path});
  const auto below = [&](const Json& v, const std::string& key) {
    auto deeper = path;
    deeper.push_back(key);
    everyPlace(v, pointer + "/" + key, deeper, out);
  };
  if (j.is_object())
    for (const auto& [key, v] : j.items()) below(v, key);
  if (j.is_array())
    for (std::size_t i = 0; i < j.size(); ++i) below(j[i], std::to_string(i));
}

}  // namespace

TEST_CASE("whatever one thing is changed in the demo, the judgement follows it or it is named") {
  const auto before = judgement(analyseFast(opened(demo().dump())));
  REQUIRE(before.starts_with("Clear"));
  std::vector<Place> places;
  everyPlace(demo(), "", {}, places);
  REQUIRE(places.size() > 400);
  int tried = 0;
  int number = 0;
  const int every = oneOf(3);  // of four ways at most places: which of them is tried changes from place to place
  const auto holds = [&](const std::string& what, const std::string& pointer, const std::string& text) {
    if (++number % every != 0) return;
    const auto reading = readHarness(text, "b");
    if (!reading) return;  // refused with a sentence
    const auto a = analyseFast(reading->harness);
    ++tried;
    INFO(what << " " << pointer);
    if (!a.leftOut.empty()) {
      CHECK((a.verdict == Verdict::NotJudged || a.verdict == Verdict::DoNotSwitchOn));
      CHECK_FALSE(a.why.empty());
      return;
    }
    if (!onlySaid(pointer)) CHECK(judgement(a) != before);
  };
  for (const auto& place : places) {
    const Json::json_pointer at(place.pointer);
    const auto old = demo().at(at);
    const auto changed = [&](const Json& value) {
      auto j = demo();
      j[at] = value;
      return j.dump();
    };
    if (place.pointer == "/format") continue;
    // A value of another kind, and one that nobody knows.
    holds("number in", place.pointer, changed(7.5));
    holds("list in", place.pointer, changed(Json::array({old})));
    if (old.is_string()) holds("nonsense in", place.pointer, changed("zz9"));
    if (!demo().at(at.parent_pointer()).is_object()) continue;
    // The key mistyped, and standing there twice with something else.
    auto j = demo();
    auto& parent = j[at.parent_pointer()];
    parent.erase(place.path.back());
    parent[place.path.back() + "x"] = old;
    holds("key of", place.pointer, j.dump());
    const auto object = demo().at(at.parent_pointer()).dump();
    auto text = demo().dump();
    const auto stands = text.find(object);
    REQUIRE(stands != std::string::npos);
    text.replace(stands, object.size(), "{" + lineText(Json(place.path.back())) + ":" + old.dump() + "," + object.substr(1));
    INFO("twice " << place.pointer);
    const auto twice = readHarness(text, "b");
    REQUIRE(twice);
    CHECK_FALSE(leftOut(twice->harness).empty());
  }
  CHECK(tried > 300);
}

TEST_CASE("what a file says and cannot be used is named, and the bench is not judged Clear") {
  struct Row {
    const char *list, *entry, *sentence;
  };
  // One row of docs/leftout.md each.
  const Row rows[] = {
      {"connections", R"({"id": "x", "wire": ["psu.P", "uno D5"]})", "\"uno D5\" is not a terminal address"},
      {"connections", R"({"id": "x", "wire": ["psu.P", "uno.D5", "uno.D6"]})", "needs exactly two ends"},
      {"connections", R"({"id": "x", "wires": ["psu.P", "uno.D5"]})", "neither a wire nor a plug nor a jumper"},
      {"connections", R"(["psu.P", "uno.D5"])", "is not an object"},
      {"connections", R"({"id": "x", "wire": "psu.P uno.D5"})", "is not a list of texts"},
      {"connections", R"({"id": "w1", "wire": ["psu.P", "uno.D5"]})", "is used twice"},
      {"connections", R"({"id": "x", "wire": ["psu.P", "uno.D5"], "plug": ["psu.P", "uno.D5"]})", "stands beside another kind"},
      {"connections", R"({"wire": ["psu.P", "uno.D5"]})", "\"id\" is missing"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "colour": "red"})", "no IEC 60757 code"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "length": "3"})", "cannot be used"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "length": 3})", "is not a quantity"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "gauge": "22"})", "is not a gauge"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "gauge": "20.5 AWG"})", "is not a gauge"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "state": "plannd"})", "it can be"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "lenght": "3 m"})", "\"lenght\" is nothing"},
      {"connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "colour": "BK", "colour": "RD"})", "appears twice"},
      {"devices", R"({"id": "uno", "part": "resistor"})", "is used twice"},
      {"devices", R"({"id": "x", "part": "resistor-1k", "name": "S1"})", "both called \"S1\""},
      {"devices", R"({"id": "x", "part": "resistor-1k", "overides": {}})", "\"overides\" is nothing"},
      {"devices", R"({"id": "x", "part": "resistor-1k", "settings": ["a"]})", "is not an object of settings"},
      {"devices", R"({"id": "x", "part": "resistor-1k", "overrides": {"resistance": 1000}})", "is not a figure with its unit"},
      {"devices", R"("resistor-1k")", "is not an object"},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in"})", "\"pin\" is missing"},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno D5"})", "\"pin\" cannot be used"},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno.D5", "active": "lo"})", "it can be \"high\" or \"low\""},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno.D5", "numbering": "bcm"})", "it can be \"label\""},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno.D5", "source": {"line": 3}})", "\"file\" is missing"},
      {"assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno.D5", "source": {"file": "a.ino", "line": "3"}})",
       "is not a whole number"},
      {"goals", R"({"id": "x", "motor": "pump", "directions": "forth"})", "it can be \"one\" or \"both\""},
      {"goals", R"({"id": "x", "motor": "pump", "speed": "yes"})", "is neither true nor false"},
      {"goals", R"({"id": "x", "motor": "pump", "pwm": "490 Hz"})", "\"pwm\" is nothing"},
      {"program", R"({"id": "x", "motor": "pump", "pwm": "490"})", "\"pwm\" cannot be used"},
      {"program", R"({"id": "x", "motor": "pump", "sequence": "quarter"})", "it can be \"full\", \"half\" or \"wave\""},
      {"program", R"({"id": "x", "motor": "pump", "source": "somebody"})", "is neither \"typed\" nor"},
      {"parts", R"({"name": "no id"})", "has no \"id\""},
  };
  for (const auto& row : rows) {
    INFO(row.entry);
    // At the end of the list, as somebody adds a line.
    auto json = demo();
    if (!json.contains(row.list)) json[row.list] = Json::array();
    auto text = json.dump();
    const auto members = membersOf(text);
    auto list = std::string(std::ranges::find(members, std::string(row.list), &TextMember::key)->value);
    list.pop_back();
    text = withFirstMember(text, row.list, list + (list == "[" ? "" : ",") + row.entry + "]");
    const auto h = opened(text);
    const auto a = analyseFast(h);
    CHECK((a.verdict == Verdict::NotJudged || a.verdict == Verdict::DoNotSwitchOn));
    REQUIRE_FALSE(a.leftOut.empty());
    const auto named = std::ranges::find_if(a.leftOut, [&](const Problem& p) { return p.what.find(row.sentence) != std::string::npos; });
    REQUIRE(named != a.leftOut.end());
    CHECK(named->where.starts_with(std::string("#/") + row.list));
    // Named in the report and in JSON, with the place.
    const auto said = parsedJson(report::json("b", h, a));
    CHECK(std::ranges::any_of(said["leftOut"], [&](const Json& l) { return l["where"] == named->where; }));
    CHECK(std::ranges::any_of(a.why, [&](const std::string& w) { return w.find(named->where) != std::string::npos; }));
    CHECK(report::html("b", h, a).find(named->where) != std::string::npos);
    CHECK(writeHarness(h) == text);
  }
}

TEST_CASE("what is only a remark keeps nobody from Clear") {
  auto j = demo();
  j["$schema"] = "harness.schema.json";
  j["devices"][0]["note"] = "left of the tank";
  j["connections"][0]["comment"] = {{"seen", true}};
  j["goals"][0]["x-teacher"] = 5;
  j["assignments"][0]["note"] = "see line 3";
  const auto h = opened(j.dump());
  CHECK(leftOut(h).empty());
  CHECK(analyseFast(h).verdict == Verdict::Clear);
}

TEST_CASE("what plans name and is not there keeps the bench from being judged") {
  const auto why = [](const std::string& plan) {
    auto h = wiredBench("from wave-tank\n");
    auto& i = h.goals[0];
    const auto at = plan.find('=');
    const auto key = plan.substr(0, at);
    const auto value = plan.substr(at + 1);
    if (key == "motor") i.motor = value;
    if (key == "stage") i.stage = value;
    if (key == "channel") i.channel = value;
    if (key == "forward") i.forwardLead = value;
    if (key == "role") h.assignments[0].role = value;
    if (key == "pin") h.assignments[0].pin = {"uno", value};
    const auto a = analyseFast(h);
    CHECK((a.verdict == Verdict::NotJudged || a.verdict == Verdict::DoNotSwitchOn));
    std::string all;
    for (const auto& w : a.why) all += w + "\n";
    return all;
  };
  using Catch::Contains;
  CHECK_THAT(why("motor=padle"), Contains("is for \"padle\", which is not on the bench"));
  CHECK_THAT(why("motor=uno"), Contains("which is neither a motor nor a sensor"));
  CHECK_THAT(why("motor=pump"), Contains("The stage of Circulation pump is"));
  CHECK_THAT(why("stage=s9"), Contains("names the stage \"s9\", which is not on the bench"));
  CHECK_THAT(why("stage=uno"), Contains("which drives no motor"));
  CHECK_THAT(why("channel=Z"), Contains("the channel \"Z\""));
  CHECK_THAT(why("forward=Q"), Contains("the lead \"Q\", which it does not have"));
  CHECK_THAT(why("role=inn1"), Contains("a signal \"inn1\", which no stage has"));
  CHECK_THAT(why("pin=D99"), Contains("names uno.D99, which Controller does not have"));
}

TEST_CASE("what could not be read stays where it stood, byte for byte, through edits, undo and writing") {
  rc::prop("mutated files, any edits", [] {
    auto j = parsedJson(writeHarness(*generatedBench()));
    // Entries that cannot be used, at any place of any list, written as nobody here would.
    const std::vector<std::string> broken{R"({ "id":"zz",  "wire" : ["psu.P","uno D5"] })",
                                          R"(["a.B", "c.D"])",
                                          "1.50e3",
                                          R"({"id": "zy", "part": "x", "state":"maybe",  "state": "planned"})",
                                          R"({"id":"zx","wire":["a.B","c.D"],"lenght":"3 m"})",
                                          R"({"id": "zw", "motor": 3,  "role": 1.0})"};
    std::vector<std::string> put;
    auto text = jsonText(j);
    for (const auto* list : {"devices", "connections", "goals", "assignments"}) {
      const auto members = membersOf(text);
      const auto value = std::ranges::find(members, std::string(list), &TextMember::key)->value;
      std::string made = "[";
      const auto add = [&](std::string_view element) { made += (made.size() > 1 ? ", " : "") + std::string(element); };
      for (const auto& element : elementsOf(value)) {
        if (*rc::gen::inRange(0, 4) == 0) {
          put.push_back(*rc::gen::elementOf(broken));
          add(put.back());
        }
        add(element);
      }
      text = withFirstMember(text, list, made + "]");
    }
    const auto reading = readHarness(text, "b");
    RC_ASSERT(reading.has_value());
    auto h = reading->harness;
    RC_ASSERT(writeHarness(h) == text);
    std::vector<Edit> back;
    for (int i = *rc::gen::inRange(0, 6); i > 0; --i) {
      auto edit = *editOf(h);
      // What is done to the broken ones themselves is another test.
      std::erase_if(edit.changes, [](const Change& c) {
        return std::visit(
            [](const auto& x) {
              if constexpr (requires { x.id; })
                return x.id.starts_with("z");
              else if constexpr (requires { x.value.id; })
                return x.value.id.starts_with("z");
              else
                return false;
            },
            c.any());
      });
      back.push_back(apply(h, edit));
    }
    const auto edited = writeHarness(h);
    std::size_t at = 0;
    for (const auto& b : put) {
      at = edited.find(b, at);
      RC_ASSERT(at != std::string::npos);
      at += b.size();
    }
    const auto again = readHarness(edited, "b");
    RC_ASSERT(again.has_value());
    RC_ASSERT(writeHarness(again->harness) == edited);
    RC_ASSERT(leftOut(again->harness).size() == leftOut(h).size());
    while (!back.empty()) {
      apply(h, back.back());
      back.pop_back();
    }
    RC_ASSERT(writeHarness(h) == text);
  });
}

TEST_CASE("a doubtful field keeps its bytes while others change, and goes when it is set itself") {
  const std::string text = R"({"format": 2, "devices": [
    {"id": "r", "part": "resistor-1k",  "state": "planed", "overrides": {"resistance": 5,"x": "1 ohm"}}
  ], "connections": [], "goals": []})";
  auto h = opened(text);
  REQUIRE(leftOut(h).size() == 2);
  auto device = h.devices[0];
  device.name = "R";
  device.overrides.clear();
  apply(h, {"x", {Put<Device>{device, {}}}});
  CHECK(writeHarness(h).find(R"({"id": "r", "part": "resistor-1k",  "state": "planed", "overrides": {"resistance": 5}, "name": "R"})") !=
        std::string::npos);
  CHECK(leftOut(h).size() == 2);
  device.state = State::Planned;
  device.overrides["resistance"] = "5 ohm";
  apply(h, {"x", {Put<Device>{device, {}}}});
  CHECK(leftOut(h).empty());
  CHECK(leftOut(opened(writeHarness(h))).empty());
}

TEST_CASE("what is left out can be taken out of the file, and put back") {
  const std::string text = R"({"format": 2, "tilte": "x", "devices": [{"id": "r", "part": "resistor-1k", "state": "planed"}, 7],
    "connections": [{"id": "w", "wire": ["r.A", "r.B", "r.A"]}, {"id": "v", "wire": ["r.A", "r.B"], "colour": "BK", "colour": "RD"}],
    "goals": [], "assignments": [{"id": "a", "motor": "r", "role": "in", "pin": "uno D5"},
      {"id": "b", "motor": "r", "role": "x", "pin": "r.A", "active": 0}]})";
  auto h = opened(text);
  std::vector<Edit> back;
  for (auto open = leftOut(h); !open.empty(); open = leftOut(h)) {
    INFO(open.front().where << " " << open.front().what);
    const auto edit = takeOut(h, open.front().where);
    REQUIRE(edit);
    back.push_back(apply(h, *edit));
    REQUIRE(leftOut(h).size() < open.size());
  }
  CHECK(back.size() == 7);
  const auto clean = opened(writeHarness(h));
  for (const auto& p : leftOut(clean)) FAIL(bold::text(p));
  CHECK(clean.devices.size() == 1);
  CHECK(clean.connections.size() == 1);
  CHECK(clean.connections[0].colour == "BK");
  while (!back.empty()) {
    apply(h, back.back());
    back.pop_back();
  }
  CHECK(writeHarness(h) == text);
  CHECK_FALSE(takeOut(h, "#/nowhere"));
}

TEST_CASE("an active level that is said stays said") {
  const std::string text = R"({"format": 2, "devices": [], "connections": [],
    "goals": [], "assignments": [{"id": "a", "motor": "m", "role": "in", "pin": "uno.D5", "active": "high", "numbering": "chip"}]})";
  auto h = opened(text);
  auto intent = *intentOf(h, "m");
  CHECK(intent.signals[0].active == Active::High);
  intent.signals[0].pin = {"uno", "D6"};
  apply(h, stating(h, intent, "x"));
  CHECK(writeHarness(h).find(R"("role": "in", "pin": "uno.D6", "active": "high", "numbering": "chip"})") != std::string::npos);
}

TEST_CASE("what is new takes no id from an entry that could not be read") {
  const std::string text = R"({"format": 2, "devices": [{"id": "r", "part": "resistor-1k"}],
    "connections": [{"id": "w1", "wire": ["r.A", "r B"]}, 7, "w2"], "goals": []})";
  const auto h = opened(text);
  CHECK(h.freeId("w") == "w2");
  CHECK(h.ids().contains("w1"));
  // Nor does a repair, whatever was judged before.
  const std::string wired = writeHarness(wiredBench("from low-side\nunwire q1.S psu.N"));
  auto other = wired;
  other.insert(other.find("\"connections\": [") + 16, R"({"id": "w1000", "wire": ["a.A"]}, {"id": "w50", "wire": ["b.B"]}, )");
  const auto first = analyse(opened(wired), library());
  const auto second = analyse(opened(other), library(), {}, &first);
  CHECK(second.judged.ids->contains("w50"));
  REQUIRE(second.findings.size() == analyse(opened(other), library()).findings.size());
}
