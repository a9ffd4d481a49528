#include <fmt/core.h>

#include <catch2/catch.hpp>

#include "core/checks/analysis.h"
#include "core/harness/left_out.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

// What a clumsy or hostile file may hold. How long each takes stands in docs/benchmarks.md; that it ends at all, with a result or
// with a reason, stands here.

namespace {

harness::Device device(int n, const char* part) {
  harness::Device d;
  d.id = fmt::format("d{}", n);
  d.part = part;
  return d;
}
void wire(harness::Harness& h, const std::string& a, const std::string& b) {
  harness::Connection c;
  c.id = fmt::format("w{}", h.connections.size());
  c.a = *parseAddress(a);
  c.b = *parseAddress(b);
  h.connections.push_back(std::move(c));
}
bool tooLarge(const Analysis& a) {
  REQUIRE(a.solved);
  if (a.verdict != Verdict::NotJudged || a.findings.size() != 1) return false;
  CHECK(a.findings[0].text.starts_with("It is too large, because "));
  CHECK(a.solved->points.empty());
  return true;
}

}  // namespace

TEST_CASE("two hundred packs on one net come to a result that names the gravest pairs and counts the rest") {
  harness::Harness h;
  for (int n = 0; n < 200; ++n) h.devices.push_back(device(n, n % 2 == 0 ? "battery-4aa-alkaline" : "battery-lithium-1s"));
  for (int n = 0; n + 1 < 200; ++n)
    for (const char pole : {'P', 'N'}) wire(h, fmt::format("d{}.{}", n, pole), fmt::format("d{}.{}", n + 1, pole));
  const auto a = analyse(h, library());
  CHECK(a.verdict == Verdict::DoNotSwitchOn);
  const auto pairs = findingsOf(a, "back-feed");
  CHECK(pairs.size() == 40);
  CHECK(std::ranges::all_of(pairs, [](const auto& f) { return f.severity == checks::Severity::Stop; }));
  CHECK(std::ranges::any_of(pairs, [](const auto& f) { return f.text.ends_with("19860 more pairs are joined likewise."); }));
}

TEST_CASE("twenty thousand wires across one supply are a short circuit and nothing else") {
  harness::Harness h;
  h.devices.push_back(device(0, "battery-4aa-alkaline"));
  for (int n = 0; n < 20000; ++n) wire(h, "d0.P", "d0.N");
  const auto a = analyse(h, library());
  CHECK(findingsOf(a, "supply-short").size() == 1);
}

TEST_CASE("two thousand motors in a row, side by side or unwired are too large, and it is said why") {
  for (const int how : {0, 1, 2}) {
    INFO(how);
    harness::Harness h;
    h.devices.push_back(device(0, "battery-4aa-alkaline"));
    for (int n = 1; n < 2000; ++n) h.devices.push_back(device(n, how == 2 ? "stepper-nema17-1a68" : "brushed-130-3v"));
    for (int n = 1; n < 2000 && how < 2; ++n) {
      wire(h, how == 0 && n > 1 ? fmt::format("d{}.N", n - 1) : "d0.P", fmt::format("d{}.P", n));
      if (how == 1 || n == 1999) wire(h, fmt::format("d{}.N", n), "d0.N");
    }
    CHECK(tooLarge(analyse(h, library())));
  }
}

TEST_CASE("beside a cell that is too large the others are judged all the same") {
  auto h = wiredBench("from low-side\nremove d1");
  h.devices.push_back(device(0, "battery-4aa-alkaline"));
  for (int n = 1; n < 1500; ++n) {
    h.devices.push_back(device(n, "brushed-130-3v"));
    wire(h, "d0.P", fmt::format("d{}.P", n));
    wire(h, fmt::format("d{}.N", n), "d0.N");
  }
  const auto a = analyse(h, library());
  REQUIRE(a.judged.cells.size() == 2);
  CHECK(a.verdict == Verdict::DoNotSwitchOn);
  CHECK_FALSE(findingsOf(a, "flyback-missing").empty());
  CHECK(findingsOf(a, "outside-scope").size() == 1);
  CHECK_FALSE(a.solved->tooLarge.empty());
}

TEST_CASE("a bench that is large but not too large is judged; repairs that were not tried are not offered") {
  auto h = wiredBench("from wave-tank");
  const auto one = h;
  for (int k = 1; k < 9; ++k) {
    const auto named = [&](const std::string& id) { return fmt::format("{}-{}", id, k); };
    for (auto d : one.devices) {
      d.id = named(d.id);
      d.name.clear();
      h.devices.push_back(d);
    }
    for (auto c : one.connections) {
      c.id = named(c.id);
      c.a.device = named(c.a.device);
      c.b.device = named(c.b.device);
      h.connections.push_back(c);
    }
    for (auto g : one.goals) {
      g.id = named(g.id);
      g.motor = named(g.motor);
      if (!g.stage.empty()) g.stage = named(g.stage);
      h.goals.push_back(g);
    }
    for (auto a : one.assignments) {
      a.id = named(a.id);
      a.motor = named(a.motor);
      a.pin.device = named(a.pin.device);
      h.assignments.push_back(a);
    }
    for (auto p : one.program) {
      p.id = named(p.id);
      p.motor = named(p.motor);
      h.program.push_back(p);
    }
    wire(h, "psu.P", named("psu") + ".P");
    wire(h, "psu.N", named("psu") + ".N");
  }
  const auto a = analyse(h, library());
  CHECK(a.commands > 300);
  CHECK(a.verdict == Verdict::LookAgain);
  const bool told =
      std::ranges::any_of(a.assumptions, [](const std::string& x) { return x.find("not tried and so not offered") != std::string::npos; });
  const auto offered = std::ranges::count_if(a.findings, [](const auto& f) { return f.repair.has_value(); });
  CHECK((told || offered > 0));
}

TEST_CASE("a hundred thousand keys and two million repeated ones are read, named in part and counted") {
  std::string keys = R"({"format": 2, "devices": [], "connections": [], "goals": [])";
  auto repeated = keys;
  for (int n = 0; n < 100000; ++n) keys += fmt::format(",\"k{}\":1", n);
  for (int n = 0; n < 2000000; ++n) repeated += ",\"a\":1";
  const auto many = harness::readHarness(keys + "}", "b");
  REQUIRE(many);
  CHECK(harness::leftOut(many->harness).size() == 100000);
  const auto a = analyseFast(many->harness);
  CHECK(a.verdict == Verdict::NotJudged);
  CHECK(a.why.size() < 60);
  const auto twice = harness::readHarness(repeated + "}", "b");
  REQUIRE(twice);
  const auto open = harness::leftOut(twice->harness);
  CHECK(open.size() == kMostRepeatsNamed + 2);  // those named, how many more, and that nobody knows the key
  CHECK(std::ranges::any_of(open, [](const Problem& p) { return p.what == "1999949 more keys appear twice in one object."; }));
}
