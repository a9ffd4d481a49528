#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"

namespace bold::report {

/// A margin that is another one now. Shares of the way to its limit.
struct MarginShift {
  std::string name;  ///< "stall current of Pump"
  double before = 0, after = 0;
};

/// What sets one bench, and what is said of it, apart from another.
struct Comparison {
  std::vector<std::string> changes;  ///< of the documents, a line each (harness/differences.h)
  std::string before, after;         ///< verdicts
  checks::Findings fresh;            ///< said of the second alone, or graver there; notes left out
  checks::Findings gone;             ///< said of the first alone, or graver there; notes left out
  std::vector<MarginShift> worse;    ///< nearer to their limit by a twentieth of the way or more, the most first
  std::vector<MarginShift> better;   ///< further from it, the most first

  /// No difference in what the documents say.
  bool same() const { return changes.empty(); }
};

Comparison compare(const harness::Harness& from, const Analysis& fromAnalysis, const harness::Harness& to, const Analysis& toAnalysis);

}  // namespace bold::report
