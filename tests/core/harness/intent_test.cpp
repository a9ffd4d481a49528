#include "core/harness/intent.h"

#include <algorithm>
#include <catch2/catch.hpp>

#include "support/benches.h"

using namespace bold;
using namespace bold::harness;
using namespace bold::test;

namespace {

Assignment byProgram(std::string id, std::string role, Address pin, int line) {
  return {.id = std::move(id), .motor = "pump", .role = std::move(role), .pin = std::move(pin), .source = {"tank.ino", line}};
}

// What was typed stands before what a program says.
Intent byRole(Intent i) {
  std::ranges::sort(i.signals, {}, &Signal::role);
  return i;
}

}  // namespace

TEST_CASE("what is typed and what a program says is joined, and what both say alike is no disagreement") {
  auto h = good("low-side");
  const auto before = *intentOf(h, "pump");
  h.assignments.push_back(byProgram("a1", "in", {"uno", "D5"}, 12));
  h.program.push_back({.id = "f1", .motor = "pump", .pwm = Hertz{976}, .ramp = true, .source = {"tank.ino", 14}});
  const auto now = *intentOf(h, "pump");
  CHECK(now.ramp);
  CHECK(now.signals == before.signals);
  CHECK(disagreements(h).empty());
}

TEST_CASE("a disagreement is named with both origins, keeps the bench from being judged, and overwrites nothing") {
  auto h = good("low-side");
  h.assignments.push_back(byProgram("a1", "in", {"uno", "D6"}, 12));
  const auto open = disagreements(h);
  REQUIRE(open.size() == 1);
  CHECK(open[0].what == "The pin for in of Pump is uno.D5 (typed) and uno.D6 (tank.ino, line 12).");
  CHECK(intentOf(h, "pump")->signals.front().pin.text() == "uno.D5");
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::NotJudged);
  CHECK(std::ranges::count(a.why, open[0].what) == 1);
  // The program alone is taken at its word.
  std::erase_if(h.assignments, [](const Assignment& x) { return x.source.typed(); });
  CHECK(disagreements(h).empty());
  CHECK(intentOf(h, "pump")->signals.front().pin.text() == "uno.D6");
}

TEST_CASE("every item that can be stated can disagree") {
  const auto differ = [](auto put) {
    auto h = good("step-dir-3v3");
    h.goals.clear();
    h.program.clear();
    put(h);
    return disagreements(h).size();
  };
  CHECK(differ([](Harness& h) { h.goals = {{.id = "a", .motor = "m", .hold = true}, {.id = "b", .motor = "m", .hold = false}}; }) == 1);
  CHECK(differ([](Harness& h) { h.goals = {{.id = "a", .motor = "m", .hold = true}, {.id = "b", .motor = "m", .together = true}}; }) == 0);
  CHECK(differ([](Harness& h) { h.goals = {{.id = "a", .motor = "m", .stage = "s1"}, {.id = "b", .motor = "m", .stage = "s2"}}; }) == 1);
  CHECK(differ([](Harness& h) {
          h.program = {{.id = "a", .motor = "m", .stepsPerTurn = 200, .pulse = Seconds{1e-6}},
                       {.id = "b", .motor = "m", .stepsPerTurn = 400, .pulse = Seconds{2e-6}}};
        }) == 2);
  CHECK(differ([](Harness& h) {
          h.assignments[0].active = Active::High;
          auto other = h.assignments[0];
          other.id = "other";
          other.active = Active::Low;
          h.assignments.push_back(other);
        }) == 1);
}

TEST_CASE("stating changes what was typed, is undone to the byte, and leaves the program's statements alone") {
  auto h = good("low-side");
  h.program.push_back({.id = "f1", .motor = "pump", .stepsPerTurn = 5, .source = {"tank.ino", 3}});
  h.assignments.push_back(byProgram("a1", "speed", {"uno", "D9"}, 8));
  const auto before = h;
  auto wanted = *intentOf(h, "pump");
  wanted.bothDirections = true;
  wanted.ramp = true;
  wanted.pwm = Hertz{20000};
  wanted.signals[0].pin = {"uno", "D6"};
  wanted.signals.push_back({"enable", {"uno", "D7"}, "label", Active::Low});
  const auto back = apply(h, stating(h, wanted, "x"));
  CHECK(byRole(*intentOf(h, "pump")) == byRole(wanted));
  CHECK(h.program.back() == before.program.back());
  CHECK(h.assignments.size() == before.assignments.size() + 1);
  CHECK(disagreements(h).empty());
  apply(h, back);
  CHECK(h == before);
  // What the program says cannot be typed away, only contradicted.
  wanted = *intentOf(h, "pump");
  wanted.stepsPerTurn = 10;
  apply(h, stating(h, wanted, "x"));
  CHECK(disagreements(h).size() == 1);
  CHECK(intentOf(h, "pump")->stepsPerTurn == 10);
}

TEST_CASE("a motor nobody spoke of gets a goal with the first thing that is said") {
  auto h = good("low-side");
  h.goals.clear();
  h.assignments.clear();
  h.program.clear();
  CHECK_FALSE(intentOf(h, "pump"));
  apply(h, stating(h, {.motor = "pump", .signals = {{"in", {"uno", "D5"}}}}, "x"));
  CHECK(h.goals.size() == 1);
  CHECK(h.assignments.size() == 1);
  CHECK(h.program.empty());
  CHECK(stating(h, *intentOf(h, "pump"), "x").changes.empty());
}

TEST_CASE("a motor whose pins nobody stated stays Look again, though wires say what reaches it") {
  auto h = good("bridge");
  h.assignments.clear();
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::LookAgain);
  REQUIRE(a.unstated.size() == 2);
}
