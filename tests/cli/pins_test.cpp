#include <catch2/catch.hpp>
#include <fstream>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("pins places open signals, says why, writes them as planned; what clashes ends 1") {
  const auto text = run({"pins", kDemo});
  CHECK(text.code == 0);
  CHECK(text.out.find("Circulation pump\n  in       Controller D5  it has this pin already; PWM of TC0\n") != std::string::npos);
  CHECK(run({"pins", kDemo, "--why"}).out.find("D13    has no PWM\n") != std::string::npos);
  CHECK(run({"pins", kDemo, "--motor", "nobody"}).code == 2);
  CHECK(run({"pins", kDemo, "--motor", "Circulation pump"}).out.starts_with("Circulation pump\n"));

  // The pump's signal taken away, in the file itself.
  TemporaryFolder folder;
  auto j = parsedJson(readFile("demo/wave-tank.harness"));
  auto& wires = j["connections"];
  std::string torn;
  for (std::size_t k = 0; k < wires.size(); ++k)
    if (wires[k].contains("wire") && wires[k]["wire"].dump().find(".D5\"") != std::string::npos) {
      torn = wires[k]["wire"].dump();
      wires.erase(k--);
    }
  REQUIRE_FALSE(torn.empty());
  const auto open = folder.path() + "/open.harness";
  std::ofstream(open) << j.dump();
  const auto out = parsedJson(run({"pins", open, "--motor", "pump", "--format", "json", "--why"}).out);
  REQUIRE(out["signals"].size() == 1);
  CHECK(out["possible"] == true);
  CHECK(out["signals"][0]["pin"] == "uno.D5");  // where the program has it
  CHECK(out["signals"][0]["pwm"] == true);
  CHECK(out["signals"][0]["others"].size() == 19);
  const auto planned = folder.path() + "/planned.harness";
  CHECK(run({"pins", open, "--output", planned}).code == 0);
  CHECK(run({"pins", planned, "--motor", "pump"}).out.find("it has this pin already") != std::string::npos);
}
