#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "core/checks/analysis.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"
#include "support/random_bench.h"

using namespace bold;
using namespace bold::test;

TEST_CASE("of two thousand benches wired at random every command is solved, or says why not") {
  int benches = 0;
  std::size_t points = 0;
  std::string unsolved;
  int restless = 0;  // an output of a box on its own enable: it goes on and off for ever, and that is what is said
  for (unsigned seed = 0; seed < 2000; ++seed) {
    const auto a = analyseFast(randomBench(seed));
    REQUIRE(a.solved);
    ++benches;
    points += a.solved->points.size();
    std::set<std::string> why;
    for (const auto& p : a.solved->points)
      if (!p->solved()) why.insert(p->command().id + ": " + p->whyNot());
    if (!why.empty() && std::ranges::all_of(why, [](const auto& w) { return w.ends_with(": its logic does not come to rest"); }))
      ++restless;
    else if (!why.empty())
      unsolved += fmt::format("seed {}: {}\n", seed, *why.begin());
  }
  INFO(unsolved);
  CHECK(points > 5000);
  CHECK(unsolved.empty());
  CHECK(restless <= 1);
}
