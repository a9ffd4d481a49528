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

/// What stands in the way of writing over a file, or should be known before.
struct FileState {
  bool exists = false;
  bool readOnly = false;  ///< it is not meant to be written to, though it could be replaced
  bool regular = true;    ///< neither a folder nor a pipe, socket or device
  std::string leadsTo;    ///< a link: the file it names; empty: none
  unsigned names = 1;     ///< hard links
};

/// For whom what is written is meant.
enum class Readers {
  AsBefore,   ///< mode and group of what stood there; a new file as the user's mask has it
  OwnerOnly,  ///< 0600
};

/// The disk, passed in so that tests can make it fail at any call.
class FileSystem {
 public:
  virtual ~FileSystem() = default;

  /// Errors: one sentence with the reason (missing, no permission; a folder, pipe, socket or device, which are never waited for).
  [[nodiscard]] virtual Result<std::string> read(const std::string& path) = 0;
  [[nodiscard]] virtual bool exists(const std::string& path) = 0;
  [[nodiscard]] virtual FileState state(const std::string& path) = 0;
  /// Writes beside the target, syncs, then renames: afterwards the file is the old one or the new one, whole. Links stay links. A
  /// file with several names is written in place, so that all of them see it; what is written stands beside it until that is done.
  [[nodiscard]] virtual Result<bool> replace(const std::string& path, const std::string& text, Readers readers = Readers::AsBefore) = 0;
  /// Takes a file away; none there is fine.
  [[nodiscard]] virtual Result<bool> remove(const std::string& path) = 0;
  /// Makes a folder and those it lies in; one that is there is fine.
  /// @param readers OwnerOnly: the folder itself is closed to others (0700), also one that is there
  [[nodiscard]] virtual Result<bool> makeFolder(const std::string& path, Readers readers = Readers::AsBefore) = 0;
  /// Takes away lock files below a folder that nobody holds, and what writing left when it was killed.
  virtual void tidy(const std::string& folder) = 0;
  /// Every file below a folder whose name ends with the suffix; nothing when the folder does not exist.
  [[nodiscard]] virtual FolderTexts readFolder(const std::string& path, const std::string& suffix) = 0;
  /// A lock on a file made for it; nullptr when somebody holds it. Errors: the file cannot be made.
  [[nodiscard]] virtual Result<std::unique_ptr<FileLock>> lock(const std::string& path) = 0;
  /// From wherever the program is now; links stay.
  [[nodiscard]] virtual std::string absolute(const std::string& path) = 0;
  /// The same for every road to one file: absolute, links followed.
  [[nodiscard]] virtual std::string canonical(const std::string& path) = 0;
};

/// What Disk::read takes besides files: a command line may be fed by a pipe, a window must never wait for one.
enum class Feed { FilesOnly, PipesToo };

/// The real one.
class Disk : public FileSystem {
 public:
  explicit Disk(Feed feed = Feed::FilesOnly) : m_feed(feed) {}
  Result<std::string> read(const std::string& path) override;
  bool exists(const std::string& path) override;
  FileState state(const std::string& path) override;
  Result<bool> replace(const std::string& path, const std::string& text, Readers readers = Readers::AsBefore) override;
  Result<bool> remove(const std::string& path) override;
  Result<bool> makeFolder(const std::string& path, Readers readers = Readers::AsBefore) override;
  void tidy(const std::string& folder) override;
  FolderTexts readFolder(const std::string& path, const std::string& suffix) override;
  Result<std::unique_ptr<FileLock>> lock(const std::string& path) override;
  std::string absolute(const std::string& path) override;
  std::string canonical(const std::string& path) override;

 private:
  Feed m_feed;
};

}  // namespace bold
