#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

namespace {
bold::Json solvedJson(const std::vector<std::string>& more) {
  std::vector<std::string> arguments{"solve", "--format", "json", kDemo};
  arguments.insert(arguments.end(), more.begin(), more.end());
  const auto r = run(arguments);
  CHECK(r.code == 0);
  return parsedJson(r.out);
}
}  // namespace

TEST_CASE("solve prints what a command does, in words and figures") {
  const auto r = run({"solve", kDemo, "--command", "Wave paddle forward", "--supply", "full"});
  CHECK(r.code == 0);
  CHECK(r.out.find("Wave paddle forward, supplies full\n") == 0);
  CHECK(r.out.find("runs forward") != std::string::npos);
  CHECK(r.out.find("supplies empty") == std::string::npos);
}

TEST_CASE("solve says where a stage takes its own supply away") {
  const TemporaryFolder folder;
  const auto path = folder.write("large.harness", harness::writeHarness(wiredBench("from drv8871\nswap m brushed-775-12v")));
  const auto r = run({"solve", path, "--command", "Gate forward", "--supply", "nominal"});
  CHECK(r.code == 0);
  CHECK(r.out.find("  a stage goes off and on, for want of supply: shown while it is on\n") != std::string::npos);
  CHECK(run({"solve", kDemo, "--command", "Wave paddle forward"}).out.find("goes off and on") == std::string::npos);
}

TEST_CASE("solve without a command holds every command at each of its supply states") {
  const auto all = solvedJson({});
  std::map<std::string, int> states;
  for (const auto& p : all["points"]) {
    CHECK(p["solved"] == true);
    ++states[p["command"].get<std::string>()];
  }
  CHECK(states.contains("Wave paddle forward"));
  CHECK(states["Wave paddle forward"] == 4);
  int one = 0;
  const auto only = solvedJson({"--command", "Wave paddle forward"});
  for (const auto& p : only["points"]) one += p["command"] == "Wave paddle forward";
  CHECK(one == 4);
}

TEST_CASE("what solve prints obeys Kirchhoff at a two-wire motor") {
  const auto j = solvedJson({"--command", "Wave paddle forward", "--supply", "full"});
  REQUIRE(j["points"].size() == 1);
  const auto& p = j["points"][0];
  double into = 0;
  double sum = 0;
  for (const auto& w : p["wires"]) {
    const double i = w["current"]["value"];
    const auto from = w["from"].get<std::string>();
    const auto to = w["to"].get<std::string>();
    const double enters = to.starts_with("paddle.") ? i : from.starts_with("paddle.") ? -i : 0;
    sum += enters;
    into = std::max(into, std::abs(enters));
  }
  CHECK(into > 0.05);
  CHECK(std::abs(sum) < 1e-9 * into);
}

TEST_CASE("an unknown command is named, with those that there are, and ends 2") {
  const auto r = run({"solve", kDemo, "--command", "paddle sideways"});
  CHECK(r.code == 2);
  CHECK(r.out.empty());
  CHECK(r.err.find("This bench has no command \"paddle sideways\". It has:\n") != std::string::npos);
  CHECK(r.err.find("  Wave paddle forward\n") != std::string::npos);
}
