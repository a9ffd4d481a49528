#include "core/program/corpus.h"

#include <fmt/core.h>
#include <fmt/ranges.h>

#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("every program of the corpus uses the pins that were said of it beforehand, and is told what was said") {
  REQUIRE(programCases().size() >= 60);
  int first = 0;
  for (const auto& c : programCases()) {
    INFO(c.name);
    const auto h = benchOf(c);
    REQUIRE(h.sources.size() == 1);
    const auto& s = h.sources.front();
    std::map<std::string, std::set<std::string>> pins;
    for (const auto& u : s.pins) pins[u.terminal.empty() ? "(" + u.word + ")" : u.terminal] = plainDoings(u);
    CHECK(fmt::format("{}", pins) == fmt::format("{}", c.pins));
    const auto a = analyseFast(h);
    std::multiset<std::string> says;
    std::string all;
    for (const auto& f : a.findings)
      if (f.check.starts_with("program-")) {
        says.insert(f.check);
        all += f.check + ": " + f.text + "\n";
      }
    for (const auto& u : s.untold) all += fmt::format("untold {}:{} {}\n", u.place.file, u.place.line, u.what);
    INFO(all);
    CHECK(says == c.says);
    CHECK(s.asked - s.told == c.untold);
    first += pins == c.pins && says == c.says && s.asked - s.told == c.untold;
  }
  CAPTURE(first);
  CHECK(first == static_cast<int>(programCases().size()));
}

TEST_CASE("of the places that name a pin at least nine in ten are told, in every family") {
  std::map<std::string, std::pair<int, int>> told;
  for (const auto& c : programCases()) {
    const auto bench = benchOf(c);
    const auto& s = bench.sources.front();
    auto& [of, all] = told[c.name.substr(0, c.name.find('/'))];
    of += s.told;
    all += s.asked;
  }
  REQUIRE(told.size() == 4);
  for (const auto& [family, share] : told) {
    CAPTURE(family, share);
    CHECK(share.second >= 40);
    CHECK(share.first >= 0.9 * share.second);
  }
}
