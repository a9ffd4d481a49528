#include <catch2/catch.hpp>
#include <filesystem>
#include <regex>
#include <set>
#include <sstream>

#include "support/benches.h"

using namespace bold::test;
namespace fs = std::filesystem;

namespace {

// The folders in the first column of the table: written whole, or as a neighbour of the row's first.
std::set<std::string> foldersOfTable(const std::string& text) {
  std::set<std::string> out;
  std::istringstream lines(text.substr(text.find("| folder | holds |")));
  for (std::string line; std::getline(lines, line) && line.starts_with("|");) {
    const auto cell = line.substr(0, line.find('|', 1));
    static const std::regex code("`([^`]+)`");
    std::string beside;
    for (std::sregex_iterator it(cell.begin(), cell.end(), code), end; it != end; ++it) {
      const auto name = (*it)[1].str();
      if (beside.empty()) beside = fs::path(name).parent_path().string();
      out.insert(name.find('/') != std::string::npos || beside.empty() ? name : beside + "/" + name);
    }
  }
  return out;
}

}  // namespace

TEST_CASE("the table of folders names every folder with sources, and no other") {
  const auto named = foldersOfTable(readFile("CONTRIBUTING.md"));
  const fs::path root = BOLD_SOURCE_DIR;
  for (const auto& name : named) {
    INFO(name);
    CHECK(fs::is_directory(root / name));
  }
  int folders = 0;
  for (const auto& entry : fs::recursive_directory_iterator(root / "src")) {
    const auto extension = entry.path().extension();
    if (extension != ".cpp" && extension != ".h") continue;
    const auto folder = fs::relative(entry.path().parent_path(), root).generic_string();
    if (folder == "src") continue;
    ++folders;
    INFO(folder);
    CHECK(named.contains(folder));
  }
  CHECK(folders > 400);
}
