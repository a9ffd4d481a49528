#include "core/program/corpus.h"

#include <algorithm>
#include <filesystem>
#include <sstream>

#include "core/parts/roles.h"
#include "core/program/pins_used.h"
#include "support/benches.h"

namespace bold::test {
namespace {

namespace fs = std::filesystem;

const std::string kPrograms = std::string(BOLD_SOURCE_DIR) + "/tests/programs";

void line(ProgramCase& c, const std::string& text) {
  std::istringstream words(text);
  std::string what, word;
  words >> what;
  if (what == "bench") {
    words >> word;
    c.bench = word == "wave-tank" ? readFile("demo/wave-tank.bench") : "from " + word + "\n";
  } else if (what == "bench+") {
    std::getline(words, word);
    c.bench += word.substr(1) + "\n";
  } else if (what == "pin") {
    words >> word;
    auto& does = c.pins[word];
    while (words >> word) does.insert(word);
  } else if (what == "says") {
    while (words >> word) c.says.insert(word);
  } else if (what == "untold") {
    words >> c.untold;
  }
}

ProgramCase read(const fs::path& path) {
  ProgramCase c;
  c.name = path.lexically_relative(kPrograms).generic_string();
  // In a folder of its own a program may have further files.
  const bool alone = path.parent_path().parent_path() == fs::path(kPrograms);
  c.texts.emplace_back(path.filename().string(), readFile("tests/programs/" + c.name));
  if (!alone) {
    std::vector<fs::path> more;
    for (const auto& e : fs::directory_iterator(path.parent_path()))
      if (e.path() != path) more.push_back(e.path());
    std::ranges::sort(more);
    for (const auto& m : more)
      c.texts.emplace_back(m.filename().string(), readFile("tests/programs/" + m.lexically_relative(kPrograms).generic_string()));
  }
  std::istringstream in(c.texts.front().second);
  for (std::string l; std::getline(in, l);)
    if (l.starts_with("//! ") || l.starts_with("#! ")) line(c, l.substr(l.find(' ') + 1));
  return c;
}

}  // namespace

const std::vector<ProgramCase>& programCases() {
  static const std::vector<ProgramCase> all = [] {
    std::vector<fs::path> paths;
    for (const auto& e : fs::recursive_directory_iterator(kPrograms))
      if (e.is_regular_file()) paths.push_back(e.path());
    std::ranges::sort(paths);
    std::vector<ProgramCase> out;
    for (const auto& p : paths) {
      auto c = read(p);
      if (!c.bench.empty()) out.push_back(std::move(c));
    }
    return out;
  }();
  return all;
}

harness::Harness benchOf(const ProgramCase& c, const std::vector<std::pair<std::string, std::string>>& texts) {
  auto h = wiredBench(c.bench);
  for (const auto& d : h.devices) {
    const auto part = library().find(d.part);
    if (!part || !parts::isController(*part)) continue;
    const auto read = program::readTexts(texts, d.part, program::shippedCalls());
    auto s = program::pinsUsed(read, d.id, *part, program::shippedCalls());
    s.id = h.freeId("source");
    for (auto& f : s.files) f.standing = harness::Standing::AsRead;
    h.sources.push_back(std::move(s));
    return h;
  }
  return h;
}

harness::Harness benchOf(const ProgramCase& c) {
  return benchOf(c, c.texts);
}

std::set<std::string> plainDoings(const harness::PinUse& u) {
  auto out = u.does;
  for (const auto* level : {"high", "low", "input", "interrupt", "soft", "pulse"}) out.erase(level);
  if (out.contains("pwm") || out.contains("servo") || out.contains("tone")) out.erase("write");
  return out;
}

}  // namespace bold::test
