#include "core/harness/file_system.h"

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>
#include <filesystem>
#include <fstream>
#include <sstream>

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
}  // namespace

Result<std::string> Disk::read(const std::string& path) {
  std::error_code ec;
  if (fs::is_directory(path, ec)) return fail({"This is a folder, not a file.", path, {}});
  errno = 0;
  std::ifstream in(path, std::ios::binary);
  if (!in) return fail({fmt::format("The file cannot be read ({}).", reason(errno == 0 ? ENOENT : errno)), path, {}});
  std::ostringstream text;
  text << in.rdbuf();
  if (in.bad()) return fail({"The file cannot be read to its end.", path, {}});
  return text.str();
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
  const std::string beside = target + ".part";
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

std::map<std::string, std::string> Disk::readFolder(const std::string& path) {
  std::map<std::string, std::string> out;
  std::error_code ec;
  for (fs::recursive_directory_iterator it(path, fs::directory_options::skip_permission_denied, ec), end; !ec && it != end;
       it.increment(ec)) {
    if (!it->is_regular_file(ec) || it->path().extension() != ".json") continue;
    if (auto text = read(it->path().string())) out.emplace(it->path().string(), *text);
  }
  return out;
}

}  // namespace bold
