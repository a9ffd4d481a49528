#include "core/harness/document_file.h"

#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/harness/source_standing.h"

namespace bold::harness {
std::string bytesDigest(const std::string& bytes) {
  return digest(Json(bytes));
}

std::string digestOnDisk(FileSystem& disk, const std::string& path) {
  const auto text = disk.read(path);
  return text ? bytesDigest(*text) : kNoFile;
}

Result<Loaded> load(FileSystem& disk, const std::string& path) {
  auto text = disk.read(path);
  if (!text) return fail(text.error());
  auto reading = readHarness(*text, path);
  if (!reading) return fail(reading.error());
  (void)lookAtSources(disk, reading->harness, path);
  // Absolute: the program may be elsewhere when it is saved, or taken up after a crash.
  return Loaded{std::move(reading->harness), {disk.absolute(path), bytesDigest(*text)}, std::move(reading->problems)};
}

Result<OpenFile> save(FileSystem& disk, Harness& harness, const parts::Library& library, const OpenFile& file, const std::string& path,
                      Overwrite overwrite) {
  if (harness.newerFormat)
    return fail({"This bench comes from a newer version of the program and cannot be saved by this one.", path, "The file is untouched."});
  const bool own = !file.path.empty() && disk.canonical(path) == disk.canonical(file.path);
  const auto state = disk.state(path);
  if (own && overwrite != Overwrite::Yes && state.exists) {
    const auto now = disk.read(path);
    if (now && bytesDigest(*now) != file.digest)
      return fail({"The file was changed on disk by somebody else since it was opened.", path, kAsk});
    if (state.readOnly) return fail({"The file is read-only.", path, kAsk});
  }
  if (!own)
    if (auto why = objection(disk, path, Written::Bench, overwrite)) return fail(std::move(*why));
  carryParts(harness, library);
  moveSources(harness, file.path, disk.absolute(path));
  const auto text = writeHarness(harness);
  if (auto done = disk.replace(path, text); !done) return fail(done.error());
  return OpenFile{disk.absolute(path), bytesDigest(text)};
}

}  // namespace bold::harness
