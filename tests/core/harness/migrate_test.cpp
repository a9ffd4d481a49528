#include "core/harness/migrate.h"

#include <algorithm>
#include <catch2/catch.hpp>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/document_file.h"
#include "core/harness/intent.h"
#include "core/harness/left_out.h"
#include "core/harness/part_copies.h"
#include "core/harness/read_harness.h"
#include "core/report/report.h"
#include "support/bench_text.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

std::vector<std::filesystem::path> oldFiles() {
  std::vector<std::filesystem::path> out;
  for (const auto& f : std::filesystem::directory_iterator(std::string(BOLD_SOURCE_DIR) + "/tests/benches/format-1"))
    out.push_back(f.path());
  std::ranges::sort(out);
  return out;
}

Harness read(const std::string& text) {
  auto r = readHarness(text, "b");
  REQUIRE(r);
  return std::move(r->harness);
}

// A file of format 1 with these intents.
std::string old(const std::string& intents) {
  return R"({"format": 1,
  "devices": [ {"id":"m","part":"brushed-130-3v"} ], "connections": [],
  "intents": [)" +
         intents + "],\n  \"x-mine\": {\"a\":  1.50}\n}";
}

}  // namespace

TEST_CASE("every committed bench of format 1 is judged as its notation is") {
  int files = 0;
  for (const auto& path : oldFiles()) {
    INFO(path);
    const auto name = path.stem().string();
    const auto now = name.starts_with("wave-tank") ? wiredBench(readFile("demo/" + name + ".bench")) : good(name);
    Disk disk;
    auto loaded = load(disk, path.string());
    REQUIRE(loaded);
    const auto& h = loaded->harness;
    CHECK(loaded->problems.empty());
    CHECK(intentsOf(h) == intentsOf(now));
    const auto a = analyse(h, library());
    const auto b = analyse(now, library());
    CHECK(a.verdict == b.verdict);
    REQUIRE(a.findings.size() == b.findings.size());
    for (std::size_t i = 0; i < a.findings.size(); ++i) CHECK(a.findings[i].text == b.findings[i].text);
    ++files;
  }
  CHECK(files >= 10);
}

TEST_CASE("opening an old file writes nothing; saved after an edit it keeps what the edit and the format do not concern") {
  const TemporaryFolder folder;
  Disk disk;
  const auto text = readFile("tests/benches/format-1/bridge.harness");
  const auto path = folder.write("old.harness", text);
  auto loaded = load(disk, path);
  REQUIRE(loaded);
  CHECK(*disk.read(path) == text);
  auto h = loaded->harness;
  apply(h, {"", {SetTitle{"anew"}}});
  const auto saved = writeHarness(h);
  const auto devices = [](const std::string& t) { return t.substr(t.find("\"devices\""), t.find("\"intents\"") - t.find("\"devices\"")); };
  const auto before = devices(text);
  CHECK(saved.find(before.substr(0, before.rfind(']'))) != std::string::npos);  // devices and connections, to the byte
  CHECK(saved.find("\"format\": 2") != std::string::npos);
  CHECK(saved.find("\"intents\"") == std::string::npos);
  CHECK(intentsOf(read(saved)) == intentsOf(h));
  CHECK(writeHarness(read(saved)) == saved);
}

TEST_CASE("an intent is taken apart into a goal, its pins and what the program does, and remarks stay") {
  const auto h = read(old(R"({"id": "i", "motor": "m", "directions": "both", "speed": true, "pwm": "490 Hz", "dutyCap": 0.8, "note": "mind",
     "stage": "s1", "signals": [{"role": "in1", "pin": "u.D5", "active": "high"}, { "pin":"u.D6", "role":"in2", "numbering": "chip" }]})"));
  REQUIRE(h.goals.size() == 1);
  CHECK(h.goals[0].id == "i");
  CHECK(h.goals[0].bothDirections == true);
  CHECK_FALSE(h.goals[0].hold);
  REQUIRE(h.assignments.size() == 2);
  CHECK(h.assignments[0].id == "i-in1");
  CHECK(h.assignments[0].active == Active::High);
  CHECK(h.assignments[1].active == Active::Unsaid);
  CHECK(h.assignments[1].numbering == "chip");
  REQUIRE(h.program.size() == 1);
  CHECK(h.program[0].id == "i-program");
  CHECK(h.program[0].pwm->value == 490);
  CHECK(h.program[0].dutyCap == 0.8);
  CHECK(leftOut(h).empty());
  const auto text = writeHarness(h);
  CHECK(text.find(R"("note": "mind")") != std::string::npos);
  CHECK(text.find(R"("x-mine": {"a":  1.50})") != std::string::npos);
  CHECK(text.find(R"({"id":"m","part":"brushed-130-3v"})") != std::string::npos);
}

TEST_CASE("what could not be used of an old intent cannot be used of its parts, is named and stays") {
  const auto problems = [](const std::string& intents) {
    const auto h = read(old(intents));
    std::string out;
    for (const auto& p : leftOut(h)) out += p.where + " " + p.what + "\n";
    CHECK_FALSE(analyseFast(h).verdict == Verdict::Clear);
    CHECK(writeHarness(read(writeHarness(h))) == writeHarness(h));
    return out;
  };
  using Catch::Contains;
  CHECK_THAT(problems("7"), Contains("#/goals/0"));
  CHECK_THAT(problems(R"({"motor": "m", "signals": []})"), Contains("\"id\" is missing"));
  CHECK_THAT(problems(R"({"id": "m", "motor": "m"})"), Contains("The id \"m\" is used twice"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "signals": [3]})"), Contains("#/assignments/0"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "signals": [{"role": "in"}]})"), Contains("\"pin\" is missing"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "signals": [{}]})"), Contains("\"role\" is missing"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "signals": "none"})"), Contains("\"signals\" is nothing"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "pwm": 490})"), Contains("#/program/0/pwm"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "spede": true})"), Contains("\"spede\" is nothing"));
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "speed": true, "speed": false})"), Contains("appears twice"));
  // What stood there twice is not lost with the first.
  CHECK_THAT(problems(R"({"id": "i", "motor": "m", "pwm": "490 Hz", "pwm": "20 kHz"})"), Contains("\"pwm\" is nothing"));
  CHECK_THAT(problems(R"({"id": "i", "signals": [], "motor": "m", "signals": [7]})"), Contains("\"signals\" is nothing"));
  const auto twice = writeHarness(read(old(R"({"id": "i", "motor": "m", "pwm": "490 Hz", "pwm": "20 kHz"})")));
  CHECK(twice.find("490 Hz") != std::string::npos);
  CHECK(twice.find("20 kHz") != std::string::npos);
}

TEST_CASE("ids that are made stay free of all that are there") {
  const auto h = read(old(R"({"id": "i", "motor": "m", "signals": [{"role": "in", "pin": "u.D5"}, {"role": "in", "pin": "u.D6"}]},
    {"id": "i-in", "motor": "m"})"));
  CHECK(h.goals.size() == 2);
  CHECK(h.assignments.size() == 2);
  CHECK(h.ids().size() == 1 + 2 + 2);
  // The same role twice was left out before; it is a disagreement now.
  CHECK(disagreements(h).size() == 1);
  CHECK(analyseFast(h).verdict != Verdict::Clear);
  CHECK(std::ranges::count(analyseFast(h).why, disagreements(h)[0].what) == 1);
}

TEST_CASE("an old file whose intents are no list is refused") {
  const auto r = readHarness(R"({"format": 1, "devices": [], "connections": [], "intents": 3})", "b");
  REQUIRE_FALSE(r);
  CHECK(text(r.error()) == "b#/intents: \"intents\" is not a list.");
}
