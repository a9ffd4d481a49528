#pragma once

#include <string>

#include "core/checks/analysis.h"

/// Reports of an analysis, one file a format.
namespace bold::report {

struct TextOptions {
  bool colour = false;
  int width = 80;
};

/// For people: verdict, what was judged, findings with what to do. Every line at most `width` columns.
std::string text(const std::string& file, const harness::Harness& harness, const Analysis& analysis, const TextOptions& options = {});

/// "bench.harness: Do not switch on: 1 would do damage, 2 will not work"
std::string summaryLine(const std::string& file, const Analysis& analysis);

/// {"file":…, "verdict":…, "summary":…, "findings":[…]}; stable, documented in docs/json.md.
std::string json(const std::string& file, const harness::Harness& harness, const Analysis& analysis);

}  // namespace bold::report
