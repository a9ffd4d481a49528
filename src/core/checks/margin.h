#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/bench/operating_point.h"
#include "core/checks/finding.h"

namespace bold::checks {

/// What a limit is: how far something is promised to work, what is advised, what is destroyed beyond.
enum class LimitKind { Promised, Recommended, Absolute };

/// A bound or a window, in the unit of the margin it belongs to.
struct Limit {
  LimitKind kind = LimitKind::Recommended;
  Severity consequence = Severity::Caution;  ///< of being past it
  std::optional<double> least, most;         ///< either may be absent; both absent: the limit is not known
  std::string_view name;                     ///< "peak", "1.5 x continuous": a literal
  std::string source;

  bool known() const { return least || most; }
  bool passedBy(double value) const { return (least && value < *least) || (most && value > *most); }
};
Limit atMost(LimitKind kind, Severity consequence, std::optional<double> most, std::string_view name, std::string source = {});
Limit atLeast(LimitKind kind, Severity consequence, std::optional<double> least, std::string_view name, std::string source = {});
Limit within(LimitKind kind, Severity consequence, std::optional<double> least, std::optional<double> most, std::string_view name,
             std::string source = {});

/// Limits in rising order: what is passed first stands first.
template <class... L>
std::vector<Limit> rising(L... limits) {
  std::vector<Limit> out;
  out.reserve(sizeof...(limits));
  (out.push_back(std::move(limits)), ...);
  return out;
}

/// How near something comes to what it stands or needs. It exists whether all is well or not; words are only for what is past.
struct Margin {
  std::string quantity;                       ///< "stall current"
  std::vector<std::string> subjects;          ///< device ids, terminal addresses, connection ids; the first is where it belongs
  Unit unit = Unit::One;                      ///< of the value and its limits
  std::optional<double> value;                ///< nothing: not known
  std::vector<Limit> limits;                  ///< rising: what is passed first stands first
  std::optional<double> from;                 ///< where nothing is used yet; see used()
  const bench::OperatingPoint* at = nullptr;  ///< where it was measured; while the checks run, see corner and command
  std::vector<std::string> assumed;           ///< what was taken for granted for it
  // Filled in by the engine.
  std::string check;
  std::optional<bench::Corner> corner;  ///< the supply state it was measured at
  std::string command;                  ///< title of the command; empty: of none in particular

  /// The gravest limit that the value is past; nullptr: none.
  const Limit* passed() const;
  bool stops() const;
  /// Nothing graver than a note follows from passing any of its limits.
  bool onlyNotes() const;
  /// The limit it is held to: the nearest of those whose passing is more than a note (of all, where there is no such one).
  const Limit* judged() const;
  /// How much of the way to the judged limit is used: 0 at `from` (0 where it says nothing), 1 at the limit, more beyond.
  /// A window counts from its middle to the nearer edge; a least without `from` as the share least / value.
  /// Nothing when the value or every limit is unknown. Never negative, at most 1000.
  std::optional<double> used() const;
  /// Check, quantity and sorted subjects.
  std::string identity() const;
};
using Margins = std::vector<Margin>;

std::string_view word(LimitKind kind);  ///< "promised", "recommended", "absolute"

/// The bar of a margin against one of its limits.
Bar barOf(const Margin& margin, double limit, std::string limitName, std::optional<AnyQuantity> inner = {}, bool floor = false);

/// What a check says: its findings, and what it measured whether anything was found or not.
struct Said {
  Findings findings;
  Margins margins;
};

namespace detail {
template <class M>
void eachMargin(M& measured, auto f) {
  if constexpr (requires { measured.margins; })
    for (auto& margin : measured.margins) f(margin);
  else
    f(measured.margin);
}
int rank(Severity severity);  // less is graver
}  // namespace detail

/// Everything that was measured, and words for what is past a limit, as grave as the gravest limit that was passed.
/// @param measured each holds a `margin`, or `margins` where one finding speaks of several numbers, and what the words need; where
/// something is to be said whatever the numbers are, a std::optional<Severity> `besides`
/// @param words makes the finding of one of them
template <class M, class Words>
Said say(std::vector<M> measured, Words words) {
  Said out;
  for (auto& m : measured) {
    std::optional<Severity> gravest;
    if constexpr (requires { m.besides; }) gravest = m.besides;
    detail::eachMargin(m, [&](const Margin& margin) {
      if (const auto* limit = margin.passed(); limit && (!gravest || detail::rank(limit->consequence) < detail::rank(*gravest)))
        gravest = limit->consequence;
    });
    if (gravest) {
      Finding f = words(m);
      f.severity = *gravest;
      out.findings.push_back(std::move(f));
    }
    detail::eachMargin(m, [&](Margin& margin) { out.margins.push_back(std::move(margin)); });
  }
  return out;
}

/// Findings that say the same of several places (a current goes through all of them) as one: of equal severity and formula.
Findings asOne(Findings findings);
Said asOne(Said said);

/// Both of them, for checks that measure different things.
Said operator+(Said a, Said b);

}  // namespace bold::checks
