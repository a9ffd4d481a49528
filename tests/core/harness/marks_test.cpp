#include "core/harness/marks.h"

#include <catch2/catch.hpp>

#include "core/harness/mark_done.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

const Witness kWitness{"AB", "2026-11-30T10:12"};

Harness small() {
  return wiredBench(
      "part u board-uno-atmega328p Board\npart s l298n-module Left\nwire u.D9 s.IN1 YE\nwire u.GND s.GND BK\nwire u.D8 s.IN2 GN");
}
void put(Harness& h, const std::string& wire, Marked what, const Found& found = {}) {
  apply(h, mark(h, library(), wire, what, kWitness, found));
}
Marks of(const Harness& h, const std::string& wire) {
  return marksOf(h, library(), *h.connection(wire));
}
// What marking makes of this wire once it is changed: whether the mark still holds.
bool holdsAfter(const std::function<void(Harness&)>& change) {
  auto h = small();
  put(h, "w1", Marked::Seen);
  REQUIRE(of(h, "w1").seen);
  change(h);
  return of(h, "w1").seen;
}
Connection& wire(Harness& h, const std::string& id) {
  return *std::ranges::find(h.connections, id, &Connection::id);
}

}  // namespace

TEST_CASE("a mark says who, when and what, and the same key again takes it off") {
  auto h = small();
  put(h, "w1", Marked::Fitted);
  put(h, "w1", Marked::Tugged);
  put(h, "w1", Marked::Seen);
  CHECK(of(h, "w1").complete());
  CHECK(of(h, "w1").seen->by == "AB");
  CHECK(of(h, "w1").seen->at == "2026-11-30T10:12");
  CHECK_FALSE(of(h, "w2").fitted);
  put(h, "w1", Marked::Tugged);
  CHECK_FALSE(of(h, "w1").tugged);
  CHECK(of(h, "w1").fitted);
  CHECK(mark(h, library(), "w9", Marked::Fitted, kWitness).changes.empty());
}

TEST_CASE("what somebody looked at and is not there any more is open again, and comes back with it") {
  CHECK(holdsAfter([](Harness&) {}));
  CHECK(holdsAfter([](Harness& h) { h.devices[1].name = "Right"; }));         // a name is on no board
  CHECK(holdsAfter([](Harness& h) { wire(h, "w1").length = Metres{0.4}; }));  // what nobody looks at from its ends
  CHECK(holdsAfter([](Harness& h) { std::swap(wire(h, "w1").a, wire(h, "w1").b); }));
  CHECK(holdsAfter([](Harness& h) { wire(h, "w2").a.terminal = "GND-2"; }));  // another wire
  CHECK_FALSE(holdsAfter([](Harness& h) { wire(h, "w1").a.terminal = "D10"; }));
  CHECK_FALSE(holdsAfter([](Harness& h) { wire(h, "w1").colour = "RD"; }));
  CHECK_FALSE(holdsAfter([](Harness& h) { h.devices[1].part = "l9110s-module"; }));
  auto h = small();
  put(h, "w1", Marked::Seen);
  const auto back = apply(h, {"move",
                              {Put<Connection>{[&] {
                                                 auto c = wire(h, "w1");
                                                 c.b.terminal = "IN3";
                                                 return c;
                                               }(),
                                               {}}}});
  CHECK_FALSE(of(h, "w1").seen);
  apply(h, back);
  CHECK(of(h, "w1").seen);
}

TEST_CASE("fitted makes what is planned, and a wire that was to go is gone") {
  auto h = small();
  wire(h, "w1").state = State::Planned;
  wire(h, "w3").state = State::ToBeRemoved;
  put(h, "w1", Marked::Fitted);
  CHECK(wire(h, "w1").state == State::OnBench);
  CHECK(of(h, "w1").fitted);
  put(h, "w3", Marked::Fitted);
  CHECK_FALSE(h.connection("w3"));
}

TEST_CASE("what was found in the place of a wire is understood as an end, as both, or kept as words; the verdict waits for it") {
  auto h = good("bridge");
  REQUIRE(analyseFast(h).verdict != Verdict::NotJudged);
  const auto& c =
      *std::ranges::find_if(h.connections, [](const Connection& x) { return x.kind == ConnectionKind::Wire && x.a.device != x.b.device; });
  const auto id = c.id;
  const auto other = parseFound(h, library(), c, c.b.device + "." + library().find(h.device(c.b.device)->part)->terminals.back().id);
  REQUIRE(other);
  REQUIRE(other->ends);
  CHECK((*other->ends)[0] == c.a);
  CHECK((*other->ends)[1].device == c.b.device);
  const auto words = parseFound(h, library(), c, "hangs loose");
  REQUIRE(words);
  CHECK_FALSE(words->ends);
  CHECK(words->words == "hangs loose");
  for (const auto& d : h.devices)
    if (d.id != c.a.device && d.id != c.b.device && library().find(d.part)->terminals.size() > 1) {
      const auto which = parseFound(h, library(), c, d.id + "." + library().find(d.part)->terminals[0].id);
      REQUIRE_FALSE(which);
      CHECK(which.error().what.starts_with("Which end goes to "));
      break;
    }

  put(h, id, Marked::Seen);
  put(h, id, Marked::Wrong, *other);
  CHECK_FALSE(of(h, id).seen);
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::NotJudged);
  REQUIRE_FALSE(a.why.empty());
  CHECK(a.why.front().find("found otherwise") != std::string::npos);
  CHECK(asFound(h, library()).connection(id)->b == (*other->ends)[1]);

  // The bench is right: the list takes it over, and it is judged as it is.
  auto taken = h;
  apply(taken, takeAsFound(taken, library(), id, kWitness));
  CHECK(taken.connection(id)->b == (*other->ends)[1]);
  CHECK(of(taken, id).seen);
  CHECK_FALSE(of(taken, id).wrong);
  CHECK(analyseFast(taken).verdict != Verdict::NotJudged);
  // The list is right: it was put where it belongs.
  put(h, id, Marked::Fitted);
  CHECK_FALSE(of(h, id).wrong);
  CHECK(analyseFast(h).verdict != Verdict::NotJudged);
}

TEST_CASE("a wire that was found elsewhere stays so until somebody looks again: no other change of it clears the bench") {
  auto h = good("bridge");
  const auto id = std::ranges::find(h.connections, ConnectionKind::Wire, &Connection::kind)->id;
  const Found elsewhere{{{wire(h, id).a, Address{wire(h, id).b.device, "elsewhere"}}}, {}};
  put(h, id, Marked::Wrong, elsewhere);
  const auto judged = [&] { return analyseFast(h).verdict != Verdict::NotJudged; };
  REQUIRE_FALSE(judged());
  wire(h, id).colour = wire(h, id).colour == "PK" ? "TQ" : "PK";
  CHECK(of(h, id).wrong);
  CHECK_FALSE(judged());
  // Another wire does not get its id, and so not its mark.
  auto without = h;
  std::erase_if(without.connections, [&](const Connection& c) { return c.id == id; });
  CHECK(without.freeId("w") != id);
  // Somebody looked: it is as the list says.
  auto looked = h;
  put(looked, id, Marked::Seen);
  CHECK_FALSE(of(looked, id).wrong);
  // The list says what was found.
  wire(h, id).b = (*elsewhere.ends)[1];
  CHECK_FALSE(of(h, id).wrong);
}

TEST_CASE("marks and rounds are read as they were written; what cannot be read of them is said and stays") {
  auto h = small();
  put(h, "w1", Marked::Fitted);
  put(h, "w3", Marked::Wrong, {{{Address{"u", "D7"}, Address{"s", "IN2"}}}, {}});
  put(h, "w2", Marked::Wrong, {{}, "hangs loose"});
  Round r{"round1",   "CD",   "2026-11-30T10:20", 4711, {{"w1", true, "0123456789abcdef", "u d9", Address{"u", "D9"}, "2026-11-30T10:21"}},
          {{"u", 3}}, nullptr};
  r.answers.push_back({"w2", false, "0123456789abcdef", "none", {}, {}});
  apply(h, {"read", {Put<Round>{r, {}}}});
  const auto text = writeHarness(h);
  auto again = readHarness(text, "b");
  REQUIRE(again);
  CHECK(again->problems.empty());
  CHECK(writeHarness(again->harness) == text);
  REQUIRE(again->harness.marks.size() == 3);
  CHECK(again->harness.marks[1].found == h.marks[1].found);
  CHECK(again->harness.marks[2].remark == "hangs loose");
  auto round = again->harness.rounds.at(0);
  round.raw = nullptr;
  CHECK(round == r);

  // Broken ones: an unknown mark, one without a digest, an answer that is no address, a count that is none.
  const auto broken = [&](std::string from, std::string to) {
    auto bad = text;
    const auto at = bad.find(from);
    REQUIRE(at != std::string::npos);
    bad.replace(at, from.size(), to);
    const auto read = readHarness(bad, "b");
    REQUIRE(read);
    REQUIRE(read->problems.size() == 1);
    CHECK(writeHarness(read->harness) == bad);
    return read->problems[0].what + " | " + read->problems[0].kept;
  };
  CHECK(broken("\"fitted\"", "\"ticked\"") ==
        "\"mark\" is \"ticked\": it can be \"fitted\", \"tugged\", \"seen\" or \"wrong\". | The mark was left out.");
  CHECK(broken("\"means\": \"u.D9\"", "\"means\": \"u D9\"").find("cannot be used") != std::string::npos);
  CHECK(broken("T10:21\"", "T10.21\"").find("is no time such as") != std::string::npos);
  CHECK(broken("{\"u\": 3}", "{\"u\": -3}").find("whole number") != std::string::npos);
  CHECK(broken("[\"u.D7\", \"s.IN2\"]", "[\"u.D7\"]").find("needs exactly 2 terminals") != std::string::npos);
}

TEST_CASE("whatever stands in the place of a mark, an answer or a count is read without harm, said, and stays") {
  auto h = small();
  put(h, "w1", Marked::Fitted);
  for (const std::string odd : {"5", "\"x\"", "[1]", "null", "true", "{}", "-1e300"}) {
    auto text = writeHarness(h);
    const auto end = text.rfind('}');
    text.insert(
        end, ", \"rounds\": [" + odd + R"(, {"id": "r", "answers": [)" + odd + R"(], "counts": )" + odd + R"(, "shuffle": )" + odd + "}]");
    const auto at = text.find("\"marks\": [");
    REQUIRE(at != std::string::npos);
    text.insert(at + 10, odd + ", ");
    const auto read = readHarness(text, "b");
    INFO(odd);
    REQUIRE(read);
    CHECK(read->problems.size() >= 2);
    CHECK(writeHarness(read->harness) == text);
    CHECK(read->harness.marks.size() == 1);
    CHECK_FALSE(analyseFast(read->harness).verdict == Verdict::Clear);
  }
}

TEST_CASE("marks are nothing that is judged, and cost no judgement anew") {
  auto h = good("bridge");
  const auto before = analyseFast(h);
  put(h, h.connections.back().id, Marked::Fitted);
  Options options;
  options.explain = false;
  const auto after = analyse(h, library(), options, &before);
  CHECK(after.solved == before.solved);
  CHECK(after.findings.size() == before.findings.size());
}
