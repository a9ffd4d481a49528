#include <catch2/catch.hpp>
#include <cmath>
#include <map>
#include <set>

#include "core/parts/named_terminal.h"
#include "core/parts/roles.h"
#include "core/places/arrangement.h"
#include "core/places/neighbours.h"
#include "core/places/words.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::places;
using bold::test::library;

namespace {

std::string placeOf(const char* part, const char* terminal, Lie lie = {}) {
  const auto p = library().find(part);
  REQUIRE(p);
  return placeWords(*p, *p->find(terminal), lie);
}

std::string whole(const char* part, const char* terminal) {
  const auto p = library().find(part);
  REQUIRE(p);
  return fullPlace(*p, *p->find(terminal));
}

std::string idOf(const parts::Part& p, int t) {
  return t < 0 ? "" : p.terminals[t].id;
}

void eachPart(const std::function<void(const parts::Part&)>& f) {
  for (const auto& p : library().search("")) {
    INFO(p->id);
    f(*p);
  }
}

}  // namespace

TEST_CASE("every terminal of every part lies once in its drawing or is told to lie in none, and no two lie on one another") {
  int drawn = 0;
  eachPart([&](const parts::Part& p) {
    INFO(p.id);
    const auto a = arrangementOf(p);
    CHECK(a.has_value() == !p.layout.empty());
    if (!a) return;
    ++drawn;
    std::map<int, int> times;
    for (const auto& s : a->spots) ++times[s.terminal];
    for (const int t : unplaced(p)) ++times[t];
    for (std::size_t t = 0; t < p.terminals.size(); ++t) CHECK(times[static_cast<int>(t)] == 1);
    for (std::size_t i = 0; i < a->spots.size(); ++i) {
      const auto& s = a->spots[i];
      CHECK((s.x >= -0.01 && s.x <= a->width + 0.01 && s.y >= -0.01 && s.y <= a->height + 0.01));
      int overlapping = 0;
      for (std::size_t k = i + 1; k < a->spots.size(); ++k) overlapping += std::hypot(s.x - a->spots[k].x, s.y - a->spots[k].y) < 0.9;
      CHECK(overlapping == 0);
    }
  });
  CHECK(drawn > 100);
}

TEST_CASE("no two terminals of a part have the same words for their place, however it lies") {
  for (const Lie lie : {Lie{}, Lie{1, false}, Lie{2, true}})
    eachPart([&](const parts::Part& p) {
      INFO(p.id);
      std::map<std::string, std::string> taken;
      for (const auto& t : p.terminals) {
        const auto words = fullPlace(p, t, lie);
        INFO(words << ": " << t.id << " and " << taken[words]);
        CHECK(taken[words].empty());
        taken[words] = t.id;
      }
    });
}

TEST_CASE("boards, chips and transistors have an order that is certain") {
  int boards = 0;
  eachPart([&](const parts::Part& p) {
    INFO(p.id);
    const bool loose = std::ranges::any_of(p.terminals, [](const parts::Terminal& t) { return t.place.contact == "leg"; });
    const bool relay = p.id.starts_with("relay") || p.id.starts_with("button");  // five legs and four, of which makers think differently
    if (parts::isController(p) && p.id != "board-usb-daq-8dio") {
      ++boards;
      CHECK((p.layoutKnown && !p.layout.empty()));
    } else if (loose && !relay) {
      CHECK((p.layoutKnown && !p.layout.empty()));
    }
    if (p.layoutKnown && !p.layout.empty()) CHECK_FALSE((p.hold.empty() && p.id != "board-usb-daq-8dio"));
  });
  CHECK(boards >= 19);
}

TEST_CASE("places are said as a finger counts them") {
  CHECK(placeOf("board-uno-atmega328p", "D9") == "digital 13-8, right, 2nd from the bottom");
  CHECK(placeOf("board-uno-atmega328p", "5V") == "power, left, 4th from the bottom");
  CHECK(whole("board-esp32-38", "IO17") == "right row, 9th from the bottom, chip GPIO17");
  CHECK(whole("sbc-header-40", "J8-11") == "J8, left column, 6th from the top, position 11");
  CHECK(whole("sbc-header-40", "J8-12") == "J8, right column, 6th from the top, position 12");
  CHECK(whole("uln2003a", "3C") == "right row, 3rd leg from the top, pin 14");
  CHECK(whole("chip-attiny85", "PB0") == "right row, 1st leg from the bottom, pin 5");
  CHECK(placeOf("nmos-irlz44n", "G") == "1st leg from the left");
  CHECK(whole("l298n-module", "5V") == "supply, bottom, 1st screw from the right, printed +5V");
  CHECK(placeOf("breadboard-half", "c17") == "row c, hole 17");
  CHECK(placeOf("diode-1n4007", "K") == "right end");
  CHECK(whole("relay-module-5v-1", "COM") == "contact, screw, printed COM");
  CHECK(whole("board-nano-atmega328p", "A7") == "pins 16-30, right, 5th from the top, position 26, chip ADC7");
}

TEST_CASE("a part that lies otherwise on the table is described as it lies") {
  // USB to the right: what was the right row lies at the bottom, its first at the right.
  CHECK(placeOf("board-uno-atmega328p", "D9", {1, false}) == "digital 13-8, bottom, 2nd from the left");
  CHECK(placeOf("board-uno-atmega328p", "D9", {2, false}) == "digital 13-8, left, 2nd from the top");
  // From the solder side left and right change places, up and down do not.
  CHECK(placeOf("board-uno-atmega328p", "D9", {0, true}) == "digital 13-8, left, 2nd from the bottom");
  CHECK(placeOf("nmos-irlz44n", "G", {0, true}) == "1st leg from the right");
  CHECK(placeOf("sbc-header-40", "J8-11", {2, false}) == "J8, right column, 6th from the bottom");
}

TEST_CASE("neighbours of a terminal: beside, across, from the other end, upside down, by its number in another system") {
  const auto sbc = library().find("sbc-header-40");
  const auto n = neighboursOf(*sbc, sbc->indexOf("J8-11"));
  CHECK(idOf(*sbc, n.before) == "J8-9");
  CHECK(idOf(*sbc, n.after) == "J8-13");
  CHECK(idOf(*sbc, n.across) == "J8-12");
  CHECK(idOf(*sbc, n.upsideDown) == "");  // one header at one edge: turned by half there is no terminal
  // J8-11 is GPIO17; 17 counted on the header is the second 3V3, and position 11 is GPIO11 by the chip.
  std::set<std::string> alike;
  for (const auto& m : n.sameNumber) alike.insert(idOf(*sbc, m.terminal));
  CHECK(alike == std::set<std::string>{"J8-17", "J8-23"});

  const auto chip = library().find("uln2003a");
  const auto c = neighboursOf(*chip, chip->indexOf("3B"));
  CHECK(idOf(*chip, c.across) == "3C");
  CHECK(idOf(*chip, c.upsideDown) == "6C");
  CHECK(idOf(*chip, c.fromTheOtherEnd) == "6B");
  const auto fet = library().find("nmos-irlz44n");
  CHECK(idOf(*fet, neighboursOf(*fet, fet->indexOf("G")).fromTheOtherEnd) == "S");
  CHECK(besideIt(*fet, fet->indexOf("D")) == "left of it gate, right of it source");
}

TEST_CASE("a slip is called by what happened") {
  const auto of = [](const char* part, const char* meant, const char* taken) {
    const auto p = library().find(part);
    return slip(*p, p->indexOf(meant), p->indexOf(taken)).value_or("");
  };
  CHECK(of("board-uno-atmega328p", "D9", "D10") == "one position off");
  CHECK(of("board-uno-atmega328p", "D9", "D3") == "");
  CHECK(of("uln2003a", "3B", "3C") == "straight across");
  CHECK(of("nmos-irlz44n", "G", "S") == "legs read from the back");
  CHECK(of("l298n-module", "ENA", "ENB") == "counted from the wrong end");
  CHECK(of("uln2003a", "3B", "6C") == "the part upside down");
  CHECK(of("sbc-header-40", "J8-11", "J8-17") == "position 17 taken for a name");
  CHECK(of("sbc-header-40", "J8-11", "J8-23") == "11 taken for a position");
  CHECK(of("relay-module-5v-1", "NO", "NC") == "");  // its order is not known
}
