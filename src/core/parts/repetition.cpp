#include "core/parts/repetition.h"

#include <algorithm>
#include <nlohmann/json.hpp>

#include "core/base/number.h"

namespace bold::parts {
namespace {

constexpr int kMostRows = 1000;
constexpr long long kFurthest = 1000000;  // either way

std::vector<std::vector<std::string>> rowsOf(const Json& source) {
  std::vector<std::vector<std::string>> rows;
  if (source.is_string()) {
    const auto s = source.get<std::string>();
    const auto dots = s.find("..");
    const auto number = [](std::string_view text) { return std::clamp(wholeAtStart(text).value_or(0), -kFurthest, kFurthest); };
    const auto from = number(s);
    const auto to = dots == std::string::npos ? from : number(std::string_view(s).substr(dots + 2));
    for (auto i = from; i <= to && static_cast<int>(rows.size()) < kMostRows; ++i) rows.push_back({std::to_string(i)});
  } else if (source.is_array()) {
    for (const auto& row : source) {
      if (row.is_string())
        rows.push_back({row.get<std::string>()});
      else if (row.is_array() && std::ranges::all_of(row, [](const Json& x) { return x.is_string(); }))
        rows.push_back(row.get<std::vector<std::string>>());
    }
  }
  return rows;
}

// What stands for the columns of a row; empty when it cannot be used.
std::vector<std::string> namesOf(const Json& entry) {
  if (!entry.contains("as")) return {"n"};
  const auto& as = entry["as"];
  const auto isName = [](const Json& x) { return x.is_string() && !x.get<std::string>().empty(); };
  if (!as.is_array() || !std::ranges::all_of(as, isName)) return {};
  return as.get<std::vector<std::string>>();
}

}  // namespace

void expand(const Json& entry, const std::string& key, const std::string& file, const std::string& pointer, std::vector<Problem>& problems,
            const std::function<void(const Json&)>& f) {
  if (!entry.is_object() || !entry.contains("for")) {
    f(entry);
    return;
  }
  const auto rows = rowsOf(entry["for"]);
  const auto names = namesOf(entry);
  const auto report = [&](const char* what) { problems.push_back({what, file + "#" + pointer, {}}); };
  if (names.empty()) return report("This repetition has an \"as\" that is not a list of names.");
  if (rows.empty() || !entry.contains(key) || !entry[key].is_array()) return report("This repetition has no rows or nothing to repeat.");
  for (const auto& row : rows) {
    std::string text = entry[key].dump();
    for (std::size_t i = 0; i < names.size() && i < row.size(); ++i) {
      const std::string mark = "$" + names[i];
      for (auto k = text.find(mark); k != std::string::npos; k = text.find(mark, k + row[i].size())) text.replace(k, mark.size(), row[i]);
    }
    const Json list = Json::parse(text, nullptr, false);
    if (!list.is_array()) return report("This repetition has a row with a character that cannot stand in a text.");
    for (const auto& one : list) f(one);
  }
}

}  // namespace bold::parts
