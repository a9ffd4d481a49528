#include "commands.h"
#include "core/harness/document_file.h"
#include "core/parts/own_parts.h"

namespace bold::cli {

void complain(const std::vector<Problem>& problems) {
  for (const auto& p : problems) std::fprintf(stderr, "boldh: %s\n", text(p).c_str());
}

std::optional<Loaded> load(FileSystem& disk, const std::string& file) {
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  parts::addOwn(library, disk, problems);
  auto read = harness::load(disk, file);
  if (!read) {
    problems.push_back(read.error());
    complain(problems);
    return std::nullopt;
  }
  problems.insert(problems.end(), read->problems.begin(), read->problems.end());
  auto here = harness::withDocumentParts(library, read->harness, file, problems);
  complain(problems);
  if (read->harness.newerFormat) return std::nullopt;
  return Loaded{std::move(read->harness), std::move(here)};
}

}  // namespace bold::cli
