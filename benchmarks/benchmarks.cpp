// ./dev bench: how long the engine takes. Figures and the machine they were read on: docs/benchmarks.md.
#include <benchmark/benchmark.h>

#include "core/bench/solved_bench.h"
#include "core/choose/assign_pins.h"
#include "core/choose/smallest_change.h"
#include "core/harness/read_harness.h"
#include "core/parts/roles.h"
#include "core/program/pins_used.h"
#include "support/benches.h"
#include "support/generate.h"

using namespace bold;
using namespace bold::test;

namespace {

void loadLibrary(benchmark::State& state) {
  for (auto _ : state) benchmark::DoNotOptimize(parts::Library::shipped());
}
BENCHMARK(loadLibrary)->Unit(benchmark::kMillisecond);

void analyseDemo(benchmark::State& state) {
  const auto h = wiredBench(readFile("demo/wave-tank.bench"));
  for (auto _ : state) benchmark::DoNotOptimize(analyseFast(h));
}
BENCHMARK(analyseDemo)->Unit(benchmark::kMillisecond);

void analyseFirstTryWithExplanations(benchmark::State& state) {
  const auto h = wiredBench(readFile("demo/wave-tank-first-try.bench"));
  for (auto _ : state) benchmark::DoNotOptimize(analyse(h, library()));
}
BENCHMARK(analyseFirstTryWithExplanations)->Unit(benchmark::kMillisecond);

void analyseMotors(benchmark::State& state) {
  const auto h = benchOf(static_cast<int>(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(analyseFast(h));
}
BENCHMARK(analyseMotors)->DenseRange(1, 6)->Unit(benchmark::kMillisecond);

void analyseManyMotors(benchmark::State& state) {
  const auto h = benchOf(static_cast<int>(state.range(0)));
  for (auto _ : state) benchmark::DoNotOptimize(analyseFast(h));
}
BENCHMARK(analyseManyMotors)->Arg(12)->Arg(24)->Arg(50)->Arg(100)->Arg(200)->Unit(benchmark::kMillisecond)->Iterations(1);

// What there is to beat: the whole bench for every command anew, from nothing, one after the other.
void solveNaively(benchmark::State& state) {
  const auto h = benchOf(static_cast<int>(state.range(0)));
  for (auto _ : state) {
    bench::SolvedBench s(bench::makeBench(h, library()));
    for (const auto& c : s.commands)
      for (const auto corner : c.corners) benchmark::DoNotOptimize(bench::solve(s.bench, s.nets, s.motors, c, corner, nullptr, nullptr));
  }
}
BENCHMARK(solveNaively)->Arg(1)->Arg(6)->Arg(12)->Unit(benchmark::kMillisecond);

void loadAndWriteBench(benchmark::State& state) {
  const auto text = harness::writeHarness(benchOf(static_cast<int>(state.range(0))));
  for (auto _ : state) benchmark::DoNotOptimize(harness::writeHarness(harness::readHarness(text, "b")->harness));
}
BENCHMARK(loadAndWriteBench)->Arg(6)->Arg(50)->Arg(200)->Arg(400)->Unit(benchmark::kMicrosecond);

std::string firstMotor(const harness::Harness& h) {
  for (const auto& d : h.devices)
    if (const auto p = library().find(d.part); p && parts::isMotor(*p)) return d.id;
  return {};
}

// One motor of six against the whole library: all of it, and the first ten rows.
void chooseStage(benchmark::State& state) {
  const auto h = benchOf(6);
  const auto motor = firstMotor(h);
  const auto now = judge(h, library(), {});
  for (auto _ : state) {
    const auto before = choose::beforeStages(h, library(), motor, {}, *now);
    std::int64_t left = state.range(0);
    for (const auto& offer : choose::stagesFor(h, library(), motor)) {
      if (left-- == 0) break;
      benchmark::DoNotOptimize(choose::candidate(h, library(), motor, offer, {}, {}, *before));
    }
  }
}
BENCHMARK(chooseStage)->Arg(10)->Arg(1000)->Unit(benchmark::kMillisecond)->UseRealTime();

void chooseStageWithChanges(benchmark::State& state) {
  const auto h = benchOf(6);
  const auto motor = firstMotor(h);
  const auto now = judge(h, library(), {});
  for (auto _ : state) {
    const auto before = choose::beforeStages(h, library(), motor, {}, *now);
    for (const auto& offer : choose::stagesFor(h, library(), motor)) {
      const auto c = choose::candidate(h, library(), motor, offer, {}, {}, *before);
      benchmark::DoNotOptimize(choose::smallestChange(h, library(), motor, *c, {}, *before));
    }
  }
}
BENCHMARK(chooseStageWithChanges)->Unit(benchmark::kMillisecond)->UseRealTime()->Iterations(2);

// The demo's program, drawn out to a number of lines by functions that are called and lines that do something.
std::string longProgram(int lines) {
  auto out = test::readFile("demo/wave-tank.ino");
  const auto loop = out.find("void loop()");
  std::string functions, calls;
  for (int k = 0; static_cast<int>(std::ranges::count(out, '\n')) + 12 * k < lines; ++k) {
    functions += "void work" + std::to_string(k) +
                 "(int n) {\n  static int level = 0;\n  const int pins[] = {8, 7, A0, A1};\n  for (int i = 0; i < 4; i++) {\n    "
                 "digitalWrite(pins[i], (n + i) & 1);\n"
                 "    level += n * 3 + i;\n  }\n  if (analogRead(A3) > level) analogWrite(9, level & 255);\n  else analogWrite(9, 0);\n  "
                 "delay(2);\n}\n\n";
    calls += "  work" + std::to_string(k) + "(" + std::to_string(k) + ");\n";
  }
  out.insert(loop, functions);
  out.insert(out.rfind('}'), calls);
  return out;
}
void readProgram(benchmark::State& state) {
  const auto text = longProgram(static_cast<int>(state.range(0)));
  const auto part = test::library().find("board-uno-atmega328p");
  (void)program::shippedCalls();
  for (auto _ : state)
    benchmark::DoNotOptimize(program::pinsUsed(program::readTexts({{"tank.ino", text}}, part->id, program::shippedCalls()), "uno", *part,
                                               program::shippedCalls()));
}
BENCHMARK(readProgram)->Arg(70)->Arg(5000)->Arg(50000)->Unit(benchmark::kMillisecond);

// 40 signals, every fourth with PWM, on 92 pins in four rows; a third of the pins can do PWM, in timers of four.
void placeSignals(benchmark::State& state) {
  choose::PinPuzzle p;
  for (int i = 0; i < 92; ++i) p.spots.push_back({.side = i / 23, .position = i % 23, .scarce = i % 3 == 0});
  for (int s = 0; s < 40; ++s) {
    const bool pwm = s % 4 == 0;
    auto& fits = p.fits.emplace_back();
    for (int i = 0; i < 92; ++i)
      if ((!pwm || i % 3 == 0) && i % 11 != 0) fits.push_back(i);
    p.wired.push_back(-1);
    p.group.push_back(s / 4);
    p.scarce.push_back(pwm);
    p.current.push_back(0.001);
  }
  for (int b = 0; b < 4; ++b) {
    auto& budget = p.budgets.emplace_back();
    budget.most = 0.1;
    for (int i = 23 * b; i < 23 * (b + 1); ++i) budget.pins.push_back(i);
  }
  p.clash = [](int a, int pa, int b, int pb) { return a % 4 == 0 && b % 4 == 0 && a % 8 != b % 8 && pa / 12 == pb / 12; };
  for (int s = 0; s < 40; ++s) p.clashes.push_back(s % 4 == 0);
  for (auto _ : state) benchmark::DoNotOptimize(choose::assignPins(p));
}
BENCHMARK(placeSignals)->Unit(benchmark::kMillisecond);

}  // namespace

BENCHMARK_MAIN();
