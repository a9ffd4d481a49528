#include <algorithm>
#include <catch2/catch.hpp>

#include "core/choose/candidates.h"
#include "core/harness/exchange_part.h"
#include "core/harness/read_harness.h"
#include "core/harness/source_standing.h"
#include "core/program/pins_used.h"
#include "core/wiring/program_edit.h"
#include "core/wiring/program_plan.h"
#include "core/wiring/program_rows.h"
#include "support/benches.h"
#include "support/process.h"

using namespace bold;
using namespace bold::harness;
using checks::Finding;
using checks::Severity;
using namespace bold::test;

namespace {

const std::string kPump =
    "const int PUMP = 5;\nvoid setup() { pinMode(PUMP, OUTPUT); analogWriteFrequency(PUMP, 20000); }\nvoid loop() { analogWrite(PUMP, "
    "102); delay(9); analogWrite(PUMP, 0); }\n";

// A bench whose plan says nothing, with a program.
struct Read {
  Harness h;
  explicit Read(const std::string& text, const std::string& bench = "low-side") : h(good(bench)) {
    h.assignments.clear();
    h.goals.clear();
    h.program.clear();
    again(text);
  }
  void again(const std::string& text) {
    const auto read = program::readTexts({{"tank.ino", text}}, "board-uno-atmega328p", program::shippedCalls());
    apply(h, wiring::programEdit(h, library(), read, "uno", "src/"));
  }
};

}  // namespace

TEST_CASE("a program that is read states the pins that the wires bring to a motor, with their line, and no more") {
  Read r(kPump);
  REQUIRE(r.h.sources.size() == 1);
  CHECK(r.h.sources[0].files == std::vector<SourceFile>{{"src/tank.ino", sourceDigest(kPump), Standing::AsRead}});
  REQUIRE(r.h.assignments.size() == 1);
  const auto a = r.h.assignments[0];
  CHECK(a.motor == "pump");
  CHECK(a.role == "in");
  CHECK(a.pin == Address{"uno", "D5"});
  CHECK(a.source == Origin{"src/tank.ino", 1});
  CHECK(r.h.goals.empty());
  // What it said before goes with it.
  r.again("void setup() { pinMode(6, OUTPUT); }\nvoid loop() { analogWrite(6, 9); }");
  CHECK(r.h.sources.size() == 1);
  CHECK(r.h.assignments.empty());
  r.again(kPump);
  CHECK(r.h.assignments.size() == 1);
  apply(r.h, wiring::forgetProgram(r.h, "uno"));
  CHECK(r.h.sources.empty());
  CHECK(r.h.assignments.empty());
}

TEST_CASE("what somebody typed of a pin stays, and the program is held against it") {
  Read r(kPump);
  auto typed = good("low-side");
  const auto before = typed.assignments;
  apply(typed, wiring::programEdit(typed, library(),
                                   program::readTexts({{"tank.ino", kPump}}, "board-uno-atmega328p", program::shippedCalls()), "uno", ""));
  CHECK(typed.assignments == before);
  // The wire is moved afterwards: what the program was found to drive is there no more.
  for (auto& c : r.h.connections)
    for (auto* end : {&c.a, &c.b})
      if (*end == Address{"uno", "D5"}) *end = Address{"uno", "D6"};
  const auto a = analyseFast(r.h);
  CHECK_FALSE(findingsOf(a, "program-pin-slip").empty());
}

TEST_CASE("an edit that reads a program is taken back to the byte, and survives the file") {
  auto h = *std::move(readHarness(readFile("demo/wave-tank.harness"), "x")->harness.raw
                          ? std::optional(readHarness(readFile("demo/wave-tank.harness"), "x")->harness)
                          : std::nullopt);
  const auto before = writeHarness(h);
  const auto read =
      program::readTexts({{"wave-tank.ino", readFile("demo/wave-tank.ino")}}, "board-uno-atmega328p", program::shippedCalls());
  const auto back = apply(h, wiring::programEdit(h, library(), read, "uno", ""));
  const auto with = writeHarness(h);
  CHECK(with != before);
  const auto again = readHarness(with, "x");
  REQUIRE(again);
  CHECK(again->problems.empty());
  CHECK(writeHarness(again->harness) == with);
  auto plain = again->harness.sources.front();
  CHECK(plain.files.front().standing == Standing::Unlooked);  // nobody has looked since
  plain.raw = nullptr;
  plain.files.front().standing = Standing::AsRead;
  CHECK(plain == h.sources.front());
  apply(h, back);
  CHECK(writeHarness(h) == before);
}

TEST_CASE("sources that are missing, changed or unlooked keep a bench from being judged, and say so") {
  const TemporaryFolder folder;
  Disk disk;
  const auto bench = folder.path("bench.harness");
  Read r(kPump);
  const auto why = [&] {
    const auto a = analyseFast(r.h);
    return std::pair(a.verdict == Verdict::NotJudged, a.why.empty() ? std::string() : a.why.front());
  };
  CHECK_FALSE(why().first);
  CHECK(lookAtSources(disk, r.h, bench));
  CHECK(why().first);
  CHECK(why().second.find("src/tank.ino is not there") != std::string::npos);
  (void)folder.write("src/tank.ino", kPump);
  CHECK(lookAtSources(disk, r.h, bench));
  CHECK_FALSE(lookAtSources(disk, r.h, bench));  // nothing new
  CHECK_FALSE(why().first);
  (void)folder.write("src/tank.ino", kPump + " ");
  CHECK(lookAtSources(disk, r.h, bench));
  CHECK(why().second.find("was changed since it was read") != std::string::npos);
  r.h.sources[0].files[0].standing = Standing::Unlooked;
  CHECK(why().second.find("nobody looked") != std::string::npos);
  r.h.sources[0].controller = "gone";
  CHECK(why().first);
}

TEST_CASE("sources keep their place when the document moves to another folder") {
  Read r(kPump);
  moveSources(r.h, "/home/a/bench.harness", "/home/a/copy.harness");
  CHECK(r.h.sources[0].files[0].file == "src/tank.ino");
  moveSources(r.h, "/home/a/bench.harness", "/home/a/b/bench.harness");
  CHECK(r.h.sources[0].files[0].file == "../src/tank.ino");
  CHECK(r.h.sources[0].pins[0].number.file == "../src/tank.ino");
  CHECK(r.h.assignments[0].source.file == "../src/tank.ino");
  moveSources(r.h, "/home/a/b/bench.harness", "");
  CHECK(r.h.sources[0].files[0].file == "/home/a/src/tank.ino");
}

TEST_CASE("a row a pin: what the program says, what the wires say, disagreements first") {
  const auto h = wiredBench(
      "from bridge\nprogram uno tank.ino\n| const int LEFT_EN = 9;\n| void setup() { for (int p = 2; p < 10; p++) pinMode(p, OUTPUT); }\n| "
      "void d(int e, int a, int b, int v) { digitalWrite(a, v > 0); "
      "digitalWrite(b, v < 0); analogWrite(e, abs(v)); }\n| void loop() { d(LEFT_EN, 7, 8, 99); delay(9); d(LEFT_EN, 7, 8, -99); d(6, 2, "
      "4, 99); delay(9); d(6, 2, 4, -99); d(6, 2, 4, 0); }");
  const auto a = analyseFast(h);
  const auto rows = wiring::programRows(a, h.sources[0]);
  REQUIRE(rows.size() >= 8);
  CHECK(rows[0].disagrees());
  CHECK(rows[1].disagrees());
  CHECK_FALSE(rows.back().disagrees());
  const auto row = [&](const std::string& name) { return *std::ranges::find(rows, name, &wiring::ProgramRow::name); };
  CHECK(row("D9").program == "9 (LEFT_EN): PWM up to 39 %");
  CHECK(row("D9").wires == "not wired");
  CHECK(row("D5").program == "5: an output, never written and so low");
  CHECK(row("D5").wires == "S1 ENA: speed of Left");
  CHECK(row("D7").wires == "S1 IN1: in1 of Left");
  CHECK(row("D9").spots.front().line == 1);
  CHECK(wiring::toldWords(h.sources[0]).find("could be told") != std::string::npos);
}

TEST_CASE("a plan from the program proposes goals and pins; what is confirmed is typed from then on") {
  Read r(kPump);
  const auto proposals = wiring::planFromProgram(r.h, analyseFast(r.h));
  std::string all;
  for (const auto& p : proposals) all += p.text + "\n";
  CHECK(all == "Pump: in from Controller D5 (PUMP)\nPump: its speed is set by PWM\nPump: PWM at 20 kHz\nPump: a duty of 40 % at most\n");
  // One of them, then the rest.
  auto one = r.h;
  const auto back = apply(one, wiring::planEdit(one, {proposals[1]}));
  CHECK(intentOf(one, "pump")->speedControl);
  CHECK_FALSE(intentOf(one, "pump")->pwm);
  apply(one, back);
  CHECK(intentsOf(one) == intentsOf(r.h));
  apply(r.h, wiring::planEdit(r.h, proposals));
  const auto intent = *intentOf(r.h, "pump");
  CHECK(intent.speedControl);
  CHECK(intent.pwm->value == 20000);
  CHECK(*intent.dutyCap == Approx(0.4));
  CHECK(std::ranges::all_of(r.h.assignments, [](const Assignment& a) { return a.source.typed(); }));
  CHECK(disagreements(r.h).empty());
  CHECK(wiring::planFromProgram(r.h, analyseFast(r.h)).empty());
  // From now on it is the plan: another program is held against it.
  r.again("void setup() { pinMode(6, OUTPUT); }\nvoid loop() { analogWrite(6, 9); }");
  CHECK(r.h.assignments.size() == 1);
}

TEST_CASE("two motors and a stepper are planned too") {
  const auto h = wiredBench(
      "from array\nprogram uno gate.ino\n| #include <Stepper.h>\n| Stepper gate(2048, 8, 10, 9, 11);\n| void setup() { gate.setSpeed(10); "
      "}\n| void loop() { gate.step(99); }");
  auto bare = h;
  bare.assignments.clear();
  bare.goals.clear();
  bare.program.clear();
  std::string all;
  const auto proposals = wiring::planFromProgram(bare, analyseFast(bare));
  for (const auto& p : proposals) all += p.text + "\n";
  CHECK(all.find("Gate: in1 from Controller D8 (gate)\n") != std::string::npos);
  CHECK(all.find("Gate: full sequence\n") != std::string::npos);
  CHECK(all.find("Gate: 2048 steps a turn\n") != std::string::npos);
  apply(bare, wiring::planEdit(bare, proposals));
  CHECK(intentOf(bare, "m")->signals.size() == 4);
  CHECK(intentOf(bare, "m")->sequence == "full");
}

TEST_CASE("what could not be told of a program keeps a bench from Clear where it may be about any pin") {
  auto h = wiredBench(
      "from low-side\nprogram uno tank.ino\n| void setup() { pinMode(5, OUTPUT); pinMode(analogRead(0), OUTPUT); }\n| void loop() { "
      "analogWrite(5, 99); delay(9); analogWrite(5, 0); }");
  const auto a = analyseFast(h);
  CHECK(a.verdict == Verdict::LookAgain);
  REQUIRE_FALSE(a.why.empty());
  CHECK(
      a.why.back() ==
      "of the program of uno 1 thing is not told, which may be about any pin: tank.ino, line 1: which pin pinMode means is not known: what "
      "analogRead gives is not known before it runs");
  h.sources[0].untold.clear();
  CHECK(analyseFast(h).verdict == Verdict::Clear);
}

TEST_CASE("a controller that is exchanged for another wants its program read again") {
  Read r(kPump);
  const auto exchange = exchangePart(r.h, library(), "uno", "board-uno-ra4m1");
  REQUIRE(exchange);
  apply(r.h, exchange->edit);
  CHECK(r.h.sources[0].files[0].standing == Standing::Changed);
  CHECK(analyseFast(r.h).verdict == Verdict::NotJudged);
}

TEST_CASE("a pipe or device that a bench names as a source is never waited for") {
  const TemporaryFolder folder;
  REQUIRE(std::system(("mkfifo " + folder.path("pipe.ino")).c_str()) == 0);
  Read r(kPump);
  r.h.sources[0].files[0].file = "pipe.ino";
  Disk disk(Feed::PipesToo);
  (void)lookAtSources(disk, r.h, folder.path("bench.harness"));
  CHECK(r.h.sources[0].files[0].standing == Standing::Missing);
  CHECK_FALSE(program::readProgram(disk, {folder.path("pipe.ino")}, "", program::shippedCalls()));
}

TEST_CASE("a stage is not blamed for a program that does not know it yet") {
  Read r(kPump);
  apply(r.h, {"x", {Put<Device>{{.id = "flap", .part = "brushed-gear25-12v"}, {}}}});
  const auto before = *choose::beforeStages(r.h, library(), "flap", {});
  const auto c = choose::candidate(r.h, library(), "flap", {"l298n-module"}, {}, {}, before);
  REQUIRE(c);
  CHECK(std::ranges::none_of(c->against, [](const auto& f) { return f.check.starts_with("program-"); }));
}

TEST_CASE("what a program does with a pin for certain stops, what it perhaps does is looked at again") {
  const auto of = [](const std::string& pin) {
    const Read r("void setup() {\n  int p = " + pin + ";\n  pinMode(p, OUTPUT);\n  analogWrite(p, 300);\n}\nvoid loop() {}\n");
    const auto a = analyseFast(r.h);
    std::vector<Finding> out;
    for (const auto& f : a.findings)
      if (f.check == "program-duty-scale") out.push_back(f);
    REQUIRE(out.size() == 1);
    return out.front();
  };
  CHECK(of("5").severity == Severity::Stop);
  CHECK(of("5").text.find("not certain") == std::string::npos);
  const auto perhaps = of("digitalRead(2) ? 5 : 4");
  CHECK(perhaps.severity == Severity::Caution);
  CHECK(perhaps.text.ends_with("Whether it does is not certain: which pin is meant depends on what is not known."));
  // Nor is a pin that it may be said to be driven for nothing.
  const Read r("void setup() {\n  int p = digitalRead(2) ? 5 : 4;\n  pinMode(p, OUTPUT);\n  digitalWrite(p, HIGH);\n}\nvoid loop() {}\n");
  CHECK(std::ranges::none_of(analyseFast(r.h).findings, [](const Finding& f) { return f.check == "program-pin-unwired"; }));
  const auto rows = wiring::programRows(analyseFast(r.h), r.h.sources[0]);
  CHECK(
      std::ranges::any_of(rows, [](const auto& x) { return x.name == "D4" && x.program.find("perhaps only high") != std::string::npos; }));
}
