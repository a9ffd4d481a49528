#include "core/choose/assign_pins.h"

#include <algorithm>
#include <array>
#include <catch2/catch.hpp>
#include <random>

using namespace bold::choose;

namespace {

bool allowed(const PinPuzzle& p, const std::vector<int>& pins) {
  for (std::size_t a = 0; a < pins.size(); ++a)
    for (std::size_t b = 0; b < pins.size(); ++b) {
      if (a == b) continue;
      if (pins[a] == pins[b] || (p.clash && p.clash(int(a), pins[a], int(b), pins[b]))) return false;
    }
  for (const auto& budget : p.budgets) {
    double sum = 0;
    for (std::size_t a = 0; a < pins.size(); ++a)
      if (std::ranges::count(budget.pins, pins[a]) > 0) sum += p.current[a];
    if (sum > budget.most) return false;
  }
  return true;
}

// Wires moved; then of each group in turn: apart, sides, wasted, printed. Less is better, the first difference decides.
std::vector<int> wishesOf(const PinPuzzle& p, const std::vector<int>& pins) {
  std::vector<int> out{0};
  for (std::size_t a = 0; a < pins.size(); ++a) {
    out[0] += p.wired[a] >= 0 && p.wired[a] != pins[a];
    const bool same = a > 0 && p.group[a] == p.group[a - 1];
    if (!same) out.insert(out.end(), 4, 0);
    auto* w = &out[out.size() - 4];
    const auto& here = p.spots[std::size_t(pins[a])];
    if (same) {
      const auto& before = p.spots[std::size_t(pins[a - 1])];
      w[0] += here.side != before.side || std::abs(here.position - before.position) != 1;
      w[1] += here.side != before.side;
    }
    w[2] += here.scarce && !p.scarce[a];
    w[3] += pins[a];
  }
  return out;
}

// Every way there is.
void tryAll(const PinPuzzle& p, const std::vector<int>& which, std::vector<int>& pins, auto found) {
  if (pins.size() == which.size()) return found(pins);
  for (const int pin : p.fits[std::size_t(which[pins.size()])]) {
    pins.push_back(pin);
    tryAll(p, which, pins, found);
    pins.pop_back();
  }
}

PinPuzzle only(const PinPuzzle& p, const std::vector<int>& which) {
  PinPuzzle out{.spots = p.spots, .fits = {}, .wired = {}, .group = {}, .scarce = {}, .current = {}, .budgets = p.budgets};
  for (const int s : which) {
    out.fits.push_back(p.fits[std::size_t(s)]);
    out.wired.push_back(p.wired[std::size_t(s)]);
    out.group.push_back(p.group[std::size_t(s)]);
    out.scarce.push_back(p.scarce[std::size_t(s)]);
    out.current.push_back(p.current[std::size_t(s)]);
  }
  if (p.clash)
    out.clash = [&p, which](int a, int pa, int b, int pb) { return p.clash(which[std::size_t(a)], pa, which[std::size_t(b)], pb); };
  return out;
}

bool solvable(const PinPuzzle& p) {
  bool any = false;
  std::vector<int> which(p.size());
  for (std::size_t i = 0; i < which.size(); ++i) which[i] = int(i);
  std::vector<int> pins;
  tryAll(p, which, pins, [&](const std::vector<int>& x) { any = any || allowed(p, x); });
  return any;
}

PinPuzzle random(unsigned seed) {
  std::mt19937 dice(seed);
  const auto roll = [&](int most) { return int(dice() % unsigned(most + 1)); };
  PinPuzzle p;
  const int pins = 3 + roll(4);
  const int signals = 1 + roll(std::min(pins, 5));
  for (int i = 0; i < pins; ++i) p.spots.push_back({.side = i * 2 / pins, .position = i, .scarce = roll(2) == 0});
  int group = 0;
  for (int s = 0; s < signals; ++s) {
    p.scarce.push_back(roll(2) == 0);
    auto& fits = p.fits.emplace_back();
    for (int i = 0; i < pins; ++i)
      if (roll(3) > 0 && (!p.scarce.back() || p.spots[std::size_t(i)].scarce)) fits.push_back(i);
    p.wired.push_back(roll(2) == 0 ? roll(pins - 1) : -1);
    p.group.push_back(group += s > 0 && roll(2) == 0);
    p.current.push_back(roll(3));
  }
  if (roll(1)) p.budgets = {{{0, 1, 2}, double(roll(5))}};
  if (roll(1))  // two of unlike parity do not go onto neighbouring pins of one pair: a timer with one rate
    p.clash = [](int a, int pa, int b, int pb) { return a % 2 != b % 2 && pa / 2 == pb / 2; };
  return p;
}

}  // namespace

TEST_CASE("signals on pins: against every way there is, on small boards") {
  const auto seed = GENERATE(range(0u, 1500u));
  const auto p = random(seed);
  CAPTURE(seed);
  std::vector<int> which(p.size());
  for (std::size_t i = 0; i < which.size(); ++i) which[i] = int(i);
  std::optional<std::vector<int>> best;
  std::vector<int> pins;
  tryAll(p, which, pins, [&](const std::vector<int>& x) {
    if (allowed(p, x) && (!best || wishesOf(p, x)[0] < wishesOf(p, *best)[0])) best = x;
  });
  const auto found = assignPins(p);
  REQUIRE(found.has_value() == best.has_value());
  const auto clashing = clashingSignals(p);
  CHECK(clashing.empty() == found.has_value());
  if (found) {
    REQUIRE(allowed(p, *found));
    for (std::size_t s = 0; s < p.size(); ++s) CHECK(std::ranges::count(p.fits[s], (*found)[s]) == 1);
    CHECK(wishesOf(p, *found)[0] == wishesOf(p, *best)[0]);  // no more wires are moved than must be
    // With the wires that it keeps, group by group there is nothing better.
    std::vector<int> least = wishesOf(p, *found);
    pins.clear();
    tryAll(p, which, pins, [&](const std::vector<int>& x) {
      bool keeps = allowed(p, x);
      for (std::size_t s = 0; s < p.size(); ++s) keeps = keeps && (p.wired[s] != (*found)[s] || x[s] == (*found)[s]);
      if (keeps) least = std::min(least, wishesOf(p, x));
    });
    CHECK(wishesOf(p, *found) == least);
    return;
  }
  CHECK_FALSE(solvable(only(p, clashing)));
  for (const int s : clashing) {
    auto without = clashing;
    std::erase(without, s);
    CHECK(solvable(only(p, without)));
  }
}

TEST_CASE("seven speeds and six pins that can: all seven clash, and any six do not") {
  PinPuzzle p;
  for (int i = 0; i < 20; ++i) p.spots.push_back({.side = 0, .position = i, .scarce = i % 3 == 0 && i < 18});
  for (int s = 0; s < 9; ++s) {
    const bool speed = s > 1;
    auto& fits = p.fits.emplace_back();
    for (int i = 0; i < 20; ++i)
      if (!speed || p.spots[std::size_t(i)].scarce) fits.push_back(i);
    p.wired.push_back(-1);
    p.group.push_back(s);
    p.scarce.push_back(speed);
    p.current.push_back(0);
  }
  CHECK_FALSE(assignPins(p));
  CHECK(clashingSignals(p) == std::vector{2, 3, 4, 5, 6, 7, 8});
}
