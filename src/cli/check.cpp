#include <unistd.h>

#include <algorithm>
#include <cstdio>

#include "commands.h"
#include "core/harness/document_file.h"
#include "core/report/report.h"

namespace bold::cli {

bool onTerminal() {
  return ::isatty(STDOUT_FILENO) == 1;
}

int check(const CheckArguments& arguments) {
  Disk disk;
  int code = 0;
  // Formats that hold several benches are written once at the end.
  std::vector<Analysis> analyses;
  std::vector<std::pair<std::string, std::string>> sources;
  const bool together = arguments.format == "sarif" || arguments.format == "junit";
  bool first = true;
  for (const auto& file : arguments.files) {
    if (!first && !arguments.summary && arguments.format == "text") std::fputs("\n", stdout);
    first = false;
    const auto loaded = load(disk, file);
    if (!loaded) {
      code = 2;
      continue;
    }
    auto analysis = analyse(loaded->harness, loaded->library);
    code = std::max(code, analysis.verdict == Verdict::DoNotSwitchOn || analysis.verdict == Verdict::NotJudged ? 1 : 0);
    if (arguments.summary)
      std::fputs(report::summaryLine(file, analysis).c_str(), stdout);
    else if (arguments.format == "json")
      std::fputs(report::json(file, loaded->harness, analysis).c_str(), stdout);
    else if (!together)
      std::fputs(report::text(file, loaded->harness, analysis, {onTerminal(), 80}).c_str(), stdout);
    else {
      const auto text = disk.read(file);
      sources.emplace_back(file, text ? *text : std::string());
      analyses.push_back(std::move(analysis));
    }
  }
  if (!together || arguments.summary) return code;
  std::vector<report::Judged> judged;
  for (std::size_t i = 0; i < analyses.size(); ++i) judged.push_back({sources[i].first, sources[i].second, &analyses[i]});
  std::fputs((arguments.format == "sarif" ? report::sarif(judged, BOLD_VERSION) : report::junit(judged)).c_str(), stdout);
  return code;
}

}  // namespace bold::cli
