#include "core/wiring/read_back.h"

#include <catch2/catch.hpp>
#include <set>

#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;
using namespace bold::wiring;
using harness::Harness;
using harness::Round;

namespace {

const Harness& waveTank() {
  static const auto kTank = [] {
    auto read = harness::readHarness(readFile("demo/wave-tank.harness"), "demo");
    return std::move(read->harness);
  }();
  return kTank;
}

const Address& far(const Harness& h, const Question& q) {
  const auto& c = *h.connection(q.wire);
  return q.fromB ? c.a : c.b;
}

// A reader who reads a bench that is wired so, and counts its wires.
Round read(const Harness& list, const Harness& bench, int shuffle) {
  Round r{"round1", "AB", {}, shuffle, {}, {}, nullptr};
  while (const auto q = nextQuestion(list, library(), r)) {
    const auto* real = bench.connection(q->wire);
    const auto& told = q->fromB ? list.connection(q->wire)->b : list.connection(q->wire)->a;
    std::string said = "none";
    if (real && real->a == told) said = real->b.text();
    if (real && real->b == told) said = real->a.text();
    const auto a = answered(list, library(), *q, said, {});
    REQUIRE(a);
    r.answers.push_back(*a);
  }
  for (const auto& id : countedDevices(list, library()))
    r.counts[id] = static_cast<int>(std::ranges::count_if(bench.connections, [&](const auto& c) {
      return c.kind == harness::ConnectionKind::Wire && (c.a.device == id || c.b.device == id);
    }));
  return r;
}

Harness moved(Harness h, const std::string& wire, const std::string& from, const std::string& to) {
  auto& c = *std::ranges::find(h.connections, wire, &harness::Connection::id);
  (c.a.text() == from ? c.a : c.b) = *parseAddress(to);
  return h;
}

// What the round says of the one planted slip.
Disagreement planted(const Harness& bench) {
  for (const int shuffle : {1, 2, 3, 4}) {  // whichever end is named
    const auto r = result(waveTank(), library(), read(waveTank(), bench, shuffle));
    CHECK(r.whole());
    if (r.disagreements.size() == 1 && r.disagreements[0].said) return r.disagreements[0];
    CHECK_FALSE(r.disagreements.empty());  // named at the end that is not where the list says: nothing is found there
  }
  return {};
}

}  // namespace

TEST_CASE("every wire is asked once, in an order that another number changes") {
  const auto first = questions(waveTank(), 1);
  std::set<std::string> wires;
  for (const auto& q : first) wires.insert(q.wire);
  CHECK(wires.size() == first.size());
  CHECK(static_cast<std::ptrdiff_t>(first.size()) ==
        std::ranges::count(waveTank().connections, harness::ConnectionKind::Wire, &harness::Connection::kind));
  const auto ids = [](const std::vector<Question>& all) {
    std::vector<std::string> out;
    for (const auto& q : all) out.push_back(q.wire);
    return out;
  };
  CHECK(ids(questions(waveTank(), 1)) == ids(first));
  CHECK(ids(questions(waveTank(), 2)) != ids(first));
}

TEST_CASE("whoever reads what is there agrees with all of it") {
  for (const auto& name : goodNames()) {
    const auto h = good(name);
    const auto r = result(h, library(), read(h, h, 7));
    INFO(name);
    CHECK(r.whole());
    CHECK(r.agreed == r.asked);
    CHECK(r.disagreements.empty());
    CHECK(r.counts.empty());
  }
}

TEST_CASE("who read a wire right stands beside it, until it is another one") {
  auto list = waveTank();
  auto round = read(list, moved(list, "w6", "s1.IN2", "s1.IN3"), 4);
  round.reader = "AB";
  list.rounds.push_back(round);
  round.id = "round2";
  round.reader = "CD";
  list.rounds.push_back(round);
  const auto right = readRight(list, library());
  CHECK(right.at("w4") == std::vector<std::string>{"AB", "CD"});
  CHECK_FALSE(right.contains("w6"));
  std::ranges::find(list.connections, "w4", &harness::Connection::id)->colour = "RD";
  CHECK_FALSE(readRight(list, library()).contains("w4"));
}

TEST_CASE("a planted slip is found and told by its kind") {
  // One position off, at the pin.
  const auto off = planted(moved(waveTank(), "w6", "s1.IN2", "s1.IN3"));
  CHECK(off.wire == "w6");
  CHECK(off.slip == "one position off");
  CHECK(sentence(waveTank(), library(), off) == "Controller D7 – S1 IN2: read as S1 IN3, one position off");
  // Counted from the wrong end of the row.
  CHECK(planted(moved(waveTank(), "w5", "s1.IN1", "s1.IN4")).said == Address{"s1", "IN4"});
}

TEST_CASE("two wires that are exchanged are told as a pair") {
  auto bench = moved(waveTank(), "w5", "uno.D8", "uno.D7");
  bench = moved(bench, "w6", "uno.D7", "uno.D8");
  for (const int shuffle : {1, 2, 3}) {
    const auto r = result(waveTank(), library(), read(waveTank(), bench, shuffle));
    for (const auto& d : r.disagreements)
      if (d.said && r.disagreements.size() == 2 && r.disagreements[0].said && r.disagreements[1].said)
        CHECK(d.slip == (d.wire == "w5" ? "exchanged with w6" : "exchanged with w5"));
    CHECK(r.disagreements.size() == 2);
  }
}

TEST_CASE("a number in another count is told, on the board with two of them") {
  const auto h =
      wiredBench("part pi sbc-header-40\npart s l298n-module\nwire pi.J8-11 s.IN1 YE\nwire pi.J8-12 s.IN2 GN\nwire pi.J8-6 s.GND BK");
  Round r{"round1", {}, {}, 1, {}, {}, nullptr};
  const Question named{"w1", true, 1};
  const auto a = answered(h, library(), named, "pi chip 11", {});
  REQUIRE(a);
  r.answers.push_back(*a);
  const auto out = result(h, library(), r);
  REQUIRE(out.disagreements.size() == 1);
  CHECK(out.disagreements[0].slip.find("taken for a") != std::string::npos);
  CHECK(out.left == 2);
  CHECK_FALSE(out.whole());
}

TEST_CASE("what reads as another bench is judged as that bench") {
  // As read, IN1 sits on 12 V.
  const auto bench = moved(waveTank(), "w5", "uno.D8", "psu.P");
  for (const int shuffle : {1, 2, 3, 4, 5, 6}) {
    const auto r = result(waveTank(), library(), read(waveTank(), bench, shuffle));
    if (r.disagreements.size() != 1 || !r.disagreements[0].said) continue;
    const auto judged = analyseFast(asRead(waveTank(), r));
    CHECK(judged.verdict == Verdict::DoNotSwitchOn);
    CHECK(asRead(waveTank(), r).connections == bench.connections);
    return;
  }
  FAIL("never asked from the end that stayed");
}

TEST_CASE("a wire too many and one too few are counted") {
  auto bench = waveTank();
  bench.connections.push_back({.id = "extra", .a = {"uno", "D2"}, .b = {"s2", "EN"}});
  const auto more = result(waveTank(), library(), read(waveTank(), bench, 3));
  CHECK(more.disagreements.empty());
  REQUIRE(more.counts.size() == 2);
  CHECK(more.counts[0].device == "uno");
  CHECK(more.counts[0].counted == more.counts[0].listed + 1);
  std::erase_if(bench.connections, [](const auto& c) { return c.id == "w4"; });
  const auto fewer = result(waveTank(), library(), read(waveTank(), bench, 3));
  REQUIRE(fewer.disagreements.size() == 1);
  CHECK_FALSE(fewer.disagreements[0].said);
  CHECK(sentence(waveTank(), library(), fewer.disagreements[0]).ends_with("read as not joined to anything"));
}

TEST_CASE("grounds that a board joins are one to a reader; other equal labels are not") {
  const auto h = wiredBench("part u board-uno-atmega328p\npart s l298n-module\nwire u.GND-2 s.GND BK");
  for (const auto& [said, agrees] : {std::pair{"u gnd", 1}, {"u.GND-3", 1}, {"u 5v", 0}}) {
    Round r{"round1", {}, {}, 1, {}, {}, nullptr};
    const auto a = answered(h, library(), {"w1", true, 1}, said, {});
    REQUIRE(a);
    r.answers.push_back(*a);
    CHECK(result(h, library(), r).agreed == agrees);
  }
  // A wire that is changed afterwards is asked again.
  Round r{"round1", {}, {}, 1, {}, {}, nullptr};
  r.answers.push_back(*answered(h, library(), {"w1", true, 1}, "u gnd", {}));
  auto other = h;
  std::ranges::find(other.connections, "w1", &harness::Connection::id)->a.terminal = "D3";
  CHECK(questionsLeft(other, library(), r) == 1);
  CHECK(questionsLeft(h, library(), r) == 0);
}

TEST_CASE("wires that look alike at one end are read in any order") {
  const auto h = wiredBench(
      "part u board-uno-atmega328p\npart s l298n-module\npart t l298n-module\npart v l298n-module\nwire s.GND u.GND BK\nwire t.GND u.GND "
      "BK\nwire "
      "v.GND u.GND BK");
  Round r{"round1", {}, {}, 1, {}, {}, nullptr};
  for (const auto& [wire, said] : {std::pair{"w1", "t gnd"}, {"w2", "v gnd"}, {"w3", "s gnd"}})
    r.answers.push_back(*answered(h, library(), {wire, true, 3}, said, {}));
  CHECK(result(h, library(), r).agreed == 3);
  r.answers[2] = *answered(h, library(), {"w3", true, 3}, "t gnd", {});  // the same one twice
  const auto twice = result(h, library(), r);
  CHECK(twice.agreed == 2);
  REQUIRE(twice.disagreements.size() == 1);
  CHECK(twice.disagreements[0].wire == "w1");
}

TEST_CASE("an answer that cannot be understood is refused in words that hold no more than was typed") {
  for (const auto& q : questions(waveTank(), 1)) {
    const auto a = answered(waveTank(), library(), q, "somewhere else", {});
    REQUIRE_FALSE(a);
    CHECK(a.error().what == "\"somewhere else\" is no terminal on this bench: write device.terminal, such as s1.in1.");
    CHECK(a.error().what.find(far(waveTank(), q).text()) == std::string::npos);
  }
}

// Somebody wired another bench than the list: on every good bench each slip in turn, read from whichever end is named.
TEST_CASE("any wire in any other place is found by reading or by counting, and no other wire is blamed") {
  int planted = 0, named = 0;
  unsigned dice = 11;
  const auto next = [&](std::size_t n) {
    dice = dice * 1664525U + 1013904223U;
    return (dice >> 8U) % n;
  };
  for (const auto& name : goodNames()) {
    const auto list = good(name);
    for (int k = 0; k < 3; ++k) {
      std::vector<const harness::Connection*> wires;
      for (const auto& c : list.connections)
        if (c.kind == harness::ConnectionKind::Wire) wires.push_back(&c);
      if (wires.empty()) continue;
      const auto& wire = *wires[next(wires.size())];
      const bool second = next(2) == 1;
      const auto& end = second ? wire.b : wire.a;
      const auto part = library().find(list.device(end.device)->part);
      const auto& other = part->terminals[next(part->terminals.size())];
      const Address to{end.device, other.id};
      if (to == wire.a || to == wire.b || other.label == part->find(end.terminal)->label) continue;
      auto bench = list;
      auto& moved = *std::ranges::find(bench.connections, wire.id, &harness::Connection::id);
      (second ? moved.b : moved.a) = to;
      const auto round = read(list, bench, static_cast<int>(next(1000)));
      const auto r = result(list, library(), round);
      INFO(name << ": " << wire.id << " " << end.text() << " to " << to.text());
      ++planted;
      // Wires that look alike at the named end may stand in for each other.
      REQUIRE(r.disagreements.size() == 1);
      const auto& d = r.disagreements[0];
      const auto* blamed = list.connection(d.wire);
      CHECK(blamed->colour == wire.colour);
      CHECK((d.wire == wire.id || d.named == (round.answers[0].fromB ? blamed->b : blamed->a) || d.named == wire.a || d.named == wire.b));
      CHECK((!d.said || *d.said == to));
      named += d.said.has_value();
      CHECK(analyseFast(asRead(list, r)).solved);
    }
  }
  CHECK(planted > 150);
  CHECK(named > planted / 4);  // at the other end the reader finds nothing
}
