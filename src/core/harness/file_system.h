#pragma once

#include <map>
#include <memory>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace bold {

/// Held until it is destroyed or the process ends, however it ends.
class FileLock {
 public:
  virtual ~FileLock() = default;
};

/// What a folder holds, and what of it could not be read.
struct FolderTexts {
  std::map<std::string, std::string> files;  ///< text by path
  std::vector<Problem> problems;
};

/// The disk, passed in so that tests can make it fail at any call.
class FileSystem {
 public:
  virtual ~FileSystem() = default;

  /// Errors: one sentence with the reason (missing, a folder, no permission).
  [[nodiscard]] virtual Result<std::string> read(const std::string& path) = 0;
  [[nodiscard]] virtual bool exists(const std::string& path) = 0;
  /// Writes beside the target, syncs, then renames: afterwards the file is the old one or the new one, whole.
  [[nodiscard]] virtual Result<bool> replace(const std::string& path, const std::string& text) = 0;
  /// Takes a file away; none there is fine.
  [[nodiscard]] virtual Result<bool> remove(const std::string& path) = 0;
  /// Makes a folder and those it lies in; one that is there is fine.
  [[nodiscard]] virtual Result<bool> makeFolder(const std::string& path) = 0;
  /// Every file below a folder whose name ends with the suffix; nothing when the folder does not exist.
  [[nodiscard]] virtual FolderTexts readFolder(const std::string& path, const std::string& suffix) = 0;
  /// A lock on a file made for it; nullptr when somebody holds it. Errors: the file cannot be made.
  [[nodiscard]] virtual Result<std::unique_ptr<FileLock>> lock(const std::string& path) = 0;
  /// The same for every road to one file: absolute, links followed.
  [[nodiscard]] virtual std::string canonical(const std::string& path) = 0;
};

/// The real one.
class Disk : public FileSystem {
 public:
  Result<std::string> read(const std::string& path) override;
  bool exists(const std::string& path) override;
  Result<bool> replace(const std::string& path, const std::string& text) override;
  Result<bool> remove(const std::string& path) override;
  Result<bool> makeFolder(const std::string& path) override;
  FolderTexts readFolder(const std::string& path, const std::string& suffix) override;
  Result<std::unique_ptr<FileLock>> lock(const std::string& path) override;
  std::string canonical(const std::string& path) override;
};

}  // namespace bold
