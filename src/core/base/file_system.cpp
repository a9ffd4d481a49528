#include "core/base/file_system.h"

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <chrono>
#include <cstring>
#include <filesystem>
#include <random>

#include "core/base/json.h"

namespace bold {
namespace {
namespace fs = std::filesystem;

std::string reason(int error) {
  return std::strerror(error);
}  // NOLINT(concurrency-mt-unsafe): glibc's is safe

// Everything, to the disk itself. @return 0 or errno
int writeAll(int fd, const std::string& text) {
  std::size_t done = 0;
  while (done < text.size()) {
    const auto n = ::write(fd, text.data() + done, text.size() - done);
    if (n < 0 && errno != EINTR) return errno;
    if (n > 0) done += static_cast<std::size_t>(n);
  }
  return ::fsync(fd) == 0 ? 0 : errno;
}

constexpr int kTries = 100;
constexpr const char* kSuffix = ".part";  // of what is being written

// As the file that stood there; where its group cannot be kept, the group gets no more than everybody.
void takeOver(int fd, const struct ::stat& old) {
  mode_t mode = old.st_mode & 07777U;
  if (::fchown(fd, static_cast<uid_t>(-1), old.st_gid) != 0) mode = (mode & ~070U) | ((mode & 07U) << 3U);
  (void)::fchmod(fd, mode & 0777U);
}

struct Closing {
  int fd;
  ~Closing() { ::close(fd); }
};

// Tries names beside the target that nobody can foresee, until one was free: a link planted in its place is never followed.
// @param take makes the file of that name; its result is returned, -1 with errno where it failed
template <class Take>
int underFreeName(const std::string& target, std::string& beside, Take take) {
  std::random_device random;
  const fs::path path(target);
  for (int i = 0; i < kTries; ++i) {
    beside = (path.parent_path() / fmt::format(".{}.{:08x}{:08x}{}", path.filename().string(), random(), random(), kSuffix)).string();
    const int result = take(beside.c_str());
    if (result >= 0 || errno != EEXIST) return result;
  }
  return -1;
}

std::string folderOf(const std::string& path) {
  const auto folder = fs::path(path).parent_path().string();
  return folder.empty() ? "." : folder;
}

// A text on its way to the disk, beside its target.
struct Writing {
  mode_t mode;
  const struct ::stat* as;  // the file whose mode and group it takes over; nullptr: none
};

int writeInto(int fd, const std::string& text, const Writing& w) {
  if (w.as) takeOver(fd, *w.as);
  return writeAll(fd, text);
}

// Without a name until all of it stands there: whatever kills the process, nothing is left. Not every file system can do that.
// @return 0 or errno
int writeNameless(const std::string& target, const std::string& text, const Writing& w, std::string& beside) {
  const int fd = ::open(folderOf(target).c_str(), O_WRONLY | O_TMPFILE | O_CLOEXEC, w.mode);
  if (fd < 0) return errno;
  const Closing closing{fd};
  if (const int error = writeInto(fd, text, w); error != 0) return error;
  const auto open = fmt::format("/proc/self/fd/{}", fd);
  const int named =
      underFreeName(target, beside, [&](const char* name) { return ::linkat(AT_FDCWD, open.c_str(), AT_FDCWD, name, AT_SYMLINK_FOLLOW); });
  return named < 0 ? errno : 0;
}

int writeNamed(const std::string& target, const std::string& text, const Writing& w, std::string& beside) {
  const int fd = underFreeName(
      target, beside, [&](const char* name) { return ::open(name, O_WRONLY | O_CREAT | O_EXCL | O_NOFOLLOW | O_CLOEXEC, w.mode); });
  if (fd < 0) return errno;
  int error = writeInto(fd, text, w);
  if (::close(fd) != 0 && error == 0) error = errno;
  if (error != 0) ::unlink(beside.c_str());
  return error;
}

int writeBeside(const std::string& target, const std::string& text, const Writing& w, std::string& beside) {
  const int error = writeNameless(target, text, w, beside);
  const bool cannot = error == EOPNOTSUPP || error == EISDIR || error == EINVAL || error == ENOENT || error == EXDEV || error == EPERM;
  return cannot ? writeNamed(target, text, w, beside) : error;
}

const char* kindOf(mode_t mode) {
  if (S_ISDIR(mode)) return "a folder";
  if (S_ISFIFO(mode)) return "a pipe";
  if (S_ISSOCK(mode)) return "a socket";
  return "a device";
}

constexpr auto kBeingWritten = std::chrono::hours(1);

class Flock : public FileLock {
 public:
  explicit Flock(int fd) : m_fd(fd) {}
  ~Flock() override { ::close(m_fd); }
  Flock(const Flock&) = delete;
  Flock& operator=(const Flock&) = delete;

 private:
  int m_fd;
};
}  // namespace

Result<std::string> Disk::read(const std::string& path) {
  // Not waiting: opening a pipe that nobody writes to would never come back.
  const bool files = m_feed == Feed::FilesOnly;
  const int fd = ::open(path.c_str(), O_RDONLY | O_CLOEXEC | O_NOCTTY | (files ? O_NONBLOCK : 0));
  if (fd < 0) {
    const int error = errno;
    if (error == ENXIO) return fail({"This is a socket, not a file.", path, {}});
    return fail({fmt::format("The file cannot be read ({}).", reason(error)), path, {}});
  }
  const Closing closing{fd};
  struct ::stat what {};
  if (::fstat(fd, &what) != 0) return fail({fmt::format("The file cannot be read ({}).", reason(errno)), path, {}});
  if (S_ISDIR(what.st_mode) || (files && !S_ISREG(what.st_mode)))
    return fail({fmt::format("This is {}, not a file.", kindOf(what.st_mode)), path, {}});
  // Piece by piece: a pipe or device has no size, and may have no end.
  std::string text;
  std::vector<char> piece(std::size_t{1} << 16U);
  while (true) {
    const auto n = ::read(fd, piece.data(), piece.size());
    if (n < 0 && errno == EINTR) continue;
    if (n < 0) return fail({"The file cannot be read to its end.", path, {}});
    if (n == 0) return text;
    text.append(piece.data(), static_cast<std::size_t>(n));
    if (text.size() > kLargestText) return fail({"The file is larger than 16 MiB.", path, {}});
  }
}

bool Disk::exists(const std::string& path) {
  std::error_code ec;
  return fs::exists(path, ec);
}

FileState Disk::state(const std::string& path) {
  FileState out;
  std::error_code ec;
  if (fs::is_symlink(path, ec)) out.leadsTo = fs::weakly_canonical(path, ec).string();
  struct ::stat what {};
  if (::stat(path.c_str(), &what) != 0) return out;
  out.exists = true;
  out.regular = S_ISREG(what.st_mode);
  // The administrator may write everything; what was made read-only was meant so.
  out.readOnly = (what.st_mode & 0222U) == 0 || ::access(path.c_str(), W_OK) != 0;
  out.names = static_cast<unsigned>(what.st_nlink);
  return out;
}

Result<bool> Disk::replace(const std::string& path, const std::string& text, Readers readers) {
  std::error_code ec;
  // Through a link to the file it names, so that the link itself survives.
  const auto target = fs::is_symlink(path, ec) ? fs::weakly_canonical(path, ec).string() : path;
  const auto untouched = [&](const char* what, int error) {
    return fail({fmt::format("The file cannot be {} ({}).", what, reason(error)), path, "What stood there before is untouched."});
  };
  struct ::stat old {};
  const bool stands = ::stat(target.c_str(), &old) == 0;
  if (stands && !S_ISREG(old.st_mode))
    return fail({fmt::format("This is {}, not a file.", kindOf(old.st_mode)), path, "Nothing was written."});
  std::string beside;
  const bool asBefore = readers == Readers::AsBefore;
  int error =
      writeBeside(target, text, {static_cast<mode_t>(asBefore && !stands ? 0666 : 0600), asBefore && stands ? &old : nullptr}, beside);
  if (error != 0) return untouched("written", error);
  if (stands && old.st_nlink > 1) {
    const int same = ::open(target.c_str(), O_WRONLY | O_TRUNC | O_NOFOLLOW | O_CLOEXEC);
    error = same < 0 ? errno : writeAll(same, text);
    if (same < 0) ::unlink(beside.c_str());
    if (same < 0) return untouched("written", error);
    if (::close(same) != 0 && error == 0) error = errno;
    if (error != 0)
      return fail({fmt::format("The file cannot be written ({}).", reason(error)), path, fmt::format("All of it stands in {}.", beside)});
    ::unlink(beside.c_str());
    return true;
  }
  if (::rename(beside.c_str(), target.c_str()) != 0) {
    error = errno;
    ::unlink(beside.c_str());
    return untouched("replaced", error);
  }
  if (const int opened = ::open(folderOf(target).c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC); opened >= 0) {
    ::fsync(opened);  // makes the rename itself last; best effort
    ::close(opened);
  }
  return true;
}

Result<bool> Disk::remove(const std::string& path) {
  if (::unlink(path.c_str()) == 0 || errno == ENOENT) return true;
  return fail({fmt::format("The file cannot be removed ({}).", reason(errno)), path, {}});
}

Result<bool> Disk::makeFolder(const std::string& path, Readers readers) {
  std::error_code ec;
  fs::create_directories(path, ec);
  if (!ec && readers == Readers::OwnerOnly) fs::permissions(path, fs::perms::owner_all, ec);
  if (ec) return fail({fmt::format("The folder cannot be made ({}).", reason(ec.value())), path, {}});
  return true;
}

FolderTexts Disk::readFolder(const std::string& path, const std::string& suffix) {
  FolderTexts out;
  std::error_code ec;
  if (!fs::exists(path, ec) && (!ec || ec == std::errc::no_such_file_or_directory)) return out;
  // Step by step instead of recursive_directory_iterator, which ends at the first folder it may not enter.
  std::vector<std::string> open{path};
  while (!open.empty()) {
    const auto folder = std::move(open.back());
    open.pop_back();
    for (fs::directory_iterator it(folder, ec), end; !ec && it != end; it.increment(ec)) {
      std::error_code ignored;
      const auto file = it->path().string();
      if (it->is_directory(ignored) && !it->is_symlink(ignored)) open.push_back(file);
      if (!it->is_regular_file(ignored) || !file.ends_with(suffix) || it->path().filename().string().starts_with('.')) continue;
      if (auto text = read(file))
        out.files.emplace(file, std::move(*text));
      else
        out.problems.push_back(text.error());
    }
    if (ec) out.problems.push_back({fmt::format("The folder cannot be read ({}).", reason(ec.value())), folder, {}});
    ec.clear();
  }
  return out;
}

void Disk::tidy(const std::string& folder) {
  std::error_code ec;
  for (fs::recursive_directory_iterator it(folder, ec), end; !ec && it != end; it.increment(ec)) {
    std::error_code ignored;
    const auto file = it->path().string();
    if (!it->is_regular_file(ignored)) continue;
    // What is being written is renamed within moments.
    const auto age = fs::file_time_type::clock::now() - it->last_write_time(ignored);
    if (file.ends_with(kSuffix) && !ignored && age > kBeingWritten) ::unlink(file.c_str());
    // The file of a lock that is taken is only taken away by who took it.
    if (file.ends_with(".lock"))
      if (const auto mine = lock(file); mine && *mine) ::unlink(file.c_str());
  }
}

Result<std::unique_ptr<FileLock>> Disk::lock(const std::string& path) {
  for (int i = 0; i < kTries; ++i) {
    const int fd = ::open(path.c_str(), O_RDWR | O_CREAT | O_NOFOLLOW | O_CLOEXEC, 0600);
    if (fd < 0) return fail({fmt::format("The file cannot be locked ({}).", reason(errno)), path, {}});
    auto mine = std::make_unique<Flock>(fd);
    if (::flock(fd, LOCK_EX | LOCK_NB) != 0) {
      if (errno == EWOULDBLOCK) return std::unique_ptr<FileLock>();
      return fail({fmt::format("The file cannot be locked ({}).", reason(errno)), path, {}});
    }
    // Somebody may have tidied the file away between opening and locking: then the lock is on a file without a name.
    struct ::stat held {};
    struct ::stat named {};
    if (::fstat(fd, &held) == 0 && ::stat(path.c_str(), &named) == 0 && held.st_ino == named.st_ino) return mine;
  }
  return fail({"The file cannot be locked (it is taken away again and again).", path, {}});
}

std::string Disk::absolute(const std::string& path) {
  std::error_code ec;
  const auto out = fs::absolute(path, ec);
  return ec ? path : out.lexically_normal().string();
}

std::string Disk::canonical(const std::string& path) {
  std::error_code ec;
  const auto out = fs::weakly_canonical(fs::absolute(path, ec), ec);
  return ec ? path : out.string();
}

}  // namespace bold
