#pragma once

#include <map>
#include <string>

#include "core/base/result.h"

namespace bold {

/// The disk, passed in so that tests can make it fail at any call.
class FileSystem {
 public:
  virtual ~FileSystem() = default;

  /// Errors: one sentence with the reason (missing, a folder, no permission).
  [[nodiscard]] virtual Result<std::string> read(const std::string& path) = 0;
  [[nodiscard]] virtual bool exists(const std::string& path) = 0;
  /// Writes beside the target, syncs, then renames: afterwards the file is the old one or the new one, whole.
  [[nodiscard]] virtual Result<bool> replace(const std::string& path, const std::string& text) = 0;
  /// Every *.json below a folder, by path; empty when the folder does not exist.
  [[nodiscard]] virtual std::map<std::string, std::string> readFolder(const std::string& path) = 0;
};

/// The real one.
class Disk : public FileSystem {
 public:
  Result<std::string> read(const std::string& path) override;
  bool exists(const std::string& path) override;
  Result<bool> replace(const std::string& path, const std::string& text) override;
  std::map<std::string, std::string> readFolder(const std::string& path) override;
};

}  // namespace bold
