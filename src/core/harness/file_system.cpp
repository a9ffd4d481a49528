#include "core/harness/file_system.h"

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <atomic>
#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>

#include "core/base/json.h"

namespace bold {
namespace {
namespace fs = std::filesystem;

std::string reason(int error) {
  return std::strerror(error);
}  // NOLINT(concurrency-mt-unsafe): glibc's is safe

Result<bool> writeWhole(const std::string& path, const std::string& text, mode_t mode) {
  const int fd = ::open(path.c_str(), O_WRONLY | O_CREAT | O_TRUNC | O_CLOEXEC, mode);
  if (fd < 0) return fail({fmt::format("The file cannot be written ({}).", reason(errno)), path, {}});
  std::size_t done = 0;
  int error = 0;
  while (done < text.size() && error == 0) {
    const auto n = ::write(fd, text.data() + done, text.size() - done);
    if (n < 0 && errno != EINTR) error = errno;
    if (n > 0) done += static_cast<std::size_t>(n);
  }
  if (error == 0 && ::fsync(fd) != 0) error = errno;
  if (::close(fd) != 0 && error == 0) error = errno;
  if (error != 0) return fail({fmt::format("The file cannot be written ({}).", reason(error)), path, {}});
  return true;
}

// A hidden name in the same folder that no other window of this or any other process writes to.
std::string besideOf(const std::string& target) {
  static std::atomic<int> count{0};
  const fs::path path(target);
  return (path.parent_path() / fmt::format(".{}.{}-{}.part", path.filename().string(), ::getpid(), count++)).string();
}

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
  std::error_code ec;
  if (fs::is_directory(path, ec)) return fail({"This is a folder, not a file.", path, {}});
  errno = 0;
  std::ifstream in(path, std::ios::binary);
  if (!in) return fail({fmt::format("The file cannot be read ({}).", reason(errno == 0 ? ENOENT : errno)), path, {}});
  // Piece by piece: a pipe or device has no size, and may have no end.
  std::string text;
  std::vector<char> piece(std::size_t{1} << 16U);
  while (in.read(piece.data(), static_cast<std::streamsize>(piece.size())), in.gcount() > 0) {
    text.append(piece.data(), static_cast<std::size_t>(in.gcount()));
    if (text.size() > kLargestText) return fail({"The file is larger than 16 MiB.", path, {}});
  }
  if (in.bad()) return fail({"The file cannot be read to its end.", path, {}});
  return text;
}

bool Disk::exists(const std::string& path) {
  std::error_code ec;
  return fs::exists(path, ec);
}

Result<bool> Disk::replace(const std::string& path, const std::string& text) {
  std::error_code ec;
  // Through a link to the file it names, so that the link itself survives.
  const auto target = fs::is_symlink(path, ec) ? fs::weakly_canonical(path, ec).string() : path;
  struct ::stat old {};
  const mode_t mode = ::stat(target.c_str(), &old) == 0 ? (old.st_mode & 0777) : 0644;
  const std::string beside = besideOf(target);
  if (auto written = writeWhole(beside, text, mode); !written) {
    ::unlink(beside.c_str());
    auto p = written.error();
    p.where = path;
    p.kept = "What stood there before is untouched.";
    return fail(p);
  }
  if (::rename(beside.c_str(), target.c_str()) != 0) {
    const int error = errno;
    ::unlink(beside.c_str());
    return fail({fmt::format("The file cannot be replaced ({}).", reason(error)), path, "What stood there before is untouched."});
  }
  const auto folder = fs::path(target).parent_path();
  if (const int fd = ::open(folder.empty() ? "." : folder.c_str(), O_RDONLY | O_DIRECTORY | O_CLOEXEC); fd >= 0) {
    ::fsync(fd);  // makes the rename itself last; best effort
    ::close(fd);
  }
  return true;
}

Result<bool> Disk::remove(const std::string& path) {
  if (::unlink(path.c_str()) == 0 || errno == ENOENT) return true;
  return fail({fmt::format("The file cannot be removed ({}).", reason(errno)), path, {}});
}

Result<bool> Disk::makeFolder(const std::string& path) {
  std::error_code ec;
  fs::create_directories(path, ec);
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

Result<std::unique_ptr<FileLock>> Disk::lock(const std::string& path) {
  const int fd = ::open(path.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0600);
  if (fd < 0) return fail({fmt::format("The file cannot be locked ({}).", reason(errno)), path, {}});
  if (::flock(fd, LOCK_EX | LOCK_NB) == 0) return std::make_unique<Flock>(fd);
  const int error = errno;
  ::close(fd);
  if (error == EWOULDBLOCK) return std::unique_ptr<FileLock>();
  return fail({fmt::format("The file cannot be locked ({}).", reason(error)), path, {}});
}

std::string Disk::canonical(const std::string& path) {
  std::error_code ec;
  const auto out = fs::weakly_canonical(fs::absolute(path, ec), ec);
  return ec ? path : out.string();
}

}  // namespace bold
