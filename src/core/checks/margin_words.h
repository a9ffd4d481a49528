#pragma once

#include <string>
#include <vector>

#include "core/checks/analysis.h"

/// Margins in words, and sorted by what they belong to: for reports and windows alike.
namespace bold::checks {

/// "S1 OUT1", "Pump", "wire w3": a subject as people call it.
std::string calledSubject(const bench::Bench& bench, const std::string& subject);
/// Everything a margin is about: "Pump, S1 OUT1".
std::string placeOf(const bench::Bench& bench, const Margin& margin);
/// A number in the unit of its margin.
std::string shown(double value, Unit unit);
/// "at most 2 A", "4.5 V to 5.5 V", "not known"
std::string bounds(const Limit& limit, Unit unit);
/// How much of the way to the judged limit is used: "71 %", "?" where that is not known.
std::string percentUsed(const Margin& margin);

/// What a group of margins is about.
enum class MarginOf { Motor, Stage, Board, Supply, Loose, Wires };
std::string_view word(MarginOf kind);  ///< "motor", "stage", "board", "supply", "loose part", "wires and contacts"

struct MarginGroup {
  MarginOf kind = MarginOf::Loose;
  std::string device;  ///< its id; empty: of wires
  std::string name;
  std::vector<const Margin*> margins;  ///< in the order in which they were given
};
/// Sorted by what they belong to, in the order of the first margin of each group. Points into `margins`.
std::vector<MarginGroup> grouped(const bench::Bench& bench, const Margins& margins);

/// The margin that is nearest to its limit of those that may be more than a note and are past none (what is past has a finding);
/// nullptr where none is known. Points into `margins`.
const Margin* tightest(const Margins& margins);
/// "tightest: Pump stall current, 92 % of its peak"; empty where no margin is known.
std::string tightestWords(const Analysis& analysis);

}  // namespace bold::checks
