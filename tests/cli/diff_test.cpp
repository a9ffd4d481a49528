#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("diff: the same, different, unusable; what changed, what is said now and what no more, margins that moved") {
  const auto same = run({"diff", kDemo, kDemo});
  CHECK(same.code == 0);
  CHECK(same.out == "They say the same.\n");
  CHECK(run({"diff", kDemo, "/no/such/file"}).code == 2);

  // One wire of the demo taken away, one moved, a motor that draws more.
  TemporaryFolder folder;
  const auto file = [&](const char* name, const std::string& text) { return folder.write(name, harness::writeHarness(wiredBench(text))); };
  const auto demo = readFile("demo/wave-tank.bench");
  const auto one = file("one.harness", demo);
  const auto other = file("other.harness", demo + "\nunwire uno.D8 s1.IN1\nfigure paddle.winding 3 ohm\n");
  const auto text = run({"diff", one, other});
  CHECK(text.code == 1);
  CHECK(text.out.starts_with("Before: Clear to switch on\nNow:    Do not switch on\n"));
  CHECK(text.out.find(" is gone\n") != std::string::npos);
  CHECK(text.out.find("Wave paddle (brushed-gear25-12v) is changed: winding 3 ohm, was 6.2 ohm\n") != std::string::npos);
  CHECK(text.out.find("Said now, and not before\n") != std::string::npos);
  // Its winding alone: more current, nothing gone.
  const auto stronger = file("stronger.harness", demo + "\nfigure paddle.winding 3 ohm\n");
  const auto nearer = run({"diff", one, stronger});
  CHECK(nearer.code == 1);
  CHECK(nearer.out.find("Nearer to its limit\n  ") != std::string::npos);
  CHECK(nearer.out.find("stall current of Wave paddle") != std::string::npos);
  const auto j = parsedJson(run({"diff", one, other, "--format", "json"}).out);
  CHECK(j["same"] == false);
  CHECK(j["changes"].size() == 2);
  CHECK(j["new"].size() >= 1);
  CHECK(j["gone"].empty());
  for (const auto& s : j["worse"]) CHECK(s["after"].get<double>() > s["before"].get<double>());
  // The other way round what is new is gone.
  const auto back = parsedJson(run({"diff", other, one, "--format", "json"}).out);
  CHECK(back["gone"] == j["new"]);
  CHECK(back["new"] == j["gone"]);
  CHECK(back["better"].size() == j["worse"].size());
}
