#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/checks/analysis.h"

/// Reports of an analysis, one file a format.
namespace bold::report {

struct TextOptions {
  bool colour = false;
  int width = 80;
};

/// For people: verdict, what was judged, findings with what to do. Every line at most `width` columns.
std::string text(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const TextOptions& options = {});

/// For a printer: a fragment of HTML with boxes to tick.
std::string html(const std::string& file, const harness::Harness& harness, const Analysis& analysis);

/// "bench.harness: Do not switch on: 1 would do damage, 2 will not work"
std::string summaryLine(const std::string& file, const Analysis& analysis);

/// {"file":…, "verdict":…, "summary":…, "findings":[…]}; stable, documented in docs/json.md.
std::string json(const std::string& file, const harness::Harness& harness, const Analysis& analysis);

/// One bench of a report that holds several. `source` is the file's text, for line numbers; may be empty.
struct Judged {
  std::string file;
  std::string source;
  const Analysis* analysis;
};

/// SARIF 2.1.0: one run, one rule a check, one result a finding; stops and Not judged are errors.
std::string sarif(const std::vector<Judged>& benches, const std::string& version);

/// JUnit XML: one suite a bench, one case a check; stops fail, cautions go into the output.
std::string junit(const std::vector<Judged>& benches);

struct PointsOptions {
  std::string command;                    ///< its id; empty: all
  std::optional<circuit::Charge> charge;  ///< nothing: all that were solved
  bool json = false;
};
std::string_view word(circuit::Charge charge);  ///< "full", "nominal", "empty", "strong"
/// Voltages and currents of every command: what `boldh solve` prints.
std::string points(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const PointsOptions& options);

}  // namespace bold::report
