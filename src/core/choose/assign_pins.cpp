#include "core/choose/assign_pins.h"

#include <algorithm>
#include <array>
#include <cstdint>
#include <limits>
#include <numeric>

namespace bold::choose {
namespace {

using Cost = std::uint64_t;
// One number for wishes in their order: each has room for all signals that a group may have.
constexpr Cost kPrinted = 1, kWasted = kPrinted << 20, kSides = kWasted << 10, kApart = kSides << 10;
constexpr Cost kNever = std::numeric_limits<Cost>::max() / 4;

class Assigning {
 public:
  explicit Assigning(const PinPuzzle& puzzle)
      : m_p(puzzle), m_pinOf(puzzle.size(), -1), m_taken(puzzle.spots.size(), false), m_left(puzzle.budgets.size()) {
    for (std::size_t b = 0; b < m_left.size(); ++b) m_left[b] = puzzle.budgets[b].most;
    m_budgetsOf.resize(puzzle.spots.size());
    const double sum = std::accumulate(puzzle.current.begin(), puzzle.current.end(), 0.0);
    for (std::size_t s = 0; s < puzzle.size(); ++s) {
      const bool clashing = puzzle.clash && (puzzle.clashes.empty() || puzzle.clashes[s]);
      if (clashing) m_clashing.push_back(static_cast<int>(s));
      m_coupled.push_back(clashing);
    }
    for (std::size_t b = 0; b < m_left.size(); ++b) {
      if (puzzle.budgets[b].most >= sum) continue;  // whatever stands where
      for (std::size_t s = 0; s < puzzle.size(); ++s)
        if (puzzle.current[s] > 0) m_coupled[s] = true;
      for (const int pin : puzzle.budgets[b].pins) m_budgetsOf[static_cast<std::size_t>(pin)].push_back(b);
    }
  }

  std::optional<std::vector<int>> best() {
    if (!keepWired()) return std::nullopt;
    for (std::size_t first = 0; first < m_p.size();) {
      std::size_t last = first;
      while (last < m_p.size() && m_p.group[last] == m_p.group[first]) ++last;
      if (!placeGroup(first, last)) return std::nullopt;
      first = last;
    }
    return m_pinOf;
  }

  /// Whether those of `wanted` that have no pin yet can all have one.
  /// @param roughly a matching is enough: what this denies is impossible, what it does not need not be possible
  bool possible(std::vector<int> wanted, bool roughly = false) {
    std::erase_if(wanted, [&](int s) { return pinOf(s) >= 0; });
    return complete(wanted, roughly);
  }

  std::vector<int> all() const {
    std::vector<int> out(m_p.size());
    std::iota(out.begin(), out.end(), 0);
    return out;
  }

 private:
  const PinPuzzle& m_p;
  std::vector<int> m_pinOf;
  std::vector<bool> m_taken;
  std::vector<double> m_left;   // of each budget
  std::vector<bool> m_coupled;  // signals that a rule binds to others, besides that no two have one pin
  std::vector<int> m_clashing;
  std::vector<std::vector<std::size_t>> m_budgetsOf;

  int& pinOf(int signal) { return m_pinOf[static_cast<std::size_t>(signal)]; }
  const PinSpot& spot(int pin) const { return m_p.spots[static_cast<std::size_t>(pin)]; }
  const std::vector<int>& fits(int signal) const { return m_p.fits[static_cast<std::size_t>(signal)]; }

  bool may(int signal, int pin) const {
    if (m_taken[static_cast<std::size_t>(pin)]) return false;
    for (const auto b : m_budgetsOf[static_cast<std::size_t>(pin)])
      if (m_left[b] < m_p.current[static_cast<std::size_t>(signal)]) return false;
    if (!m_p.clash || (!m_p.clashes.empty() && !m_p.clashes[static_cast<std::size_t>(signal)])) return true;
    return std::ranges::none_of(m_clashing, [&](int other) {
      const int at = m_pinOf[static_cast<std::size_t>(other)];
      return at >= 0 && other != signal && m_p.clash(signal, pin, other, at);
    });
  }
  void put(int signal, int pin) {
    pinOf(signal) = pin;
    m_taken[static_cast<std::size_t>(pin)] = true;
    for (const auto b : m_budgetsOf[static_cast<std::size_t>(pin)]) m_left[b] -= m_p.current[static_cast<std::size_t>(signal)];
  }
  void lift(int signal) {
    const int pin = pinOf(signal);
    pinOf(signal) = -1;
    m_taken[static_cast<std::size_t>(pin)] = false;
    for (const auto b : m_budgetsOf[static_cast<std::size_t>(pin)]) m_left[b] += m_p.current[static_cast<std::size_t>(signal)];
  }

  // One signal a pin is a matching: what has none has no answer, and without other rules what has one is an answer.
  bool matched(const std::vector<int>& open, const std::vector<std::vector<int>>& domains) const {
    std::vector<int> holder(m_p.spots.size(), -1);
    std::vector<int> seen(m_p.spots.size(), -1);
    const auto place = [&](auto&& self, int k, int turn) -> bool {
      for (const int pin : domains[static_cast<std::size_t>(k)]) {
        auto& mark = seen[static_cast<std::size_t>(pin)];
        if (mark == turn) continue;
        mark = turn;
        auto& held = holder[static_cast<std::size_t>(pin)];
        if (held < 0 || self(self, held, turn)) {
          held = k;
          return true;
        }
      }
      return false;
    };
    for (int k = 0; k < static_cast<int>(open.size()); ++k)
      if (!place(place, k, k)) return false;
    return true;
  }

  bool complete(const std::vector<int>& open, bool roughly) {
    if (open.empty()) return true;
    std::vector<std::vector<int>> domains;
    for (const int s : open) {
      auto& d = domains.emplace_back();
      for (const int pin : fits(s))
        if (may(s, pin)) d.push_back(pin);
      if (d.empty()) return false;
    }
    if (!matched(open, domains)) return false;
    // Of signals that another rule is about the one with the fewest pins left is the one to ask first; where there are none, a matching
    // is an answer.
    std::size_t k = open.size();
    for (std::size_t i = 0; i < open.size(); ++i)
      if (m_coupled[static_cast<std::size_t>(open[i])] && (k == open.size() || domains[i].size() < domains[k].size())) k = i;
    if (k == open.size() || roughly) return true;
    auto rest = open;
    rest.erase(rest.begin() + static_cast<std::ptrdiff_t>(k));
    for (const int pin : domains[k]) {
      put(open[k], pin);
      const bool done = complete(rest, false);
      lift(open[k]);
      if (done) return true;
    }
    return false;
  }

  // As many wires as can stay do: those left out are tried one by one, two by two, and so on.
  bool keepWired() {
    std::vector<int> wired;
    for (const int s : all())
      if (const int at = m_p.wired[static_cast<std::size_t>(s)]; at >= 0 && std::ranges::count(fits(s), at) > 0) wired.push_back(s);
    for (std::size_t moved = 0; moved <= wired.size(); ++moved)
      if (keep(wired, 0, moved)) return true;
    return false;
  }
  bool keep(const std::vector<int>& wired, std::size_t next, std::size_t moved) {
    if (next == wired.size()) return possible(all());
    const int s = wired[next];
    const int at = m_p.wired[static_cast<std::size_t>(s)];
    if (wired.size() - next > moved && may(s, at)) {
      put(s, at);
      if (keep(wired, next + 1, moved)) return true;
      lift(s);
    }
    return moved > 0 && keep(wired, next + 1, moved - 1);
  }

  Cost alone(int signal, int pin) const {
    return kPrinted * static_cast<Cost>(pin) + (spot(pin).scarce && !m_p.scarce[static_cast<std::size_t>(signal)] ? kWasted : 0);
  }
  Cost step(int from, int to) const {
    const auto& a = spot(from);
    const auto& b = spot(to);
    const bool beside = a.side == b.side && std::abs(a.position - b.position) == 1;
    return (beside ? 0 : kApart) + (a.side == b.side ? 0 : kSides);
  }

  // What a chain of signals costs at least from each pin on, as if pins could be used twice.
  struct Onward {
    std::vector<std::vector<int>> pins;    // per signal of the group: what it may have
    std::vector<std::vector<Cost>> least;  // the same shape: with itself
  };
  Onward onward(std::size_t first, std::size_t last) {
    Onward out;
    for (auto s = first; s < last; ++s) {
      auto& pins = out.pins.emplace_back();
      const int here = m_pinOf[s];
      if (here >= 0)
        pins = {here};
      else
        for (const int pin : m_p.fits[s])
          if (may(static_cast<int>(s), pin)) pins.push_back(pin);
    }
    out.least.resize(out.pins.size());
    for (auto k = out.pins.size(); k-- > 0;)
      for (const int pin : out.pins[k]) {
        Cost after = k + 1 < out.pins.size() ? kNever : 0;
        for (std::size_t i = 0; k + 1 < out.pins.size() && i < out.pins[k + 1].size(); ++i)
          if (const int next = out.pins[k + 1][i]; next != pin) after = std::min(after, step(pin, next) + out.least[k + 1][i]);
        out.least[k].push_back(alone(static_cast<int>(first + k), pin) + after);
      }
    return out;
  }

  struct Best {
    Cost cost = kNever;
    std::vector<int> pins;
  };

  void descend(std::size_t first, std::size_t last, std::size_t at, Cost spent, const Onward& onward, const std::vector<int>& later,
               std::vector<int>& chain, Best& best) {
    if (at == last) {
      if (spent < best.cost && possible(later)) best = {spent, chain};
      return;
    }
    const auto k = at - first;
    std::vector<std::pair<Cost, int>> next;
    for (std::size_t i = 0; i < onward.pins[k].size(); ++i) {
      const int pin = onward.pins[k][i];
      next.emplace_back(spent + (chain.empty() ? 0 : step(chain.back(), pin)) + onward.least[k][i], pin);
    }
    std::ranges::sort(next);
    const bool fixed = m_pinOf[at] >= 0;
    for (const auto& [least, pin] : next) {
      if (least >= best.cost) return;
      if (!fixed && !may(static_cast<int>(at), pin)) continue;
      if (!fixed) put(static_cast<int>(at), pin);
      if (fixed || possible(later, true)) {
        const Cost here = (chain.empty() ? 0 : step(chain.back(), pin)) + alone(static_cast<int>(at), pin);
        chain.push_back(pin);
        descend(first, last, at + 1, spent + here, onward, later, chain, best);
        chain.pop_back();
      }
      if (!fixed) lift(static_cast<int>(at));
    }
  }

  bool placeGroup(std::size_t first, std::size_t last) {
    Best best;
    std::vector<int> later = all();
    later.erase(later.begin(), later.begin() + static_cast<std::ptrdiff_t>(first));
    std::vector<int> chain;
    descend(first, last, first, 0, onward(first, last), later, chain, best);
    if (best.pins.empty()) return false;
    for (auto s = first; s < last; ++s)
      if (m_pinOf[s] < 0) put(static_cast<int>(s), best.pins[s - first]);
    return true;
  }
};

}  // namespace

std::optional<std::vector<int>> assignPins(const PinPuzzle& puzzle) {
  return Assigning(puzzle).best();
}

std::vector<int> clashingSignals(const PinPuzzle& puzzle) {
  Assigning assigning(puzzle);
  auto left = assigning.all();
  if (assigning.possible(left)) return {};
  for (const int s : assigning.all()) {
    auto without = left;
    std::erase(without, s);
    if (!assigning.possible(without)) left = std::move(without);
  }
  return left;
}

}  // namespace bold::choose
