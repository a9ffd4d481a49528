#pragma once

#include <functional>
#include <optional>
#include <span>
#include <string_view>
#include <variant>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/checks/margin.h"

namespace bold::checks {

class ProgramOnBench;

/// One unit of judgement: stateless, reads a solved bench, says what it measured and what it found.
struct Check {
  /// Holds a number against a limit: what it measured has a margin whether anything was found or not.
  using Measuring = Said (*)(const bench::SolvedBench&);
  /// Decided by the wires alone.
  using Deciding = Findings (*)(const bench::SolvedBench&);
  /// Decided by what the program does at the pins.
  using OfProgram = Findings (*)(const ProgramOnBench&);

  /// What would be found if something stood otherwise than the document says or takes for granted; nothing: it was not tried.
  using Otherwise = std::function<std::optional<Findings>(const harness::Edit&)>;
  /// Decided by that. Asked of the bench as it stands alone, and never of a bench that is tried for something else.
  using Supposing = Findings (*)(const bench::SolvedBench&, const Findings& now, const Otherwise&);

  std::string_view id;
  std::string_view family;  ///< its folder: voltage, current, levels, pins, flyback, grounds, steppers, heat, commands, program
  std::string_view title;
  Harm harm;  ///< of its stops
  std::variant<Measuring, Deciding, OfProgram, Supposing> judge;

  bool measures() const { return std::holds_alternative<Measuring>(judge); }
  bool supposes() const { return std::holds_alternative<Supposing>(judge); }
  Said run(const bench::SolvedBench& solved, const ProgramOnBench& program) const;
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
