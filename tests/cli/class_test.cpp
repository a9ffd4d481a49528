#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("class: twelve benches against the reference, one command") {
  const TemporaryFolder folder;
  const auto demo = readFile("demo/wave-tank.bench");
  std::vector<std::string> arguments{"class", kDemo};
  for (int k = 1; k <= 12; ++k) {
    std::string text = demo;
    if (k == 3) text += "\nunwire uno.D8 s1.IN1\nwire uno.D10 s1.IN1 GN\n";
    if (k == 7) text += "\nunwire s1.OUT1 paddle.P\n";
    arguments.push_back(folder.write("bench-" + std::to_string(k) + ".harness", harness::writeHarness(wiredBench(text))));
  }
  const auto text = run(arguments);
  CHECK(text.code == 1);
  CHECK(text.out.find("bench-1.harness: Clear to switch on; 0 things apart from the reference, 0 found that are not there") !=
        std::string::npos);
  CHECK(text.out.find("bench-7.harness: Do not switch on") != std::string::npos);
  arguments.insert(arguments.end(), {"--format", "json"});
  const auto j = parsedJson(run(arguments).out);
  REQUIRE(j.size() == 12);
  for (int k = 0; k < 12; ++k) {
    const bool wrong = k == 2 || k == 6;
    INFO(k + 1);
    CHECK(j[k]["changes"].empty() == !wrong);
    CHECK((j[k]["verdict"] == "Clear to switch on") == !wrong);
    CHECK(j[k]["wires"].get<int>() - j[k]["left"].get<int>() == 0);
  }
  arguments.back() = "csv";
  const auto csv = run(arguments).out;
  CHECK(std::ranges::count(csv, '\n') == 13);
}

TEST_CASE("class: what each bench's people marked is no difference, and a wire entered anew under another id neither") {
  const TemporaryFolder folder;
  auto h = harness::readHarness(readFile("demo/wave-tank.harness"), "b")->harness;
  for (auto& c : h.connections)
    if (c.id == "w4" || c.id == "w5") {
      c.id = c.id == "w4" ? "w5" : "w4";
      c.raw = nullptr;
      std::swap(c.a, c.b);
    } else if (c.id == "w6") {
      c.id = "w99";
      c.raw = nullptr;
    }
  h.marks.push_back({"mark1", "w5", harness::Marked::Seen, "0123456789abcdef", "AB", {}, {}, {}, nullptr});
  const auto file = folder.write("own.harness", harness::writeHarness(h));
  const auto ran = run({"class", kDemo, file});
  CHECK(ran.code == 0);
  CHECK(ran.out.find("0 things apart") != std::string::npos);
  CHECK(run({"class", kDemo, "/no/such/bench"}).code == 2);
  CHECK(run({"class", "/no/such/bench", kDemo}).code == 2);
}
