#include "support/process.h"

#include <sys/wait.h>

#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <sstream>
#include <stdexcept>

namespace bold::test {
namespace {
std::string quoted(const std::string& s) {
  std::string out = "'";
  for (const char c : s) out += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return out + "'";
}
std::string slurp(const std::string& path) {
  std::ifstream in(path);
  std::ostringstream text;
  text << in.rdbuf();
  return text.str();
}
}  // namespace

TemporaryFolder::TemporaryFolder() {
  std::string pattern = (std::filesystem::temp_directory_path() / "bold-XXXXXX").string();
  if (!mkdtemp(pattern.data())) throw std::runtime_error("no temporary folder");
  m_path = pattern;
}
TemporaryFolder::~TemporaryFolder() {
  std::error_code ec;
  std::filesystem::remove_all(m_path, ec);
}
std::string TemporaryFolder::write(const std::string& name, const std::string& text) const {
  std::filesystem::create_directories(std::filesystem::path(path(name)).parent_path());
  std::ofstream(path(name)) << text;
  return path(name);
}

Ran run(const std::vector<std::string>& arguments, const std::string& dataHome) {
  return runProgram(BOLDH, arguments, dataHome);
}

Ran runProgram(const std::string& program, const std::vector<std::string>& arguments, const std::string& dataHome) {
  const TemporaryFolder home;
  std::string command = "env -i HOME=" + quoted(home.path()) + " PATH=/usr/bin:/bin LC_ALL=C.UTF-8 ";
  if (!dataHome.empty()) command += "XDG_DATA_HOME=" + quoted(dataHome) + " ";
  command += quoted(program);
  for (const auto& a : arguments) command += " " + quoted(a);
  command += " </dev/null >" + quoted(home.path("out")) + " 2>" + quoted(home.path("err"));
  const int status = std::system(command.c_str());
  return {WIFEXITED(status) ? WEXITSTATUS(status) : -1, slurp(home.path("out")), slurp(home.path("err"))};
}

}  // namespace bold::test
