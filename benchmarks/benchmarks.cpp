// ./dev bench: how long the engine takes. Figures and the machine they were read on: docs/benchmarks.md.
#include <benchmark/benchmark.h>

#include "core/bench/solved_bench.h"
#include "core/harness/read_harness.h"
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

}  // namespace

BENCHMARK_MAIN();
