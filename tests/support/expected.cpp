#include "support/expected.h"

#include <fmt/core.h>

#include <algorithm>
#include <filesystem>
#include <sstream>
#include <stdexcept>

#include "support/benches.h"

namespace bold::test {
namespace {

using checks::Finding;
using checks::Severity;

bool oneOf(const std::string& ids, const std::string& check) {
  std::istringstream in(ids);
  for (std::string id; std::getline(in, id, '|');)
    if (id == check) return true;
  return false;
}

void known(const std::string& ids) {
  std::istringstream in(ids);
  for (std::string id; std::getline(in, id, '|');)
    if (!checks::findCheck(id)) throw std::runtime_error("no check is called \"" + id + "\"");
}

Severity gravity(const std::string& word) {
  if (word == "stop") return Severity::Stop;
  if (word == "note") return Severity::Note;
  if (word.empty() || word == "caution") return Severity::Caution;
  throw std::runtime_error("nothing is as grave as \"" + word + "\"");
}

bool holds(const std::string& line, const Analysis& a) {
  const auto any = [&](const auto& which) { return std::ranges::any_of(a.findings, which); };
  if (line == "clear") return a.verdict == Verdict::Clear;
  if (line == "not clear") return a.verdict != Verdict::Clear;
  if (line == "stop") return a.verdict == Verdict::DoNotSwitchOn;
  if (line == "no stop") return a.verdict == Verdict::Clear || a.verdict == Verdict::LookAgain;
  if (line == "not judged") return a.verdict == Verdict::NotJudged;
  if (line == "no damage")
    return !any([](const Finding& f) { return f.severity == Severity::Stop && f.harm != checks::Harm::WillNotWork; });
  std::istringstream words(line);
  std::string first, second;
  words >> first >> second;
  if (first == "first") {
    known(second);
    return !a.findings.empty() && oneOf(second, a.findings.front().check);
  }
  if (first == "quiet") {
    known(second);
    return !any([&](const Finding& f) { return oneOf(second, f.check) && f.severity <= Severity::Caution; });
  }
  known(first);
  const auto least = gravity(second);
  return any([&](const Finding& f) { return oneOf(first, f.check) && f.severity <= least; });
}

}  // namespace

std::vector<std::string> unmet(std::string_view notation, const Analysis& a) {
  constexpr std::string_view kExpect = "# expect ";
  std::vector<std::string> out;
  bool asked = false;
  std::istringstream in{std::string(notation)};
  for (std::string line; std::getline(in, line);) {
    if (!line.starts_with(kExpect)) continue;
    asked = true;
    line.erase(0, kExpect.size());
    if (!holds(line, a)) out.push_back(fmt::format("not as expected: {}", line));
  }
  if (!asked) out.emplace_back("nothing is expected of it");
  return out;
}

std::vector<std::string> namesIn(const std::string& folder) {
  std::vector<std::string> out;
  for (const auto& e : std::filesystem::directory_iterator(std::string(BOLD_SOURCE_DIR) + "/tests/benches/" + folder))
    if (e.path().extension() == ".bench") out.push_back(e.path().stem().string());
  std::ranges::sort(out);
  return out;
}

std::string textOf(const std::string& folder, const std::string& name) {
  return readFile("tests/benches/" + folder + "/" + name + ".bench");
}

}  // namespace bold::test
