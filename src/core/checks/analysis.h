#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/checks/check.h"
#include "core/checks/judged_bench.h"
#include "core/harness/part_copies.h"
#include "core/parts/library.h"

namespace bold {

enum class Verdict { DoNotSwitchOn, NotJudged, LookAgain, Clear };

/// The bench as everything planned will make it, beside the bench as it stands.
struct PlannedBench {
  JudgedBench judged;
  Verdict verdict = Verdict::NotJudged;
  /// Stops and cautions that are not there as it stands, or not as grave; those that follow from others left out.
  std::vector<checks::Finding> worse;
};

/// Something that nobody stated and so was not judged.
struct Unstated {
  std::string text;     ///< "Pump has no signals (uno D5 reaches in): its levels and pins are not judged"
  checks::Field field;  ///< where it is stated
};

/// Everything that is said about a bench. A value; the solved bench inside is immutable and shared so that a picture
/// can go on showing an older analysis while the next one runs.
struct Analysis {
  std::vector<checks::Finding> findings;  ///< sorted: stops by harm, cautions, notes; causes before what they explain
  std::shared_ptr<const bench::SolvedBench> solved;
  JudgedBench judged;  ///< what the next analysis may take over
  Verdict verdict = Verdict::NotJudged;
  std::vector<std::string> why;         ///< what stands in the way of Clear, in words; for Do not switch on: what was not used as it stands
  bool explained = false;               ///< whether it was worked out what follows from what
  int checks = 0;                       ///< how many were run
  int commands = 0;                     ///< how many commands were solved
  std::vector<std::string> unknown;     ///< figures of parts on the bench that nobody knows: "S1: sense resistor"
  int unknownFigures = 0;               ///< how many those are
  int openChanges = 0;                  ///< planned and not made yet
  std::optional<PlannedBench> planned;  ///< filled in by judgePlanned, where there is something planned
  std::vector<std::string> assumptions;     ///< what was taken for granted: default wires, ambient
  std::vector<Unstated> unstated;           ///< motors without signals
  std::string tightest;                     ///< the margin nearest to its limit, in words; empty where nothing may be switched on
  std::vector<Problem> leftOut;             ///< what the file says and could not be used; `where` is "#" and a JSON pointer
  std::vector<harness::FromFile> fromFile;  ///< what is taken from the file on trust

  /// How near everything comes to its limits, also where nothing is found: the tightest first, what is not known last.
  checks::Margins margins() const { return judged.margins(); }

  int count(checks::Severity severity) const;
  /// Those that follow from no other: what there is to mend.
  int causes(checks::Severity severity) const;
  int stopCauses(checks::Harm harm) const;
  const checks::Finding* find(const std::string& identity) const;
};

struct Options {
  /// Work out which findings follow from which, and what the plan mends (costs one analysis a repair).
  bool explain = true;
  /// Solve these commands alone (ids), and judge what can be judged from them: the verdict is Not judged. Empty: all.
  std::vector<std::string> only{};
  /// Asked often; when it answers true the analysis is given up and comes back Not judged, empty.
  std::function<bool()> cancelled;
};

/// The whole engine: a pure function of values, safe to call from any thread.
/// @param previous only saves work; the result never depends on it
Analysis analyse(const harness::Harness& harness, const parts::Library& library, const Options& options = {},
                 const Analysis* previous = nullptr);

/// For an analysis that has not worked out yet what follows from what: takes it from the one before, as far as both findings are still
/// there, so that what is shown does not jump.
void carryOver(Analysis& analysis, const Analysis& before);

/// "2 figures unknown (S1: sense resistor; M: winding resistance)", "0 figures unknown"
std::string unknownWords(const Analysis& analysis);
std::string_view headline(Verdict verdict);  ///< "Do not switch on", ...
/// "1 would do damage, 2 will not work, 3 to look at again; 7 more follow from these": causes are counted
std::string summary(const Analysis& analysis);

}  // namespace bold
