#include "core/solver/sparse_system.h"

#include <rapidcheck/catch.h>

#include <catch2/catch.hpp>
#include <cmath>
#include <utility>

using namespace bold::solver;

namespace {

// A network of conductances, one of them to ground at every node so that it has a solution.
struct Network {
  int nodes = 0;
  std::vector<SparsePattern::Ends> ends;
  std::vector<double> siemens;
};

Network network() {
  Network n;
  n.nodes = *rc::gen::inRange(2, 25);
  const int branches = *rc::gen::inRange(1, 50);
  for (int k = 0; k < branches; ++k) {
    n.ends.push_back({*rc::gen::inRange(0, n.nodes), *rc::gen::inRange(0, n.nodes), -1, -1});
    n.siemens.push_back(std::pow(10.0, *rc::gen::inRange(-6, 3)));
  }
  return n;
}

std::vector<double> valuesOf(const Network& n, const SparsePattern& pattern, const std::vector<SparsePattern::Slots>& slots) {
  std::vector<double> out(pattern.entries(), 0);
  for (std::size_t k = 0; k < n.ends.size(); ++k) {
    if (n.ends[k][0] == n.ends[k][1]) continue;
    out[slots[k][0]] += n.siemens[k];
    out[slots[k][1]] -= n.siemens[k];
    out[slots[k][4]] -= n.siemens[k];
    out[slots[k][5]] += n.siemens[k];
  }
  for (int i = 0; i < n.nodes; ++i) out[pattern.diagonal(i)] += 1e-3;
  return out;
}

// What the network takes at these voltages, against what was put in.
double worstOff(const Network& n, const std::vector<double>& volts, const std::vector<double>& in) {
  std::vector<double> sum(volts.size());
  for (std::size_t i = 0; i < volts.size(); ++i) sum[i] = 1e-3 * volts[i] - in[i];
  double largest = 1e-3;
  for (std::size_t k = 0; k < n.ends.size(); ++k) {
    const auto a = static_cast<std::size_t>(n.ends[k][0]);
    const auto b = static_cast<std::size_t>(n.ends[k][1]);
    const double i = n.siemens[k] * (volts[a] - volts[b]);
    sum[a] += i;
    sum[b] -= i;
    largest = std::max(largest, n.siemens[k] * (std::abs(volts[a]) + std::abs(volts[b])));
  }
  double worst = 0;
  for (const double s : sum) worst = std::max(worst, std::abs(s) / largest);
  return worst;
}

}  // namespace

TEST_CASE("factors brought up to date are those of the matrix, whatever changed, and a copy is a matrix of its own") {
  rc::prop("currents balance after every change", [] {
    auto n = network();
    const auto pattern = std::make_shared<const SparsePattern>(n.nodes, n.ends);
    const auto slots = pattern->slots(n.nodes, n.ends);
    RC_ASSERT(slots.has_value());
    std::vector<double> in(static_cast<std::size_t>(n.nodes), 0);
    in[*rc::gen::inRange(0, n.nodes)] = 1;
    SparseFactors factors;
    RC_ASSERT(factors.factor(pattern, valuesOf(n, *pattern, *slots)));
    const auto first = n;
    const auto kept = factors;
    for (int round = 0; round < 3; ++round) {
      const int changes = *rc::gen::inRange(0, 4);
      for (int k = 0; k < changes; ++k)
        n.siemens[*rc::gen::inRange<std::size_t>(0, n.siemens.size())] = std::pow(10.0, *rc::gen::inRange(-6, 3));
      RC_ASSERT(factors.factor(pattern, valuesOf(n, *pattern, *slots)));
      RC_ASSERT(factors.sound());
      auto volts = in;
      factors.solve(volts);
      RC_ASSERT(worstOff(n, volts, in) < 1e-9);
      volts = in;
      kept.solve(volts);
      RC_ASSERT(worstOff(first, volts, in) < 1e-9);
    }
  });
}

TEST_CASE("a matrix without a solution has no factors, and the next one has again") {
  const std::vector<SparsePattern::Ends> ends{{0, 1, -1, -1}};
  const auto pattern = std::make_shared<const SparsePattern>(2, ends);
  SparseFactors factors;
  CHECK(factors.factor(pattern, {2, -1, -1, 2}));
  CHECK_FALSE(factors.factor(pattern, {1, -1, -1, 1}));
  REQUIRE(factors.factor(pattern, {2, -1, -1, 2}));
  std::vector<double> volts{3, 0};
  factors.solve(volts);
  CHECK(volts[0] == Approx(2));
  CHECK(volts[1] == Approx(1));
}

TEST_CASE("pivots that lose digits are noticed, and found anew when asked") {
  const std::vector<SparsePattern::Ends> ends{{0, 1, -1, -1}};
  const auto pattern = std::make_shared<const SparsePattern>(2, ends);
  SparseFactors factors;
  REQUIRE(factors.factor(pattern, {1, 1, 1, -1}));
  REQUIRE(factors.factor(pattern, {1e-12, 1, 1, 1}));  // pivots on the small one as before
  CHECK_FALSE(factors.sound());
  factors.forgetOrder();
  REQUIRE(factors.factor(pattern, {1e-12, 1, 1, 1}));
  CHECK(factors.sound());
  std::vector<double> x{1, 2};
  factors.solve(x);
  CHECK(x[0] == Approx(1).epsilon(1e-9));
  CHECK(x[1] == Approx(1).epsilon(1e-9));
}

TEST_CASE("a pattern says which entries it lacks") {
  const SparsePattern pattern(3, {{0, 1, -1, -1}});
  CHECK(pattern.slots(3, {{0, 1, -1, -1}, {1, 0, -1, -1}}));
  CHECK_FALSE(pattern.slots(3, {{0, 2, -1, -1}}));
  CHECK_FALSE(pattern.slots(2, {{0, 1, -1, -1}}));
}
