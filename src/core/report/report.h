#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/base/json.h"
#include "core/checks/analysis.h"

/// Reports of an analysis, one file a format.
namespace bold::report {

struct TextOptions {
  bool colour = false;
  int width = 80;
  bool margins = false;  ///< and every margin, the tightest first
};

/// For people: verdict, what was judged, findings with what to do. Every line at most `width` columns.
std::string text(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const TextOptions& options = {});

/// Findings alone, of the checks whose ids begin so; also those that follow from others.
std::string findingsText(const Analysis& analysis, std::string_view checks, const TextOptions& options = {});

/// For a printer: a fragment of HTML with boxes to tick.
std::string html(const std::string& file, const harness::Harness& harness, const Analysis& analysis);

/// "bench.harness: Do not switch on: 1 would do damage, 2 will not work"
std::string summaryLine(const std::string& file, const Analysis& analysis);

/// {"file":…, "verdict":…, "summary":…, "findings":[…]}; stable, documented in docs/json.md.
std::string json(const std::string& file, const harness::Harness& harness, const Analysis& analysis, bool margins = false);

/// Every margin, the tightest first, what is not known after them, and which checks have none.
std::string margins(const Analysis& analysis, int width);
/// {"margins":[…], "withoutNumber":[…]}, as in docs/json.md.
Json marginsJson(const Analysis& analysis);

/// One bench of a report that holds several. `source` is the file's text, for line numbers; may be empty.
struct FileAnalysis {
  std::string file;
  std::string source;
  const Analysis* analysis;
  std::string checks{};  ///< only those whose ids begin so; empty: all
};

/// SARIF 2.1.0, piece by piece, so that a thousand benches need no more memory than one: begin, the results of each bench with
/// commas between those that have any, end. One run, one rule a check, one result a finding; stops and Not judged are errors.
/// What could not be read or was left out of a file, why the verdict is what it is, and what was taken for granted are notifications of
/// the invocation.
std::string sarifBegin(const std::string& version);
std::string sarifResults(const FileAnalysis& bench);  ///< empty when there are none
/// What is said of a file at the end.
struct SarifFile {
  std::string file;
  std::string verdict;             ///< empty: it could not be read
  std::vector<std::string> why;    ///< of the verdict: what keeps it from being better
  std::vector<std::string> taken;  ///< for granted
  std::vector<Problem> problems;   ///< `where` is a JSON pointer behind "#", or anything
};
std::string sarifEnd(const std::vector<SarifFile>& files);

/// JUnit XML, piece by piece: one suite a bench, one case a check; stops fail, cautions go into the output, why the verdict
/// is what it is and what was taken for granted into that of the suite. A file that could
/// not be read is a suite with an error.
std::string junitBegin();
std::string junitSuite(const FileAnalysis& bench);
std::string junitUnreadable(const std::string& file, const Problem& why);
std::string junitEnd();

struct PointsOptions {
  std::string command;                  ///< its id; empty: all
  std::optional<bench::Corner> corner;  ///< nothing: all that were solved
  bool json = false;
};
std::string_view word(bench::Corner corner);  ///< "full", "nominal", "empty", "strong"
/// Voltages and currents of every command: what `boldh solve` prints.
std::string points(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const PointsOptions& options);

}  // namespace bold::report
