#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/harness/document_file.h"

/// What is kept beside the user's files so that nothing is lost when a window is killed: one file for each window, in
/// $XDG_STATE_HOME/bold-harness/recovery, with the whole document and where it came from.
namespace bold::harness {

/// $XDG_STATE_HOME/bold-harness, else ~/.local/state/bold-harness; empty when neither is known.
std::string stateFolder();

/// A document as it was last kept by a window that ended without saving or asking.
struct Left {
  std::string path;  ///< of the recovery file
  OpenFile file;     ///< what the window had open; an empty path: never saved
  std::string when;  ///< UTC, ISO 8601
  Harness harness;
  std::vector<Problem> problems;
  std::shared_ptr<FileLock> lock;  ///< held so that no other window takes it up as well
};

/// One window's recovery file.
class Recovery {
 public:
  /// @param folder made when it is missing
  /// Errors: the folder or the window's lock cannot be made; then nothing can be kept.
  [[nodiscard]] static Result<Recovery> begin(FileSystem& disk, const std::string& folder);

  /// Keeps a document, in the place of what was kept before. Not for two threads at once.
  [[nodiscard]] Result<bool> keep(const Harness& harness, const parts::Library& library, const OpenFile& file) const;
  /// Nothing is left to recover: the document was saved, or given up on purpose.
  [[nodiscard]] Result<bool> forget() const;

  const std::string& path() const { return m_path; }

 private:
  Recovery(FileSystem& disk, std::string path, std::shared_ptr<FileLock> lock)
      : m_disk(&disk), m_path(std::move(path)), m_lock(std::move(lock)) {}
  FileSystem* m_disk;
  std::string m_path;
  std::shared_ptr<FileLock> m_lock;
};

/// What windows that are no more have left. Broken ones are named in `problems` and left where they are.
std::vector<Left> leftBehind(FileSystem& disk, const std::string& folder, std::vector<Problem>& problems);

/// Takes a recovery file away for good.
[[nodiscard]] Result<bool> discard(FileSystem& disk, const Left& left);

/// Says that a window has this file open, until the lock is let go. nullptr: another window has it open already, or
/// nothing can be locked here.
std::shared_ptr<FileLock> claim(FileSystem& disk, const std::string& folder, const std::string& file, bool& elsewhere);

}  // namespace bold::harness
