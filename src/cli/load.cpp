#include "load.h"

#include <fmt/core.h>

#include "core/harness/document_file.h"
#include "core/harness/source_standing.h"
#include "core/parts/own_parts.h"
#include "output.h"

namespace bold::cli {

void complain(const std::vector<Problem>& problems) {
  for (const auto& p : problems) complain(text(p));
}

parts::Library ownLibrary(FileSystem& disk) {
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  parts::addOwn(library, disk, problems);
  complain(problems);
  return library;
}

LoadedOrNot load(FileSystem& disk, const parts::Library& library, const std::string& file, const std::vector<std::string>& sources) {
  LoadedOrNot out;
  auto text = disk.read(file);
  auto read = text ? harness::readHarness(*text, file) : fail(text.error());
  if (!read) {
    out.problems.push_back(read.error());
    return out;
  }
  out.problems = std::move(read->problems);
  harness::AskedFor askedFor;
  for (const auto& s : sources) askedFor.insert(disk.canonical(s));
  (void)harness::lookAtSources(disk, read->harness, file, askedFor);
  auto here = harness::withDocumentParts(library, read->harness, file, out.problems);
  if (!read->harness.newerFormat) {
    harness::OpenFile open{disk.absolute(file), harness::bytesDigest(*text)};
    out.bench = Loaded{std::move(read->harness), std::move(here), std::move(*text), std::move(open)};
  }
  return out;
}

std::string deviceId(const harness::Harness& h, const std::string& typed) {
  for (const auto& d : h.devices)
    if (d.id == typed || d.called() == typed) return d.id;
  return typed;
}

std::optional<Loaded> openBench(FileSystem& disk, const std::string& file, bool toBeWritten, const std::vector<std::string>& sources) {
  auto loaded = load(disk, ownLibrary(disk), file, sources);
  complain(loaded.problems);
  if (loaded.bench && loaded.bench->harness.newerFormat && toBeWritten) {
    complain(fmt::format("{} comes from a newer version: it can only be looked at.", file));
    return std::nullopt;
  }
  return std::move(loaded.bench);
}

void complainOfWriting(const Problem& problem) {
  complain(text(problem) + (problem.kept == harness::kAsk ? " --force insists." : ""));
}

bool writeBench(FileSystem& disk, Loaded& bench, const std::string& path, bool force) {
  const auto saved = harness::save(disk, bench.harness, bench.library, bench.file, disk.absolute(path),
                                   force ? harness::Overwrite::Yes : harness::Overwrite::Ask);
  if (!saved) complainOfWriting(saved.error());
  return saved.has_value();
}

}  // namespace bold::cli
