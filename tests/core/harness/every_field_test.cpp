#include <fmt/core.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/embedded.h"
#include "core/base/quantity.h"
#include "core/harness/left_out.h"
#include "core/harness/read_harness.h"
#include "core/report/report.h"
#include "support/benches.h"
#include "support/schema.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

// Every field that the schema has, in one bench, and each of them filled in as nobody should: it is named, or the whole report is what it
// is without the field. Nothing in a file is silent.
namespace {

const Json& schema() {
  static const Json json = [] {
    for (const auto& f : embedded::schemas())
      if (f.path == "harness.schema.json") return parsedJson(f.text);
    return Json();
  }();
  return json;
}

// The demo with everything that it does not use: a bench that says all that can be said.
Json everything() {
  auto j = parsedJson(readFile("demo/wave-tank.harness"));
  j.erase("parts");
  const auto motor = j["goals"][0]["motor"].get<std::string>();
  j["settings"] = {{"ambient", "25 degC"}, {"names", "position"}};
  auto& device = j["devices"][0];
  device.update(
      Json{{"name", "A name"}, {"group", "a group"}, {"state", "on the bench"}, {"turned", 90}, {"below", true}, {"orderSeen", true}});
  j["devices"].push_back({{"id", "spare"}, {"part", "battery-4aa-alkaline"}, {"overrides", {{"resistance", "0.5 ohm"}}}});
  j["devices"].push_back({{"id", "stage"}, {"part", "l298n-module"}, {"settings", {{"regulator", {{"value", "on"}, {"planned", "off"}}}}}});
  j["devices"].push_back({{"id", "stage2"}, {"part", "l298n-module"}, {"settings", {{"regulator", "off"}}}});
  auto& wire = *std::ranges::find_if(j["connections"], [](const Json& c) { return c.contains("wire"); });
  wire.update(Json{{"colour", "RD"}, {"gauge", "22 AWG"}, {"length", "0.3 m"}, {"state", "on the bench"}});
  const auto id = wire["id"].get<std::string>();
  j["connections"].push_back({{"id", "plug-x"}, {"plug", {"spare.P", "spare.P"}}, {"mirrored", true}, {"state", "planned"}});
  j["connections"].push_back({{"id", "jumper-x"}, {"jumper", {"spare.P", "spare.P"}}, {"state", "planned"}});
  const Json source{{"file", "tank.ino"}, {"line", 3}};
  j["goals"].push_back({{"id", "goal-x"}, {"motor", motor}, {"together", true}, {"source", source}});
  auto& goal = j["goals"][0];
  const Json all{{"directions", "both"}, {"speed", true}, {"hold", false}, {"together", true}, {"rate", "100 Hz"}, {"switched", "program"}};
  for (const auto& [key, v] : all.items())
    if (!goal.contains(key)) goal[key] = v;
  if (!goal.contains("forward")) goal["forward"] = "A";
  if (!goal.contains("stage")) goal["stage"] = "s1";
  if (!goal.contains("channel")) goal["channel"] = "A";
  auto& pin = j["assignments"][0];
  pin.update(Json{{"numbering", "label"}, {"active", "high"}, {"source", source}});
  const Json facts{{"pwm", "490 Hz"},  {"dutyCap", 0.8},     {"ramp", true},    {"stepsPerTurn", 200},
                   {"pulse", "10 us"}, {"sequence", "full"}, {"source", source}};
  if (!j.contains("program") || j["program"].empty()) j["program"] = Json::array({{{"id", "facts-x"}, {"motor", motor}}});
  for (const auto& [key, v] : facts.items())
    if (!j["program"][0].contains(key)) j["program"][0][key] = v;
  const Json spot{{"file", "tank.ino"}, {"line", 1}, {"column", 2}, {"length", 3}};
  j["sources"] = Json::array({{{"id", "source-x"},
                               {"controller", "uno"},
                               {"files", Json::array({{{"file", "tank.ino"}, {"digest", "abc"}}})},
                               {"pins", Json::array({{{"word", "9"},
                                                      {"numbering", "program"},
                                                      {"name", "PADDLE"},
                                                      {"terminal", "D9"},
                                                      {"also", Json::array({{{"name", "EN"}, {"number", spot}}})},
                                                      {"number", spot},
                                                      {"places", Json::array({spot})},
                                                      {"does", {"output", "pwm"}},
                                                      {"duty", 0.5},
                                                      {"written", 128},
                                                      {"scale", 255},
                                                      {"frequency", "490 Hz"},
                                                      {"pulse", "1 ms"},
                                                      {"rate", "100 Hz"},
                                                      {"first", "low"},
                                                      {"off", "low"},
                                                      {"last", "low"},
                                                      {"sure", true},
                                                      {"onBoard", true}},
                                                     {{"word", "3"}, {"terminal", "D3"}}})},
                               {"groups", Json::array({{{"kind", "step"},
                                                        {"name", "carriage"},
                                                        {"pins", {{"step", "9"}, {"dir", "3"}}},
                                                        {"states", {"10", "01"}},
                                                        {"turn", 200},
                                                        {"rate", "100 Hz"},
                                                        {"place", spot}}})},
                               {"untold", Json::array({{{"what", "something"}, {"place", spot}, {"reach", {"D3"}}}})},
                               {"told", 3},
                               {"asked", 4},
                               {"console", spot},
                               {"counted", spot}}});
  j["marks"] = Json::array({{{"id", "mark-x"},
                             {"wire", id},
                             {"mark", "wrong"},
                             {"digest", "abc"},
                             {"by", "AB"},
                             {"at", "2026-11-30T10:12"},
                             {"found", {"spare.P", "spare.N"}},
                             {"remark", "it was loose"}}});
  j["rounds"] = Json::array(
      {{{"id", "round-x"},
        {"reader", "AB"},
        {"at", "2026-11-30T10:12"},
        {"shuffle", 7},
        {"answers",
         Json::array(
             {{{"wire", id}, {"fromSecond", true}, {"digest", "abc"}, {"said", "d9"}, {"means", "uno.D9"}, {"at", "2026-11-30T10:12"}}})},
        {"counts", {{"uno", 5}}}}});
  j["parts"] = Json::array();
  return j;
}

struct Leaf {
  std::string where;  // in the bench
  Json schema;
};

// Every place of the bench that the schema describes; what it describes and the bench lacks goes into `missing`.
void leaves(const Json& node, const Json& value, const std::string& at, std::vector<Leaf>& out, std::set<std::string>& seen,
            const std::string& pattern) {
  if (node.contains("oneOf"))
    for (const auto& one : node["oneOf"])
      if (one.contains("type") && ((one["type"] == "object" && value.is_object()) || (one["type"] == "string" && value.is_string())))
        return leaves(one, value, at, out, seen, pattern);
  if (node.contains("properties") && value.is_object()) {
    for (const auto& [key, below] : node["properties"].items())
      if (value.contains(key)) leaves(below, value[key], at + "/" + key, out, seen, pattern + "/" + key);
    return;
  }
  if (node.contains("additionalProperties") && node["additionalProperties"].is_object() && value.is_object()) {
    for (const auto& [key, v] : value.items()) leaves(node["additionalProperties"], v, at + "/" + key, out, seen, pattern + "/*");
    return;
  }
  if (node.contains("items") && value.is_array()) {
    for (std::size_t i = 0; i < value.size(); ++i) leaves(node["items"], value[i], at + "/" + std::to_string(i), out, seen, pattern + "/-");
    return;
  }
  if (seen.insert(pattern).second) out.push_back({at, node});
}

void patterns(const Json& node, const std::string& at, std::set<std::string>& out) {
  if (node.contains("oneOf")) {
    bool any = false;
    for (const auto& one : node["oneOf"])
      if (one.contains("type")) {
        patterns(one, at, out);
        any = true;
      }
    if (any) return;
  }
  if (node.contains("properties")) {
    for (const auto& [key, below] : node["properties"].items()) patterns(below, at + "/" + key, out);
  } else if (node.contains("additionalProperties") && node["additionalProperties"].is_object()) {
    patterns(node["additionalProperties"], at + "/*", out);
  } else if (node.contains("items")) {
    patterns(node["items"], at + "/-", out);
  } else {
    out.insert(at);
  }
}

// What nobody should write into a field; the second says what it is.
std::vector<std::pair<Json, const char*>> slips(const Json& now, const Json& node) {
  std::vector<std::pair<Json, const char*>> out{{nullptr, "null"}, {Json::array({now}), "a list"}, {Json::object(), "an object"}};
  if (!now.is_boolean()) out.emplace_back(true, "true");
  if (!now.is_number()) out.emplace_back(7, "a number");
  if (!now.is_string()) out.emplace_back("text", "a text");
  if (now.is_string()) {
    const auto text = now.get<std::string>();
    out.emplace_back("", "empty");
    out.emplace_back("  ", "blank");
    out.emplace_back(std::string(5000, 'x'), "very long");
    const bool words = !node.contains("enum") && !node.contains("pattern") && !node.contains("const");
    const auto q = text.find(' ') == std::string::npos ? Result<AnyQuantity>(fail(std::string())) : parseAnyQuantity(text);
    if (!words || q) out.emplace_back("zz 9", "out of set");
    if (!words && !q) out.emplace_back(text + " ", "a blank behind it");
    if (q) {
      const auto unit = text.substr(text.find(' '));
      const bool volts = unit == " V";
      out.emplace_back(volts ? "3 A" : "3 V", "another unit");
      if (unit != " degC") out.emplace_back("0.00000000000000001" + unit, "too small");
      out.emplace_back("99999999999999999" + unit, "too large");
      out.emplace_back("-5000" + unit, "negative");
      out.emplace_back("1,5" + unit, "a comma");
      out.emplace_back(text.substr(0, text.find(' ')), "no unit");
    }
  }
  if (now.is_number()) {
    out.emplace_back(-1e9, "too small");
    out.emplace_back(1e18, "too large");
    if (node.value("type", "") == "integer" || node.contains("enum")) out.emplace_back(0.5, "no whole number");
  }
  return out;
}

struct Said {
  std::string report;
  std::vector<std::string> why;
  bool judged = true;
};

Said saidOf(const Harness& h) {
  const auto a = analyseFast(h);
  return {report::text("b", h, a, {}) + report::json("b", h, a, true), a.why,
          a.verdict != Verdict::NotJudged && a.verdict != Verdict::DoNotSwitchOn};
}

// Among what was left out of the file: the field itself, what it is part of, or what is part of it.
bool named(const Harness& h, const std::string& where) {
  const auto hash = "#" + where;
  return std::ranges::any_of(leftOut(h), [&](const Problem& p) {
    return p.where == hash || (p.where.size() > 1 && hash.starts_with(p.where + "/")) || p.where.starts_with(hash + "/");
  });
}

}  // namespace

TEST_CASE("the bench that says everything has every field of the schema, and meets it") {
  std::vector<Leaf> all;
  std::set<std::string> seen, wanted;
  leaves(schema(), everything(), "", all, seen, "");
  patterns(schema(), "", wanted);
  for (const auto& w : wanted) {
    INFO(w);
    CHECK((seen.contains(w) || w == "/parts/-"));
  }
  auto older = schema();  // what holds it knows draft 4 alone
  older["properties"]["program"]["items"]["properties"]["dutyCap"].erase("exclusiveMinimum");
  older["properties"]["sources"]["items"]["properties"]["pins"]["items"]["properties"]["scale"].erase("exclusiveMinimum");
  for (const auto& wrong : againstSchema(older.dump(), everything().dump())) FAIL_CHECK(wrong);
  const auto base = readHarness(everything().dump(), "b");
  REQUIRE(base);
  for (const auto& p : leftOut(base->harness)) FAIL_CHECK(text(p));
}

TEST_CASE("no field of a file is silent: filled in wrongly it is named, or it is as if it were not there") {
  const auto base = everything();
  const auto usual = saidOf(readHarness(base.dump(), "b")->harness);
  std::vector<Leaf> all;
  std::set<std::string> seen;
  leaves(schema(), base, "", all, seen, "");
  REQUIRE(all.size() > 80);
  int tried = 0;
  for (const auto& leaf : all) {
    const Json::json_pointer at(leaf.where);
    if (leaf.where == "/format") continue;
    std::optional<std::string> without;  // the report of the bench that lacks it, worked out once it is asked for
    for (const auto& [slip, what] : slips(base.at(at), leaf.schema)) {
      auto j = base;
      j[at] = slip;
      ++tried;
      const auto reading = readHarness(j.dump(), "b");
      if (!reading || named(reading->harness, leaf.where)) continue;  // refused, or named
      const auto now = saidOf(reading->harness);
      if (!now.judged && now.why != usual.why) continue;  // named where it is held against the bench
      if (!without) {
        auto less = base;
        if (less[at.parent_pointer()].is_object())
          less[at.parent_pointer()].erase(at.back());
        else
          less[at.parent_pointer()].erase(static_cast<std::size_t>(std::stoi(at.back())));
        const auto plain = readHarness(less.dump(), "b");
        without = plain ? saidOf(plain->harness).report : std::string("refused");
      }
      INFO(leaf.where << ": " << what << ": " << slip.dump().substr(0, 60));
      const bool asWithout = now.report == *without;
      CHECK(asWithout);
    }
  }
  CHECK(tried > 700);
}

TEST_CASE("quantities that no bench has are told with what one can have") {
  const auto said = [](const char* list, const char* entry) {
    auto j = parsedJson(readFile("demo/wave-tank.harness"));
    j.erase("parts");
    j[list].push_back(parsedJson(entry));
    const auto reading = readHarness(j.dump(), "b");
    REQUIRE(reading);
    const auto open = leftOut(reading->harness);
    REQUIRE(open.size() == 1);
    CHECK(analyseFast(reading->harness).verdict != Verdict::Clear);
    return open.front().what;
  };
  CHECK(said("program", R"({"id": "x", "motor": "pump", "pwm": "490 mHz"})") ==
        "\"pwm\" cannot be used: \"490 mHz\" is not from 1 Hz to 10 MHz.");
  CHECK(said("program", R"({"id": "x", "motor": "pump", "pwm": "0 Hz"})").find("1 Hz") != std::string::npos);
  CHECK(said("goals", R"({"id": "x", "motor": "pump", "rate": "1 uHz"})").find("is not from") != std::string::npos);
  CHECK(said("goals", R"({"id": "x", "motor": "pump", "forward": ""})") == "\"forward\" is empty.");
  CHECK(said("assignments", R"({"id": "x", "motor": "pump", "role": "in", "pin": "uno.D5", "numbering": ""})").find("it can be") !=
        std::string::npos);
  CHECK(said("connections", R"({"id": "x", "wire": ["psu.N", "s1.GND"], "colour": ""})").find("IEC 60757") != std::string::npos);
  CHECK(said("goals", R"({"id": "x", "motor": "pump", "stage": "s1", "channel": " "})") == "\"channel\" is empty.");
}

TEST_CASE("a list that a file has to have and has not is told in every format") {
  auto j = parsedJson(readFile("demo/wave-tank.harness"));
  j.erase("goals");
  const auto reading = readHarness(j.dump(), "b");
  REQUIRE(reading);
  const auto a = analyseFast(reading->harness);
  const std::string told = "the file has no \"goals\"";
  CHECK(report::text("b", reading->harness, a, {}).find(told) != std::string::npos);
  CHECK(parsedJson(report::json("b", reading->harness, a))["judged"]["assumptions"].dump().find("the file has no") != std::string::npos);
  CHECK(report::html("b", reading->harness, a).find("the file has no") != std::string::npos);
  CHECK(report::sarifEnd({{"b", std::string(headline(a.verdict)), a.why, a.assumptions, {}}}).find("the file has no") != std::string::npos);
  CHECK(report::junitSuite({"b", "", &a}).find("the file has no") != std::string::npos);
  // Nor a motor that nobody stated anything of.
  auto none = parsedJson(readFile("demo/wave-tank.harness"));
  none["goals"] = none["assignments"] = none["program"] = Json::array();
  const auto h = readHarness(none.dump(), "b")->harness;
  const auto b = analyseFast(h);
  REQUIRE_FALSE(b.unstated.empty());
  const auto& sentence = b.unstated.front().text;
  CHECK(report::text("b", h, b, {.width = 2000}).find(sentence) != std::string::npos);
  CHECK(report::json("b", h, b).find(sentence) != std::string::npos);
  CHECK(report::sarifEnd({{"b", "", b.why, b.assumptions, {}}}).find(sentence) != std::string::npos);
  CHECK(report::junitSuite({"b", "", &b}).find(sentence) != std::string::npos);
}
