#include "core/checks/margin_words.h"

#include <catch2/catch.hpp>
#include <set>

#include "support/benches.h"

using namespace bold;
using namespace bold::checks;
using namespace bold::test;

TEST_CASE("margins are sorted by motor, stage, board, supply and wires, the tightest of each first") {
  const auto a = analyseFast(wiredBench(readFile("demo/wave-tank.bench")));
  const auto margins = a.margins();
  const auto groups = grouped(a.solved->bench, margins);
  std::map<std::string, MarginOf> kinds;
  std::size_t all = 0;
  for (const auto& g : groups) {
    INFO(g.name);
    CHECK_FALSE(kinds.contains(g.device));
    kinds[g.device] = g.kind;
    all += g.margins.size();
    double last = 1e9;
    for (const auto* m : g.margins) {
      if (!m->used() || m->onlyNotes()) continue;
      CHECK(*m->used() <= last);
      last = *m->used();
    }
  }
  CHECK(all == margins.size());
  for (const auto* motor : {"paddle", "gate", "pump", "carriage"}) {
    INFO(motor);
    CHECK(kinds.at(motor) == MarginOf::Motor);
  }
  CHECK(kinds.at("s1") == MarginOf::Stage);
  CHECK(kinds.at("q1") == MarginOf::Stage);
  CHECK(kinds.at("uno") == MarginOf::Board);
  CHECK(kinds.at("psu") == MarginOf::Supply);
  CHECK(kinds.at("") == MarginOf::Wires);
  // Groups stand in the order of their tightest margin.
  CHECK(groups.front().margins.front() == &margins.front());
}

TEST_CASE("the verdict names the margin that is nearest to its limit, where anything may be switched on") {
  const auto clear = analyseFast(wiredBench(readFile("demo/wave-tank.bench")));
  const auto margins = clear.margins();
  const auto* near = tightest(margins);
  REQUIRE(near);
  for (const auto& m : margins)
    if (m.used() && !m.onlyNotes() && !m.passed()) CHECK(*m.used() <= *near->used());
  CHECK(clear.tightest == "tightest: input voltage of S2 RST, 95 % of absolute maximum");
  CHECK(summary(clear).ends_with(clear.tightest));
  const auto stopped = analyseFast(wiredBench(readFile("demo/wave-tank-first-try.bench")));
  CHECK(stopped.tightest.empty());
  CHECK(analyseFast({}).tightest.empty());
}
