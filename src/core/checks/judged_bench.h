#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/bench/solved_bench.h"
#include "core/checks/margin.h"
#include "core/harness/harness.h"
#include "core/parts/library.h"

namespace bold {

struct Options;

/// Everything a judgement follows from. Shipped parts never change; of own ones the very part, since one that was read anew may be
/// another.
struct JudgedFrom {
  harness::Harness harness;  ///< as judgedPart gives it
  std::vector<std::shared_ptr<const parts::Part>> ownParts;
  bool operator==(const JudgedFrom&) const = default;
};

/// What every check says of one cell of a bench (bench/cells.h), before anything is explained. Never changed, so that an
/// analysis can take it over from an earlier one.
struct JudgedCell {
  JudgedFrom from;
  std::shared_ptr<const std::set<std::string>> ids;  ///< of the whole document: repairs need free ones
  std::vector<std::string> only;                     ///< the commands that were asked for; empty: all
  std::shared_ptr<const bench::SolvedBench> solved;
  checks::Findings findings;  ///< in the order of the checks
  checks::Margins margins;    ///< likewise
};

struct JudgedBench {
  JudgedFrom from;
  std::shared_ptr<const std::set<std::string>> ids;
  std::vector<std::string> only;  ///< as in Options
  std::vector<std::shared_ptr<const JudgedCell>> cells;
  std::vector<std::string> cuts;  ///< ids of the ground wires between them

  /// Of all cells: the gravest first, of equal ones causes before consequences.
  checks::Findings findings() const;
  /// Of all cells: the tightest first; then what only a note hangs on, likewise; then what is not known.
  checks::Margins margins() const;
};

/// Nothing when it was given up.
/// @param known cells that are the same are taken over from it, whatever file they came from; only saves work
std::optional<JudgedBench> judge(const harness::Harness& harness, const parts::Library& library, const Options& options,
                                 const JudgedBench* known = nullptr);

/// The judged bench as one.
std::shared_ptr<const bench::SolvedBench> whole(const JudgedBench& judged, const parts::Library& library);

/// By which findings are sorted: less is graver.
int rank(const checks::Finding& finding);

}  // namespace bold
