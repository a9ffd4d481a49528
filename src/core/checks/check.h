#pragma once

#include <span>
#include <string_view>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/checks/margin.h"

namespace bold::checks {

/// One unit of judgement: stateless, reads a solved bench, says what it measured and what it found.
struct Check {
  std::string_view id;
  std::string_view family;  ///< its folder: voltage, current, levels, pins, flyback, grounds, steppers, commands
  std::string_view title;
  Harm harm;
  bool measures;  ///< a number against a limit; what does not is decided by the wires alone and has no margin
  Said (*run)(const bench::SolvedBench&);
};

/// Every check, in the order of causes before consequences.
std::span<const Check> registry();

/// nullptr when there is none.
const Check* findCheck(std::string_view id);

/// The Markdown page of a check; empty when it has none (a test holds that all have).
std::string_view page(std::string_view id);
/// What stands on that page under "How to mend"; empty when nothing does.
std::string_view howToMend(std::string_view id);

}  // namespace bold::checks
