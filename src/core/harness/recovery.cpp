#include "core/harness/recovery.h"

#include <fmt/chrono.h>
#include <fmt/core.h>

#include <cstdlib>
#include <ctime>
#include <nlohmann/json.hpp>

namespace bold::harness {
namespace {

constexpr const char* kFormatName = "bold-harness-recovery";
constexpr const char* kSuffix = ".recovery";
constexpr int kMostWindows = 1000;

std::string now() {
  return fmt::format("{:%Y-%m-%dT%H:%M:%SZ}", fmt::gmtime(std::time(nullptr)));
}

std::string lockOf(const std::string& recovery) {
  return recovery.substr(0, recovery.size() - std::string_view(kSuffix).size()) + ".lock";
}

std::string textAt(const Json& j, const char* key) {
  return j.contains(key) && j[key].is_string() ? j[key].get<std::string>() : std::string();
}

Result<Left> readLeft(const std::string& path, const std::string& text) {
  const auto broken = [&](const std::string& what) { return fail(Problem{what, path, "The file is left where it is."}); };
  std::vector<Problem> problems;
  const auto json = parseJson(text, path, problems);
  if (!json) return broken("What a window left behind cannot be read: " + json.error().what);
  if (!json->is_object() || textAt(*json, "format") != kFormatName || !json->contains("bench"))
    return broken("This is not a recovery file.");
  const auto& bench = (*json)["bench"];
  auto reading = readHarness(bench.is_string() ? bench.get<std::string>() : bench.dump(), path);
  if (!reading) return broken("What a window left behind cannot be read: " + reading.error().what);
  // Of a path that is not absolute nobody knows any more where it began: what was left is offered as a bench without a file.
  const auto file = textAt(*json, "file");
  const bool known = file.starts_with('/');
  return Left{path,
              {known ? file : std::string(), known ? textAt(*json, "digest") : std::string()},
              textAt(*json, "when"),
              std::move(reading->harness),
              std::move(reading->problems),
              {}};
}

}  // namespace

std::string stateFolder() {
  const char* state = std::getenv("XDG_STATE_HOME");  // NOLINT(concurrency-mt-unsafe): read once, at start
  if (state && *state == '/') return std::string(state) + "/bold-harness";
  const char* home = std::getenv("HOME");  // NOLINT(concurrency-mt-unsafe)
  return home && *home ? std::string(home) + "/.local/state/bold-harness" : std::string();
}

Result<Recovery> Recovery::begin(FileSystem& disk, const std::string& folder) {
  if (folder.empty()) return fail("Neither HOME nor XDG_STATE_HOME is set: changes cannot be kept for a recovery.");
  if (auto made = disk.makeFolder(folder, Readers::OwnerOnly); !made) return fail(made.error());
  for (int n = 1; n <= kMostWindows; ++n) {
    const auto path = fmt::format("{}/window-{}{}", folder, n, kSuffix);
    auto lock = disk.lock(lockOf(path));
    if (!lock) return fail(lock.error());
    // A file whose window is no more waits for somebody to take it up: its name is not free.
    if (*lock && !disk.exists(path)) return Recovery(disk, path, std::move(*lock));
  }
  return fail(Problem{"There are too many windows or recovery files: changes cannot be kept for a recovery.", folder, {}});
}

Result<bool> Recovery::keep(const Harness& harness, const parts::Library& library, const OpenFile& file) const {
  auto document = harness;
  carryParts(document, library);
  Json j;
  j["format"] = kFormatName;
  j["version"] = 2;
  j["when"] = now();
  j["file"] = file.path;
  j["digest"] = file.digest;
  j["bench"] = writeHarness(document);  // as text: what could not be read of it stays as it was
  return m_disk->replace(m_path, j.dump() + "\n", Readers::OwnerOnly);
}

Result<bool> Recovery::forget() const {
  return m_disk->remove(m_path);
}

std::vector<Left> leftBehind(FileSystem& disk, const std::string& folder, std::vector<Problem>& problems) {
  std::vector<Left> out;
  disk.tidy(folder);
  auto texts = disk.readFolder(folder, kSuffix);
  problems.insert(problems.end(), texts.problems.begin(), texts.problems.end());
  for (const auto& [path, text] : texts.files) {
    auto lock = disk.lock(lockOf(path));
    if (!lock) {
      problems.push_back(lock.error());
      continue;
    }
    if (!*lock) continue;  // its window is alive
    auto left = readLeft(path, text);
    if (!left) {
      problems.push_back(left.error());
      continue;
    }
    left->lock = std::move(*lock);
    out.push_back(std::move(*left));
  }
  return out;
}

Result<bool> discard(FileSystem& disk, const Left& left) {
  return disk.remove(left.path);
}

std::shared_ptr<FileLock> claim(FileSystem& disk, const std::string& folder, const std::string& file, bool& elsewhere) {
  elsewhere = false;
  const auto locks = folder + "/open";
  if (folder.empty() || !disk.makeFolder(locks, Readers::OwnerOnly)) return nullptr;
  auto lock = disk.lock(fmt::format("{}/{}.lock", locks, digest(Json(disk.canonical(file)))));
  if (!lock) return nullptr;
  elsewhere = !*lock;
  return std::move(*lock);
}

}  // namespace bold::harness
