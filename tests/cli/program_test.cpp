#include <algorithm>
#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;
using json = bold::Json;

namespace {

const std::string kGood = std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank.ino";
const std::string kFaulty = std::string(BOLD_SOURCE_DIR) + "/demo/wave-tank-first-try.ino";

// A bench and its program in one folder.
struct Course {
  TemporaryFolder folder;
  std::string bench = folder.write("tank.harness", readFile("demo/wave-tank.harness"));
  std::string source;
  explicit Course(const std::string& from) : source(folder.write("src/tank.ino", readFile(from))) {}
};

}  // namespace

TEST_CASE("program: a good one agrees with the wires and ends 0, a faulty one ends 1 with disagreements first") {
  const auto good = run({"program", kDemo, kGood});
  CHECK(good.code == 0);
  CHECK(good.out.find("could be told.") != std::string::npos);
  CHECK(good.out.find("The program and the wires agree") != std::string::npos);
  CHECK(good.out.find("\n!") == std::string::npos);
  const auto faulty = run({"program", kDemo, kFaulty});
  CHECK(faulty.code == 1);
  CHECK(faulty.out.find("! D10  10 (PADDLE_ENABLE): PWM up to 78 %  not wired\n! D9   never named") != std::string::npos);
  CHECK(faulty.out.find("wave-tank-first-try.ino, line 4.") != std::string::npos);
  CHECK(faulty.out.find("Do not switch on:") != std::string::npos);
  CHECK(faulty.out.rfind("! D") < faulty.out.find("  A0 "));
}

TEST_CASE("program: the same as JSON, and as SARIF with the place in the source") {
  Course c("demo/wave-tank-first-try.ino");
  const auto j = bold::parsedJson(run({"program", c.bench, c.source, "--format", "json"}).out);
  CHECK(j["controller"] == "uno");
  CHECK(j["files"] == json::array({"src/tank.ino"}));
  CHECK(j["told"] == j["asked"]);
  CHECK(j["pins"][0]["disagrees"] == true);
  std::set<std::string> ids;
  for (const auto& f : j["findings"]) ids.insert(f["check"]);
  CHECK(j["agreement"] ==
        "The program and the wires agree for Circulation pump; they disagree for Wave paddle, Sluice gate, Sand carriage.");
  CHECK(ids == std::set<std::string>{"program-pin-slip", "program-enable-inverted", "program-duty-scale", "program-step-timing",
                                     "program-goal-unserved", "program-pin-unwired", "pwm-frequency"});  // whatever the verdict counts
  CHECK(j["otherFindings"] == 1);
  const auto sarif = bold::parsedJson(run({"program", c.bench, c.source, "--format", "sarif"}).out);
  const auto& r = sarif["runs"][0];
  CHECK(r["columnKind"] == "unicodeCodePoints");
  REQUIRE(r["results"].size() == j["findings"].size());
  const auto slip = std::ranges::find_if(r["results"], [](const json& x) { return x["ruleId"] == "program-pin-slip"; });
  const auto& at = (*slip)["locations"][0]["physicalLocation"];
  CHECK(at["artifactLocation"]["uri"] == c.folder.path("src/tank.ino"));
  CHECK(at["region"] == json{{"startLine", 4}, {"startColumn", 27}, {"endColumn", 29}});
  CHECK((*slip)["relatedLocations"].size() == 1);
}

TEST_CASE("program: what was read is kept in the bench, and a source that is gone or changed keeps it from being judged") {
  Course c("demo/wave-tank.ino");
  const auto out = c.folder.path("with.harness");
  REQUIRE(run({"program", c.bench, c.source, "--output", out}).code == 0);
  CHECK(run({"check", out}).code == 0);
  const auto kept = bold::parsedJson(readFile("demo/wave-tank.harness"));
  CHECK_FALSE(kept.contains("sources"));
  (void)c.folder.write("src/tank.ino", readFile("demo/wave-tank.ino") + "// changed\n");
  const auto changed = run({"check", out});
  CHECK(changed.code == 1);
  CHECK(changed.out.find("Not judged") != std::string::npos);
  CHECK(changed.out.find("the program's source src/tank.ino was changed since it was read") != std::string::npos);
  REQUIRE(std::remove(c.source.c_str()) == 0);
  CHECK(run({"check", out}).out.find("src/tank.ino is not there") != std::string::npos);
  // Read again, it is judged again.
  (void)c.folder.write("src/tank.ino", readFile("demo/wave-tank.ino"));
  CHECK(run({"check", out}).code == 0);
}

TEST_CASE("program: what cannot be used is said in one sentence") {
  const auto none = run({"program", kDemo, "/no/such/source.ino"});
  CHECK(none.code == 2);
  CHECK(none.err.find("/no/such/source.ino") != std::string::npos);
  CHECK(run({"program", "/no/such/bench", kGood}).code == 2);
  const auto motor = run({"program", kDemo, kGood, "--controller", "paddle"});
  CHECK(motor.code == 2);
  CHECK(motor.err.find("has no pins that a program drives") != std::string::npos);
  CHECK(run({"program", kDemo}).code == 2);
  const TemporaryFolder folder;
  const auto empty = folder.write("empty.harness", R"({"format": 2, "devices": [], "connections": [], "goals": []})");
  CHECK(run({"program", empty, kGood}).err.find("nothing on the bench runs a program") != std::string::npos);
}

TEST_CASE("program: one that names no pin drives nothing, and one that refuses the board is said to") {
  const TemporaryFolder folder;
  const auto empty = folder.write("quiet.ino", "void setup() { Serial.begin(9600); }\nvoid loop() { Serial.println(1); }\n");
  const auto quiet = run({"program", kDemo, empty});
  CHECK(quiet.code == 0);  // nothing breaks, and nothing turns
  CHECK(quiet.out.find("Look again") != std::string::npos);
  CHECK(quiet.out.find("0 of 0 places") != std::string::npos);
  CHECK(quiet.out.find("agree") == std::string::npos);
  const auto bare = folder.write(
      "bare.harness",
      R"({"format": 2, "title": "Bare", "devices": [{"id": "uno", "part": "board-uno-atmega328p"}], "connections": [], "goals": []})");
  const auto nothing = run({"program", bare, empty}).out;
  CHECK(nothing.find("No pin of the board was found in the program.") != std::string::npos);
  CHECK(nothing.find("agree") == std::string::npos);
  const auto other = folder.write("other.ino", "#ifndef ESP32\n#error \"for the ESP32 only\"\n#endif\n" + readFile("demo/wave-tank.ino"));
  const auto refused = run({"program", kDemo, other});
  CHECK(refused.code == 0);
  CHECK(run({"program", kDemo, folder.write("lamp.ino", "#include <Tide.h>\nvoid setup() { Tide.begin(); }\nvoid loop() {}\n")})
            .out.find("program-open-effect") != std::string::npos);
  CHECK(refused.out.find("Not told:\n  ") != std::string::npos);
  CHECK(refused.out.find("other.ino:2:1: the program says of itself that it is not for this board") != std::string::npos);
  CHECK(refused.out.find("Look again") != std::string::npos);
}
