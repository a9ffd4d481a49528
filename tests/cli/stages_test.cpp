#include <catch2/catch.hpp>
#include <map>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("stages lists what can drive a motor, best first, as text and as JSON; choose plans one and writes it") {
  const auto text = run({"stages", kDemo, "Circulation pump"});
  CHECK(text.code == 0);
  CHECK(text.out.starts_with("Stages for Circulation pump, best first:\n"));
  CHECK(text.out.find("more cannot drive it; --all says why.") != std::string::npos);
  CHECK(run({"stages", kDemo, "pump", "--all"}).out.find("has no channel for Circulation pump") != std::string::npos);

  const auto j = parsedJson(run({"stages", kDemo, "pump", "--format", "json"}).out);
  CHECK(j["motor"] == "pump");
  bool excluded = false;
  std::size_t last = 0;
  const std::map<std::string, std::size_t> rank{{"Clear to switch on", 0}, {"Look again", 1}, {"Do not switch on", 2}};
  for (const auto& c : j["candidates"]) {
    if (c.contains("excluded")) {
      excluded = true;
      continue;
    }
    CHECK_FALSE(excluded);  // they come last
    const auto now = rank.at(c["verdict"].get<std::string>());
    CHECK(now >= last);
    last = now;
    CHECK(c["against"].empty() == (now == 0));
    CHECK(c["pins"].get<int>() >= 1);
  }
  CHECK(excluded);

  TemporaryFolder folder;
  const auto planned = folder.path() + "/planned.harness";
  const auto put = run({"choose", kDemo, "Sluice gate", "drv8871-board", "--output", planned});
  CHECK(put.code == 0);
  CHECK(put.out.find("As planned: Clear to switch on\n") != std::string::npos);
  CHECK(run({"check", planned}).out.find(" changes") != std::string::npos);
  CHECK(run({"choose", kDemo, "pump", "drv8833-board"}).code == 1);  // 12 V is too much for it
  const auto wrong = run({"choose", kDemo, "pump", "no-such-stage"});
  CHECK(wrong.code == 2);
  CHECK(wrong.err == "boldh: There is no part \"no-such-stage\".\n");
  CHECK(run({"stages", kDemo, "nobody"}).code == 2);
}
