#pragma once

#include <string>
#include <vector>

namespace bold::test {

struct Ran {
  int code = -1;
  std::string out, err;
};

/// Runs boldh in an empty home, so that the user's own folders are never read. stdin is empty.
Ran run(const std::vector<std::string>& arguments, const std::string& dataHome = {});

/// Any other program, likewise.
Ran runProgram(const std::string& program, const std::vector<std::string>& arguments, const std::string& dataHome = {});

/// A fresh folder that is gone at the end.
class TemporaryFolder {
 public:
  TemporaryFolder();
  ~TemporaryFolder();
  TemporaryFolder(const TemporaryFolder&) = delete;
  TemporaryFolder& operator=(const TemporaryFolder&) = delete;
  std::string path(const std::string& name) const { return m_path + "/" + name; }
  const std::string& path() const { return m_path; }
  std::string write(const std::string& name, const std::string& text) const;  ///< returns the path

 private:
  std::string m_path;
};

}  // namespace bold::test
