#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <nlohmann/json.hpp>

#include "core/checks/analysis.h"
#include "core/harness/edit.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/generate.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

Reading read(std::string_view text) {
  auto r = readHarness(text, "b");
  REQUIRE(r);
  return std::move(*r);
}
std::vector<std::string> problems(std::string_view text) {
  std::vector<std::string> out;
  for (const auto& p : read(text).problems) out.push_back(bold::text(p));
  return out;
}
std::string refused(std::string_view text) {
  const auto r = readHarness(text, "b");
  return r ? std::string("it was read") : bold::text(r.error());
}
std::string documentWith(const std::string& devices, const std::string& connections) {
  return R"({"format": 2, "devices": [)" + devices + R"(], "connections": [)" + connections + R"(], "goals": []})";
}

}  // namespace

TEST_CASE("loading, saving and loading again gives the same document and the same bytes") {
  for (const auto& name : goodNames()) {
    const auto once = writeHarness(good(name));
    const auto twice = writeHarness(read(once).harness);
    CHECK(once == twice);
  }
  rc::prop("generated benches", [] {
    const auto h = *generatedBench();
    const auto once = writeHarness(h);
    const auto again = readHarness(once, "b");
    RC_ASSERT(again.has_value());
    RC_ASSERT(again->problems.empty());
    RC_ASSERT(writeHarness(again->harness) == once);
    RC_ASSERT(again->harness.connections.size() == h.connections.size());
  });
}

TEST_CASE("unknown fields survive where they stood") {
  const std::string text = R"({"format": 2, "lab": "north", "devices": [{"id": "r", "shelf": 3, "part": "resistor"}],
    "connections": [], "goals": [], "notes": {"a": [1, 2]}})";
  auto h = read(text).harness;
  CHECK(writeHarness(h) == text);
  h.devices[0].name = "R";
  const auto out = writeHarness(h);
  CHECK(out.find("\"lab\": \"north\"") < out.find("\"devices\""));
  CHECK(out.find(R"({"id": "r", "shelf": 3, "part": "resistor", "name": "R"})") != std::string::npos);
  CHECK(out.find("\"notes\": {\"a\": [1, 2]}") != std::string::npos);
}

TEST_CASE("files that cannot be used are refused with one sentence") {
  CHECK(refused("") == "b: The file is empty.");
  CHECK(refused("not json") == "b: The file is not whole JSON: it stops making sense at line 1, column 2.");
  CHECK(refused(R"({"format": 2, "devices": [)") == "b: The file is not whole JSON: it ends too early at line 1, column 27.");
  CHECK(refused("[1, 2]") == "b: The file is JSON, but not a bench: it has no whole number \"format\".");
  CHECK(refused(R"({"format": "x"})") == "b: The file is JSON, but not a bench: it has no whole number \"format\".");
  CHECK(refused(R"({"format": 0})") == "b#/format: The file says bench format 0, which never existed.");
}

TEST_CASE("a newer format is read as far as it goes and marked") {
  const auto r = read(R"({"format": 99, "devices": [], "connections": [], "goals": []})");
  CHECK(r.harness.newerFormat);
  REQUIRE(r.problems.size() == 1);
  CHECK(bold::text(r.problems[0]) ==
        "b#/format: The file has bench format 99; this program knows formats up to 2. It was opened read-only and is not judged.");
  CHECK(analyseFast(r.harness).verdict == Verdict::NotJudged);
}

TEST_CASE("what is wrong in a file is named with its place and the rest is kept") {
  CHECK(problems(documentWith(R"({"id": "r", "part": "resistor"}, {"id": "r", "part": "resistor"})", ""))[0] ==
        "b#/devices/1/id: The id \"r\" is used twice. The first one was kept.");
  CHECK(problems(documentWith(R"({"id": "a b", "part": "resistor"})", ""))[0] ==
        "b#/devices/0/id: \"id\" is not made of letters, digits, - and _. The device was left out.");
  CHECK(problems(documentWith("", R"({"id": "w", "wire": ["a.B"]})"))[0] ==
        "b#/connections/0/wire: \"wire\" needs exactly two ends. The connection was left out.");
  CHECK(problems(documentWith("", R"({"id": "w", "rope": ["a.B", "c.D"]})"))[0] ==
        "b#/connections/0: This is neither a wire nor a plug nor a jumper. The connection was left out.");
  CHECK(problems(documentWith("", R"({"id": "w", "wire": ["a.B", "c.D"], "length": "-1 m"})"))[0] ==
        "b#/connections/0/length: \"length\" cannot be used: \"-1 m\" is not from 1 mm to 100 m. It was taken as not given.");
  CHECK(problems(documentWith(R"({"id": "r", "part": "resistor", "state": "maybe"})", ""))[0] ==
        "b#/devices/0/state: \"state\" is \"maybe\": it can be \"on the bench\", \"planned\" or \"to be removed\". It was taken as on the "
        "bench.");
  CHECK(refused(R"({"format": 2, "devices": 7, "connections": [], "goals": []})") == "b#/devices: \"devices\" is not a list.");
  const auto twice = read(R"({"format": 2, "title": "a", "title": "b", "devices": [], "connections": [], "goals": []})");
  CHECK(twice.harness.title == "a");
  CHECK(twice.problems.size() == 1);
  CHECK(problems(R"({"format": 2, "devices": [], "connections": []})")[0] == "b#: This has no \"goals\". It was taken as empty.");
}

TEST_CASE("a wire to a terminal that does not exist keeps the bench from being judged") {
  auto h = good("low-side");
  h.connections.push_back({"wx", ConnectionKind::Wire, {"uno", "D99"}, {"q1", "G"}});
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::NotJudged);
  REQUIRE_FALSE(a.why.empty());
  CHECK(a.why[0].starts_with("The connection wx ends at uno.D99, which uno does not have; it has NC, IOREF, "));
}

TEST_CASE("undo gives the same bytes") {
  rc::prop("any edits, taken back in turn", [] {
    auto h = *generatedBench();
    const auto before = writeHarness(h);
    std::vector<Edit> back;
    const int n = *rc::gen::inRange(1, 8);
    for (int i = 0; i < n; ++i) back.push_back(apply(h, *editOf(h)));
    while (!back.empty()) {
      apply(h, back.back());
      back.pop_back();
    }
    RC_ASSERT(writeHarness(h) == before);
  });
}

TEST_CASE("an edit redone after undo gives the same bytes") {
  auto h = good("bridge");
  const Edit edit{"x", {Drop<Connection>{h.connections[3].id}, Put<Device>{h.devices[0], {}}, SetTitle{"other"}, Drop<Device>{"left"}}};
  auto inverse = apply(h, edit);
  const auto after = writeHarness(h);
  auto redo = apply(h, inverse);
  apply(h, redo);
  CHECK(writeHarness(h) == after);
}

TEST_CASE("planned things are absent as it stands and present as planned") {
  auto h = wiredBench("from low-side\nremove d1\nplan\npart d9 diode-1n5822\nwire d9.K pump.P\nwire d9.A pump.N");
  CHECK(h.openChanges() == 3);
  CHECK(asItStands(h).device("d9") == nullptr);
  CHECK(asPlanned(h).device("d9") != nullptr);
  CHECK(asPlanned(h).openChanges() == 0);
  CHECK_FALSE(findingsOf(analyseFast(h), "flyback-missing").empty());
  CHECK(findingsOf(analyseFast(asPlanned(h)), "flyback-missing").empty());
}

TEST_CASE("a setting of which only a change is planned stands at the part's standard") {
  const auto h = wiredBench("from low-side\nplan\nset q1.heatSink fitted");
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::LookAgain);
  CHECK(a.solved->bench.problems.empty());
  CHECK(a.openChanges == 1);
  const auto text = writeHarness(h);
  CHECK(writeHarness(read(text).harness) == text);
}
