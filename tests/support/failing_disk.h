#pragma once

#include "core/base/file_system.h"

namespace bold::test {

/// Fails at its n-th call (from 0); everything else it hands on to the real disk.
class FailingDisk : public FileSystem {
 public:
  explicit FailingDisk(int at) : m_at(at) {}
  Result<std::string> read(const std::string& path) override { return fails() ? Result<std::string>(gone(path)) : m_disk.read(path); }
  bool exists(const std::string& path) override { return !fails() && m_disk.exists(path); }
  FileState state(const std::string& path) override { return fails() ? FileState{} : m_disk.state(path); }
  Result<bool> replace(const std::string& path, const std::string& text, Readers readers = Readers::AsBefore) override {
    return fails() ? Result<bool>(gone(path)) : m_disk.replace(path, text, readers);
  }
  Result<bool> remove(const std::string& path) override { return fails() ? Result<bool>(gone(path)) : m_disk.remove(path); }
  Result<bool> makeFolder(const std::string& path, Readers readers = Readers::AsBefore) override {
    return fails() ? Result<bool>(gone(path)) : m_disk.makeFolder(path, readers);
  }
  void tidy(const std::string& folder) override {
    if (!fails()) m_disk.tidy(folder);
  }
  FolderTexts readFolder(const std::string& path, const std::string& suffix) override {
    return fails() ? FolderTexts{{}, {gone(path).value()}} : m_disk.readFolder(path, suffix);
  }
  Result<std::unique_ptr<FileLock>> lock(const std::string& path) override {
    if (fails()) return gone(path);
    return m_disk.lock(path);
  }
  std::string absolute(const std::string& path) override { return m_disk.absolute(path); }
  std::string canonical(const std::string& path) override { return m_disk.canonical(path); }

  /// Whether the call that fails was made.
  bool failed() const { return m_calls > m_at; }

 private:
  Disk m_disk;
  int m_at, m_calls = 0;
  bool fails() { return m_calls++ == m_at; }
  static tl::unexpected<Problem> gone(const std::string& path) { return fail(Problem{"The disk is gone.", path, {}}); }
};

}  // namespace bold::test
