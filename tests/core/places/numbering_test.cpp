#include "core/places/numbering.h"

#include <catch2/catch.hpp>

#include "core/parts/named_terminal.h"
#include "core/parts/roles.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::places;
using bold::test::library;

namespace {

std::vector<std::string> meant(const char* part, const char* word) {
  const auto p = library().find(part);
  REQUIRE(p);
  std::vector<std::string> out;
  for (const auto& m : numbersMeant(*p, word)) out.push_back(p->terminals[m.terminal].id + " by " + std::string(places::word(m.in)));
  return out;
}

std::string called(const char* part, const char* terminal, Numbering n) {
  const auto p = library().find(part);
  return nameIn(*p, *p->find(terminal), n);
}

}  // namespace

TEST_CASE("a terminal has a name in every system of its board") {
  CHECK(called("sbc-header-40", "J8-11", Numbering::Printed) == "GPIO17");
  CHECK(called("sbc-header-40", "J8-11", Numbering::Position) == "11");
  CHECK(called("board-uno-atmega328p", "D9", Numbering::Chip) == "PB1");
  CHECK(called("board-uno-atmega328p", "D9", Numbering::Program) == "9");
  CHECK(called("board-uno-atmega328p", "D9", Numbering::Position).empty());
  CHECK(called("board-rp2040-40", "GP28", Numbering::Position) == "34");
  CHECK(called("board-nano-atmega328p", "D13", Numbering::Position) == "16");
  CHECK(called("uln2803a", "COM", Numbering::Position) == "10");
  CHECK(called("chip-pic16f877a", "RB7", Numbering::Position) == "40");
  CHECK(called("optocoupler-pc817", "C", Numbering::Position) == "4");
}

TEST_CASE("a bare number means whatever it counts, and says by what") {
  CHECK(meant("sbc-header-40", "12") == std::vector<std::string>{"J8-32 by program", "J8-12 by position"});
  CHECK(meant("sbc-header-40", "pos 12") == std::vector<std::string>{"J8-12 by position"});
  CHECK(meant("sbc-header-40", "gpio12") == std::vector<std::string>{"J8-32 by chip"});
  CHECK(meant("board-uno-atmega328p", "9") == std::vector<std::string>{"D9 by program"});
  CHECK(meant("board-rp2040-40", "pin 4") == std::vector<std::string>{"GP2 by position"});
  CHECK(meant("uln2003a", "14") == std::vector<std::string>{"3C by position"});
  CHECK(meant("board-uno-atmega328p", "d9").empty());
  CHECK(meant("board-uno-atmega328p", "99").empty());
  CHECK(meant("board-uno-atmega328p", "").empty());
  CHECK(meant("board-uno-atmega328p", "9999999999999999999999").empty());
}

TEST_CASE("every alias of every shipped part leads to a terminal that has it") {
  for (const auto& p : library().search("")) {
    for (const auto& t : p->terminals)
      for (const auto& a : t.aliases) {
        INFO(p->id << " " << t.id << " " << a);
        const auto named = parts::terminalsNamed(*p, a);
        bool numbered = false;
        for (const auto& m : numbersMeant(*p, a)) numbered = numbered || p->terminals[m.terminal].id == t.id;
        // It resolves, or it is the print or the id of another terminal, which goes before.
        const bool taken =
            std::ranges::any_of(p->terminals, [&](const parts::Terminal& o) { return o.id != t.id && (o.id == a || o.label == a); });
        CHECK((std::ranges::count(named, t.id) > 0 || numbered || taken));
      }
  }
}

TEST_CASE("a position of a chip or header is each number once, from 1 without a gap") {
  for (const auto& p : library().search("")) {
    if (p->layout.numbers == parts::Numbers::None) continue;
    INFO(p->id);
    std::set<int> seen;
    for (const auto& t : p->terminals)
      if (const int n = positionOf(*p, t); n > 0) CHECK(seen.insert(n).second);
    REQUIRE(!seen.empty());
    CHECK(*seen.begin() == 1);
    CHECK(*seen.rbegin() == static_cast<int>(seen.size()));
    // Where a part says a position as an alias it is the same.
    for (const auto& t : p->terminals)
      for (const auto& a : t.aliases)
        if (a.starts_with("pin ")) CHECK(a == "pin " + std::to_string(positionOf(*p, t)));
  }
}
