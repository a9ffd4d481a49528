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

LoadedOrNot load(FileSystem& disk, const parts::Library& library, const std::string& file) {
  LoadedOrNot out;
  auto text = disk.read(file);
  auto read = text ? harness::readHarness(*text, file) : fail(text.error());
  if (!read) {
    out.problems.push_back(read.error());
    return out;
  }
  out.problems = std::move(read->problems);
  (void)harness::lookAtSources(disk, read->harness, file);
  auto here = harness::withDocumentParts(library, read->harness, file, out.problems);
  if (!read->harness.newerFormat) out.bench = Loaded{std::move(read->harness), std::move(here), std::move(*text)};
  return out;
}

std::string deviceId(const harness::Harness& h, const std::string& typed) {
  for (const auto& d : h.devices)
    if (d.id == typed || d.called() == typed) return d.id;
  return typed;
}

std::optional<Loaded> openBench(FileSystem& disk, const std::string& file, bool toBeWritten) {
  auto loaded = load(disk, ownLibrary(disk), file);
  complain(loaded.problems);
  if (loaded.bench && loaded.bench->harness.newerFormat && toBeWritten) {
    complain(fmt::format("{} comes from a newer version: it can only be looked at.", file));
    return std::nullopt;
  }
  return std::move(loaded.bench);
}

bool writeBench(FileSystem& disk, Loaded& bench, const std::string& path) {
  const auto saved = harness::save(disk, bench.harness, bench.library, {}, disk.absolute(path), harness::Overwrite::Yes);
  if (!saved) complain(saved.error().what);
  return saved.has_value();
}

}  // namespace bold::cli
