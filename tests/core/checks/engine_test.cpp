#include <catch2/catch.hpp>
#include <set>

#include "core/checks/planned.h"
#include "core/harness/mark_done.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using checks::Harm;
using checks::Severity;

TEST_CASE("the verdict is the first that applies") {
  CHECK(analyseFast({}).verdict == Verdict::NotJudged);
  CHECK(analyseFast(good("low-side")).verdict == Verdict::Clear);
  CHECK(analyseFast(wiredBench("from low-side\nremove d1")).verdict == Verdict::DoNotSwitchOn);
  CHECK(analyseFast(good("darlington")).verdict == Verdict::LookAgain);
  CHECK(analyseFast(wiredBench("from low-side\nplan\nwire uno.GND-2 psu.N BK")).verdict == Verdict::LookAgain);
  auto unknown = good("low-side");
  unknown.devices.push_back({.id = "x", .part = "nobody-knows"});
  CHECK(analyseFast(unknown).verdict == Verdict::NotJudged);
  auto both = wiredBench("from low-side\nremove d1");
  both.devices.push_back({.id = "x", .part = "nobody-knows"});
  CHECK(analyseFast(both).verdict == Verdict::DoNotSwitchOn);
}

TEST_CASE("a motor without signals is judged for its currents, and the verdict says what was left out") {
  auto h = good("bridge");
  h.assignments.clear();
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::LookAgain);
  REQUIRE(a.unstated.size() == 2);
  CHECK(a.unstated[0].text ==
        "Left has no signals (Controller D7 reaches in1, Controller D8 reaches in2, Controller D5 reaches speed): its levels and "
        "pins are not judged");
  CHECK(findingsOf(a, "command-outcome").empty());
  // The stage's outputs were put into forward directly, so a stall is still seen.
  auto weak = wiredBench("from l293d\nfigure m.winding 3 ohm");
  weak.assignments.clear();
  CHECK_FALSE(findingsOf(analyseFast(weak), "stall-current").empty());
}

TEST_CASE("what follows from a cause folds under it and is still counted") {
  const auto a = analyse(wiredBench(readFile("demo/wave-tank-first-try.bench")), library());
  const auto grounds = findingsOf(a, "ground-not-shared");
  REQUIRE(grounds.size() == 3);
  int explained = 0;
  for (const auto& f : a.findings) explained += f.explainedBy == grounds[0].identity();
  CHECK(grounds[0].explainedBy.empty());
  CHECK(explained >= 3);
  CHECK(a.count(Severity::Stop) > explained);
  // Each stands right behind its cause.
  for (std::size_t i = 0; i < a.findings.size(); ++i)
    if (!a.findings[i].explainedBy.empty()) {
      std::size_t k = i;
      while (k > 0 && !a.findings[k].explainedBy.empty()) --k;
      CHECK(a.findings[k].identity() == a.findings[i].explainedBy);
    }
}

TEST_CASE("a repair puts planned things on the bench, and the verdict stays until they are done") {
  auto h = wiredBench("from bridge\nunwire uno.GND s1.GND");
  const auto a = analyse(h, library());
  const auto f = findingsOf(a, "ground-not-shared").front();
  REQUIRE(f.repair);
  CHECK(f.repair->text ==
        "Add a black wire from S1 GND (supply, bottom, 2nd screw from the left) to Controller GND (power, left, 3rd from the bottom).");
  const auto back = harness::apply(h, f.repair->edit);
  auto planned = analyse(h, library());
  judgePlanned(planned, h, library());
  CHECK(planned.verdict == Verdict::DoNotSwitchOn);
  CHECK(planned.openChanges == 1);
  CHECK(planned.find(f.identity())->mendedAfter == 1);
  auto done = h;
  harness::apply(done, harness::markAllDone(done));
  CHECK(findingsOf(analyseFast(done), "ground-not-shared").empty());
  harness::apply(h, back);
  CHECK(h.openChanges() == 0);
}

TEST_CASE("what else is planned is not credited to a repair") {
  const auto h = wiredBench("from bridge\nunwire uno.GND s1.GND\nunwire s1.OUT1 left.P\nplan\nwire s1.OUT1 left.P");
  auto a = analyse(h, library());
  judgePlanned(a, h, library());
  const auto open = findingsOf(a, "open-lead");
  REQUIRE(open.size() == 1);
  CHECK(open[0].explainedBy.empty());
  CHECK(open[0].mendedAfter == 1);
}

TEST_CASE("every repair of every flagged example removes its finding and adds neither stop nor caution") {
  int repairs = 0;
  for (const auto& c : checks::registry()) {
    const auto page = checks::page(c.id);
    const auto from = page.find("```bench\n", page.find("## Flagged")) + 9;
    const auto h = wiredBench(page.substr(from, page.find("```", from) - from));
    const auto before = analyseFast(h);
    for (const auto& f : before.findings) {
      if (!f.repair) continue;
      ++repairs;
      auto mended = h;
      harness::apply(mended, f.repair->edit);
      const auto after = analyseFast(harness::asPlanned(mended));
      INFO(c.id << ": " << f.check << ": " << f.repair->text);
      CHECK_FALSE(after.find(f.identity()));
      for (const auto& g : after.findings) {
        INFO("left or new: " << g.check << ": " << g.text);
        if (g.severity == Severity::Stop || g.severity == Severity::Caution) CHECK(before.find(g.identity()));
      }
    }
  }
  CHECK(repairs >= 12);
}

TEST_CASE("a signal does not reach other inputs by way of the pull resistors inside a stage whose ground is open") {
  // Found by shuffling connections: GP2 was said to drive BIN1 through two pull-downs and the floating ground.
  const auto h = wiredBench("from tb6612\nunwire bat.N s1.GND\nunwire pico.GND s1.GND-2");
  const auto a = analyseFast(h);
  CHECK_FALSE(findingsOf(a, "ground-not-shared").empty());
  const auto found = findingsOf(a, "level-high");
  CHECK(std::ranges::all_of(found, [&](const auto& f) {
    return std::ranges::any_of(h.connections, [&](const auto& c) { return c.a.text() == f.subjects[1] && c.b.text() == f.subjects[0]; });
  }));
}

TEST_CASE("causes are numbered in the order of their weight, what follows has their number, notes none") {
  const auto a = analyse(wiredBench(readFile("demo/wave-tank-first-try.bench")), library());
  int last = 0;
  for (const auto& f : a.findings) {
    if (!f.explainedBy.empty()) {
      CHECK(f.number == a.find(f.explainedBy)->number);
      continue;
    }
    if (f.severity == Severity::Note) {
      CHECK(f.number == 0);
      continue;
    }
    CHECK(f.number == last + 1);
    last = f.number;
  }
  CHECK(last == 15);
  CHECK(a.findings.front().harm == Harm::Damage);
}

TEST_CASE("the first-try demo has at least eight kinds of fault and the finished one none") {
  std::set<std::string> kinds;
  for (const auto& f : analyseFast(wiredBench(readFile("demo/wave-tank-first-try.bench"))).findings)
    if (f.severity == Severity::Stop) kinds.insert(f.check);
  CHECK(kinds.size() >= 8);
  const auto a = analyseFast(wiredBench(readFile("demo/wave-tank.bench")));
  CHECK(a.verdict == Verdict::Clear);
  CHECK(a.count(Severity::Stop) + a.count(Severity::Caution) == 0);
}

TEST_CASE("the demo files are what their notation says") {
  for (const auto* name : {"wave-tank", "wave-tank-first-try"}) {
    const auto fromFile =
        analyse(harness::readHarness(readFile("demo/" + std::string(name) + ".harness"), "demo").value().harness, library());
    const auto fromText = analyse(wiredBench(readFile("demo/" + std::string(name) + ".bench")), library());
    CHECK(fromFile.findings.size() == fromText.findings.size());
    CHECK(fromFile.verdict == fromText.verdict);
  }
}

TEST_CASE("what was worked out before is used again only for the same bench with the same parts") {
  const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  Options fast;
  fast.explain = false;
  const auto first = analyse(h, library(), fast);
  const auto again = analyse(h, library(), fast, &first);
  CHECK(again.solved == first.solved);
  const auto explained = analyse(h, library(), {}, &first);
  CHECK(explained.solved == first.solved);
  CHECK(analyse(h, library(), {}, &explained).solved == first.solved);
  // The result is the one that is found without it.
  const auto fresh = analyse(h, library());
  REQUIRE(explained.findings.size() == fresh.findings.size());
  for (std::size_t i = 0; i < fresh.findings.size(); ++i) {
    CHECK(explained.findings[i].identity() == fresh.findings[i].identity());
    CHECK(explained.findings[i].explainedBy == fresh.findings[i].explainedBy);
    CHECK(explained.findings[i].repair.has_value() == fresh.findings[i].repair.has_value());
  }
  auto changed = h;
  changed.title = "another";  // is not judged
  CHECK(analyse(changed, library(), fast, &first).solved == first.solved);
  changed.ambient = Celsius{50};
  CHECK(analyse(changed, library(), fast, &first).solved != first.solved);
  // What an explanation put right is not taken for what was found.
  const auto plain = analyse(h, library(), fast, &explained);
  REQUIRE(plain.findings.size() == first.findings.size());
  for (std::size_t i = 0; i < plain.findings.size(); ++i) {
    CHECK(plain.findings[i].identity() == first.findings[i].identity());
    CHECK(plain.findings[i].explainedBy.empty());
    CHECK(plain.findings[i].repair.has_value() == first.findings[i].repair.has_value());
  }
}
