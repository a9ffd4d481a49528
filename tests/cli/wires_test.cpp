#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("wires: both ends, where they are, what to measure; filtered and grouped") {
  const auto all = run({"wires", kDemo});
  CHECK(all.code == 0);
  CHECK(all.out.starts_with("S1\n  [ ] w1    RD    12 V adapter + – S1 +12V\n"));
  CHECK(all.out.find("Controller D9: digital 13-8, right, 2nd from the bottom") != std::string::npos);
  CHECK(all.out.find("with the power on: 11.8 V to 12.6 V\n") != std::string::npos);
  CHECK(all.out.ends_with("41 of 41 still to be looked at.\n"));
  const auto gate = run({"wires", kDemo, "--only", "sluice motor", "--by", "motor"}).out;
  CHECK(gate.starts_with("Sluice gate\n  [ ] w16"));
  CHECK(gate.ends_with("2 of 2 still to be looked at.\n"));
  const auto j = parsedJson(run({"wires", kDemo, "--only", "ground", "--format", "json"}).out);
  CHECK(j["left"].get<int>() > 5);
  for (const auto& g : j["groups"])
    for (const auto& w : g["wires"]) {
      CHECK(w["carries"] == "ground");
      CHECK(w["ends"].size() == 2);
      CHECK(w["complete"] == false);
    }
  CHECK(run({"wires", "/no/such/bench"}).code == 2);
  CHECK(run({"wires", kDemo, "--by", "colour"}).code == 2);
}

TEST_CASE("wires: a list is taken, each line that cannot be used is said, and the rest is written") {
  const TemporaryFolder folder;
  const auto list = folder.write("list.csv", "from,to,colour\nuno.D12,s2.MS1,YE\nuno.D13,nowhere,YE\n");
  const auto ran = run({"wires", kDemo, "--take", list, "--output", folder.path("out.harness")});
  CHECK(ran.code == 1);
  CHECK(ran.out == "new: Controller D12 – S2 MS1\nWritten to " + folder.path("out.harness") + ".\n");
  CHECK(ran.err.find("list.csv: line 3: \"nowhere\" is no terminal on this bench") != std::string::npos);
  const auto diff = run({"diff", kDemo, folder.path("out.harness")});
  CHECK(diff.out.find("the wire uno.D12 – s2.MS1 is new\n") != std::string::npos);
  CHECK(run({"wires", kDemo, "--take", "/no/such/list"}).code == 2);
}
