#include <fmt/core.h>

#include <algorithm>
#include <catch2/catch.hpp>
#include <random>
#include <set>

#include "core/checks/analysis.h"
#include "core/harness/read_harness.h"
#include "support/benches.h"

using namespace bold;
using namespace bold::test;

namespace {

// A few parts of any kind and a handful of wires between any of their terminals: what nobody would wire, and somebody does.
harness::Harness randomBench(unsigned seed) {
  static const auto all = library().search({});
  std::mt19937 random(seed);
  const auto below = [&](std::size_t n) { return static_cast<std::size_t>(random() % n); };
  harness::Harness h;
  std::vector<Address> ends;
  for (auto n = 3 + below(5); n > 0; --n) {
    const auto& part = all[below(all.size())];
    if (part->terminals.empty() || part->terminals.size() > 120) continue;
    harness::Device d;
    d.id = fmt::format("d{}", h.devices.size());
    d.part = part->id;
    for (const auto& s : part->settings)
      if (!s.values.empty()) d.settings[s.id] = {s.values[below(s.values.size())], {}};
    for (const auto& t : part->terminals) ends.push_back({d.id, t.id});
    h.devices.push_back(std::move(d));
  }
  if (ends.empty()) return h;
  // Supplies and loads have few terminals, boards many: half of the ends are taken by device first.
  const auto end = [&]() -> Address {
    if (below(2) == 0) return ends[below(ends.size())];
    const auto& d = h.devices[below(h.devices.size())];
    const auto part = library().find(d.part);
    return {d.id, part->terminals[below(part->terminals.size())].id};
  };
  for (auto n = 4 + below(14); n > 0; --n) {
    harness::Connection c;
    c.id = fmt::format("w{}", h.connections.size());
    c.a = end();
    c.b = end();
    h.connections.push_back(std::move(c));
  }
  return h;
}

}  // namespace

TEST_CASE("of two thousand benches wired at random every command is solved, or says why not") {
  int benches = 0;
  std::size_t points = 0;
  std::string unsolved;
  for (unsigned seed = 0; seed < 2000; ++seed) {
    const auto a = analyseFast(randomBench(seed));
    REQUIRE(a.solved);
    ++benches;
    points += a.solved->points.size();
    std::set<std::string> why;
    for (const auto& p : a.solved->points)
      if (!p->solved()) why.insert(p->command().id + ": " + p->whyNot());
    if (!why.empty()) unsolved += fmt::format("seed {}: {}\n", seed, *why.begin());
  }
  INFO(unsolved);
  CHECK(points > 5000);
  CHECK(unsolved.empty());
}
