#include "core/checks/trial.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "core/checks/planned.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using checks::Severity;

namespace {

harness::Edit dropped(const std::string& connection) {
  return {"", {harness::Drop<harness::Connection>{connection}}};
}

std::string wireBetween(const harness::Harness& h, const std::string& a, const std::string& b) {
  for (const auto& c : h.connections)
    if ((c.a.text() == a && c.b.text() == b) || (c.a.text() == b && c.b.text() == a)) return c.id;
  return {};
}

}  // namespace

TEST_CASE("a trial says what an analysis of the changed bench says, and leaves the bench alone") {
  const auto h = good("bridge");
  const auto before = h;
  const auto a = analyseFast(h);
  for (const auto& c : h.connections) {
    const auto trial = tryOut(h, dropped(c.id), library(), {}, a.judged);
    REQUIRE(trial);
    auto changed = h;
    harness::apply(changed, dropped(c.id));
    const auto expected = analyseFast(changed);
    REQUIRE(trial->findings.size() == expected.findings.size());
    for (std::size_t i = 0; i < expected.findings.size(); ++i) CHECK(trial->findings[i].text == expected.findings[i].text);
  }
  CHECK(h == before);
}

TEST_CASE("a fault is an edit: a broken ground wire is found without touching the bench") {
  const auto h = good("bridge");
  const auto ground = wireBetween(h, "uno.GND", "s1.GND");
  REQUIRE_FALSE(ground.empty());
  const auto trial = tryOut(h, dropped(ground), library(), {}, analyseFast(h).judged);
  REQUIRE(trial);
  CHECK(std::ranges::any_of(trial->findings, [](const auto& f) { return f.check == "ground-not-shared"; }));
}

TEST_CASE("what is planned counts in a trial, and one that is given up is nothing") {
  const auto h = wiredBench("from bridge\nunwire uno.GND s1.GND\nplan\nwire uno.GND s1.GND BK");
  const auto trial = tryOut(h, {}, library(), {}, analyseFast(h).judged);
  REQUIRE(trial);
  CHECK(std::ranges::none_of(trial->findings, [](const auto& f) { return f.severity == Severity::Stop; }));
  Options cancelled;
  cancelled.cancelled = [] { return true; };
  CHECK_FALSE(tryOut(good("servo"), dropped("w1"), library(), cancelled, {}));
}

TEST_CASE("chosen commands are solved alone, with the points they begin from, to the same figures") {
  const auto h = good("l293d");
  const auto all = bench::solveBench(bench::makeBench(h, library()), {});
  for (const auto& c : all->commands) {
    const auto alone = bench::solveBench(bench::makeBench(h, library()), {}, {c.id});
    INFO(c.id);
    REQUIRE(std::ranges::count(alone->commands, c.id, &bench::Command::id) == 1);
    CHECK(alone->commands.size() <= 3);
    for (const auto corner : c.corners) {
      const auto* p = alone->point(c.motor, c.action, c.moment, corner, c.variant);
      const auto* q = all->point(c.motor, c.action, c.moment, corner, c.variant);
      if (c.supply >= 0) continue;
      REQUIRE(p);
      REQUIRE(q);
      for (std::size_t l = 0; l < alone->bench.links.size(); ++l)
        CHECK(p->link(static_cast<int>(l)).value == Approx(q->link(static_cast<int>(l)).value).epsilon(1e-4).margin(1e-6));
    }
  }
  CHECK(bench::solveBench(bench::makeBench(h, library()), {}, {"no such command"})->points.empty());
}

TEST_CASE("an analysis of chosen commands is Not judged, knows a full one, and is not taken for one") {
  const auto h = good("l293d");
  Options one;
  one.explain = false;
  one.only = {"M forward"};
  const auto full = analyseFast(h);
  const auto id = full.solved->commands.at(2).id;
  one.only = {id};
  const auto alone = analyse(h, library(), one);
  CHECK(alone.verdict == Verdict::NotJudged);
  REQUIRE_FALSE(alone.why.empty());
  CHECK(alone.why.front() == "only some of its commands were solved");
  CHECK(alone.commands < full.commands);
  CHECK(analyse(h, library(), one, &full).judged.cells.front() == full.judged.cells.front());
  Options quick;
  quick.explain = false;
  const auto after = analyse(h, library(), quick, &alone);
  CHECK(after.commands == full.commands);
  CHECK(after.verdict == full.verdict);
}

TEST_CASE("what a planned change would make worse is said beside the bench as it stands") {
  // The module makes its own 5 V; a planned wire joins the board's 5 V to it.
  const auto h = wiredBench("from bridge\nplan\nwire uno.5V s1.5V RD");
  auto a = analyse(h, library());
  CHECK(findingsOf(a, "back-feed").empty());
  CHECK_FALSE(a.planned);
  judgePlanned(a, h, library());
  REQUIRE(a.planned);
  const auto fed = std::ranges::find(a.planned->worse, "back-feed", &checks::Finding::check);
  REQUIRE(fed != a.planned->worse.end());
  const auto& f = *fed;
  CHECK_FALSE(f.repair);
  CHECK(std::ranges::count(a.why, "once the planned change is made: " + f.headline) == 1);
  CHECK(findingsOf(a, "back-feed").empty());  // it is not there as it stands
}

TEST_CASE("a plan that mends says so and makes nothing worse") {
  const auto h = wiredBench("from bridge\nunwire uno.GND s1.GND\nplan\nwire uno.GND s1.GND BK");
  auto a = analyse(h, library());
  judgePlanned(a, h, library());
  REQUIRE(a.planned);
  CHECK(a.planned->worse.empty());
  CHECK(a.planned->verdict != Verdict::DoNotSwitchOn);
  CHECK(a.verdict == Verdict::DoNotSwitchOn);
  for (const auto& f : findingsOf(a, "ground-not-shared")) CHECK(f.mendedAfter == 1);
  // Without a plan there is nothing to judge beside it.
  auto plain = analyseFast(good("bridge"));
  judgePlanned(plain, good("bridge"), library());
  CHECK_FALSE(plain.planned);
}

TEST_CASE("no wire to a part that nobody knows is offered as a repair: it would only silence what was found") {
  const auto a =
      analyse(wiredBench("from low-side\nunwire uno.D5 r1.A\npart u9 npn-pn2222a\nswap u9 nobody-knows\nwire u9.X r2.A"), library());
  for (const auto& f : a.findings)
    if (f.repair)
      for (const auto& change : f.repair->edit.changes)
        if (const auto* put = change.as<harness::Put<harness::Connection>>())
          CHECK((put->value.a.device != "u9" && put->value.b.device != "u9"));
  CHECK(a.verdict != Verdict::Clear);
  CHECK(a.verdict != Verdict::LookAgain);
}
