#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/json.h"
#include "core/checks/check.h"
#include "support/benches.h"
#include "support/process.h"
#include "support/schema.h"

using namespace bold;
using namespace bold::test;

namespace {

int countOf(const std::string& text, const std::string& what) {
  int n = 0;
  for (auto at = text.find(what); at != std::string::npos; at = text.find(what, at + 1)) ++n;
  return n;
}

// Whether every opened element is closed in order; enough of XML for what is written here.
bool balanced(const std::string& xml) {
  std::vector<std::string> open;
  for (std::size_t at = xml.find('<'); at != std::string::npos; at = xml.find('<', at + 1)) {
    const auto end = xml.find('>', at);
    if (end == std::string::npos) return false;
    auto tag = xml.substr(at + 1, end - at - 1);
    if (tag.starts_with("?") || tag.ends_with("/")) continue;
    const auto name = tag.substr(tag.starts_with("/"), tag.find_first_of(" >", 1) - tag.starts_with("/"));
    if (!tag.starts_with("/")) {
      open.push_back(name);
    } else {
      if (open.empty() || open.back() != name) return false;
      open.pop_back();
    }
  }
  return open.empty();
}
}  // namespace

TEST_CASE("SARIF holds one log with every rule, and a result for every finding at its line") {
  const auto r = run({"check", "--format", "sarif", kDemo, kFirstTry});
  CHECK(r.code == 1);
  const auto j = parsedJson(r.out);
  CHECK(j["version"] == "2.1.0");
  REQUIRE(j["runs"].size() == 1);
  const auto& one = j["runs"][0];
  const auto& rules = one["tool"]["driver"]["rules"];
  CHECK(rules.size() == checks::registry().size());
  std::set<std::string> ids;
  for (const auto& rule : rules) ids.insert(rule["id"].get<std::string>());

  const auto first = parsedJson(run({"check", "--format", "json", kFirstTry}).out);
  const auto second = parsedJson(run({"check", "--format", "json", kDemo}).out);
  CHECK(one["results"].size() == first["findings"].size() + second["findings"].size());
  const auto source = readFile("demo/wave-tank-first-try.harness");
  for (const auto& result : one["results"]) {
    CHECK(ids.contains(result["ruleId"].get<std::string>()));
    CHECK(std::set<std::string>{"error", "warning", "note"}.contains(result["level"].get<std::string>()));
    CHECK_FALSE(result["message"]["text"].get<std::string>().empty());
    REQUIRE(result["locations"].size() == 1);
    const auto& place = result["locations"][0];
    const auto uri = place["physicalLocation"]["artifactLocation"]["uri"].get<std::string>();
    CHECK((uri == kDemo || uri == kFirstTry));
    if (uri != kFirstTry || !place["physicalLocation"].contains("region")) continue;
    // The line named is the one on which the first subject stands.
    const int line = place["physicalLocation"]["region"]["startLine"].get<int>();
    std::size_t at = 0;
    for (int k = 1; k < line; ++k) at = source.find('\n', at) + 1;
    const auto subject = place["logicalLocations"][0]["fullyQualifiedName"].get<std::string>();
    CHECK(source.substr(at, source.find('\n', at) - at).find(subject.substr(0, subject.find('.'))) != std::string::npos);
  }
  CHECK(one["properties"]["verdicts"][kDemo] == "Clear to switch on");
}

TEST_CASE("a stop is an error in SARIF, a caution a warning") {
  const auto plain = parsedJson(run({"check", "--format", "json", kFirstTry}).out);
  const auto sarif = parsedJson(run({"check", "--format", "sarif", kFirstTry}).out);
  const auto level = [&](const std::string& identity) -> std::string {
    for (const auto& r : sarif["runs"][0]["results"])
      if (r["partialFingerprints"]["boldHarnessIdentity/v1"] == identity) return r["level"];
    return "none";
  };
  REQUIRE_FALSE(plain["findings"].empty());
  for (const auto& f : plain["findings"]) {
    const auto want = f["severity"] == "stop"      ? "error"
                      : f["severity"] == "caution" ? "warning"
                      : f["severity"] == "note"    ? "note"
                                                   : "error";
    CHECK(level(f["identity"]) == want);
  }
}

TEST_CASE("JUnit holds a suite a bench and a case a check; its failures are the checks with stops") {
  const auto r = run({"check", "--format", "junit", kDemo, kFirstTry});
  CHECK(r.code == 1);
  CHECK(balanced(r.out));
  CHECK(countOf(r.out, "<testsuite ") == 2);
  CHECK(countOf(r.out, "<testcase ") == 2 * static_cast<int>(checks::registry().size() + 1));
  std::set<std::string> failing;
  const auto j = parsedJson(run({"check", "--format", "json", kFirstTry}).out);
  int stops = 0;
  for (const auto& f : j["findings"])
    if (f["severity"] == "stop") {
      failing.insert(f["check"]);
      ++stops;
    }
  CHECK(countOf(r.out, "<failure ") == stops);
  CHECK(r.out.find("failures=\"0\"") != std::string::npos);
  CHECK(r.out.find("failures=\"" + std::to_string(failing.size()) + "\"") != std::string::npos);
}

TEST_CASE("a bench that is not judged fails its own case in JUnit, with the reason") {
  const TemporaryFolder folder;
  const auto path =
      folder.write("b.harness", R"({"format": 2, "devices": [{"id": "x", "part": "a<b&\"c"}], "connections": [], "goals": []})");
  const auto r = run({"check", "--format", "junit", path});
  CHECK(r.code == 1);
  CHECK(balanced(r.out));
  CHECK(r.out.find("<failure type=\"not judged\"") != std::string::npos);
  CHECK(r.out.find("a&lt;b&amp;&quot;c") != std::string::npos);
}

TEST_CASE("a broken file among good ones ends 2 and leaves the log whole") {
  const TemporaryFolder folder;
  const auto broken = folder.write("broken.harness", "{");
  const auto r = run({"check", "--format", "sarif", broken, kDemo});
  CHECK(r.code == 2);
  CHECK(r.err.find("broken.harness") != std::string::npos);
  CHECK(parsedJson(r.out)["runs"][0]["artifacts"].size() == 2);  // the broken one is named too
}

TEST_CASE("SARIF and JUnit name files that cannot be read and what was left out, with escaped names") {
  const TemporaryFolder folder;
  const auto broken = folder.write("a b%&<.harness", "{");
  const auto doubtful = folder.write("doubtful.harness", R"({"format": 2, "devices": [], "connections": [7], "goals": []})");
  const auto sarif = run({"check", "--format", "sarif", broken, doubtful});
  CHECK(sarif.code == 2);
  const auto one = parsedJson(sarif.out)["runs"][0];
  const auto& invocation = one["invocations"][0];
  CHECK(invocation["executionSuccessful"] == false);
  const auto& told = invocation["toolExecutionNotifications"];
  REQUIRE(std::ranges::count_if(told, [](const auto& n) { return n["level"] == "error"; }) == 2);
  const auto& first = invocation["toolExecutionNotifications"][0];
  CHECK(first["message"]["text"].get<std::string>().find("is not whole JSON") != std::string::npos);
  const auto uri = first["locations"][0]["physicalLocation"]["artifactLocation"]["uri"].get<std::string>();
  CHECK(uri.ends_with("/a%20b%25%26%3C.harness"));
  CHECK(invocation["toolExecutionNotifications"][1]["locations"][0]["logicalLocations"][0]["fullyQualifiedName"] == "#/connections/0");
  CHECK(one["properties"]["verdicts"][doubtful] == "Not judged");

  const auto junit = run({"check", "--format", "junit", broken, doubtful});
  CHECK(junit.code == 2);
  CHECK(balanced(junit.out));
  CHECK(countOf(junit.out, "<error ") == 1);
  CHECK(junit.out.find("a b%&amp;&lt;.harness") != std::string::npos);
  CHECK(junit.out.find("left out of #/connections/0") != std::string::npos);
}

TEST_CASE("many benches are judged as each alone, in their order") {
  std::vector<std::string> files{kFirstTry};
  for (int n = 0; n < 20; ++n) files.push_back(n % 3 == 0 ? kFirstTry : kDemo);
  auto arguments = files;
  arguments.insert(arguments.begin(), {"check", "--format", "json"});
  std::string apart;
  for (const auto& f : files) apart += run({"check", "--format", "json", f}).out;
  CHECK(run(arguments).out == apart);
}

TEST_CASE("what is written as SARIF meets the published schema") {
  const auto schema = readFile("tests/data/sarif-2.1.0.schema.json");
  const auto meets = [&](const bold::Json& log) {
    const auto problems = againstSchema(schema, log.dump());
    for (const auto& p : problems) UNSCOPED_INFO(p);
    return problems.empty();
  };
  const TemporaryFolder folder;
  const auto broken = folder.write("a b.harness", "{");
  const auto doubtful = folder.write("doubtful.harness", R"({"format": 2, "devices": [], "connections": [7], "goals": []})");
  for (const auto& files : {std::vector<std::string>{kDemo, kFirstTry, broken, doubtful}, {kDemo}, {broken}}) {
    auto arguments = files;
    arguments.insert(arguments.begin(), {"check", "--format", "sarif"});
    auto log = parsedJson(run(arguments).out);
    CHECK(meets(log));
    log["runs"][0]["results"].push_back({{"level", "grave"}});
    CHECK_FALSE(meets(log));  // the schema does look
  }
}
