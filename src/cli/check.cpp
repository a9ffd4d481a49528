#include <unistd.h>

#include <algorithm>
#include <cstdio>

#include "commands.h"
#include "core/harness/document_file.h"
#include "core/parts/own_parts.h"
#include "core/report/report.h"

namespace bold::cli {

bool onTerminal() {
  return ::isatty(STDOUT_FILENO) == 1;
}

namespace {

void complain(const std::vector<Problem>& problems) {
  for (const auto& p : problems) std::fprintf(stderr, "boldh: %s\n", text(p).c_str());
}

int one(FileSystem& disk, const parts::Library& library, const std::string& file, const CheckArguments& arguments) {
  auto loaded = harness::load(disk, file);
  if (!loaded) {
    complain({loaded.error()});
    return 2;
  }
  auto problems = loaded->problems;
  const auto here = harness::withDocumentParts(library, loaded->harness, file, problems);
  complain(problems);
  if (loaded->harness.newerFormat) return 2;
  const auto analysis = analyse(loaded->harness, here);
  std::string out;
  if (arguments.summary)
    out = report::summaryLine(file, analysis);
  else if (arguments.json)
    out = report::json(file, loaded->harness, analysis);
  else
    out = report::text(file, loaded->harness, analysis, {onTerminal(), 80});
  std::fputs(out.c_str(), stdout);
  return analysis.verdict == Verdict::DoNotSwitchOn || analysis.verdict == Verdict::NotJudged ? 1 : 0;
}

}  // namespace

int check(const CheckArguments& arguments) {
  Disk disk;
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  library.addOwn(disk.readFolder(parts::ownFolder()), problems);
  complain(problems);
  int code = 0;
  for (std::size_t i = 0; i < arguments.files.size(); ++i) {
    if (i > 0 && !arguments.summary && !arguments.json) std::fputs("\n", stdout);
    code = std::max(code, one(disk, library, arguments.files[i], arguments));
  }
  return code;
}

}  // namespace bold::cli
