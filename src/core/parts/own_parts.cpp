#include "core/parts/own_parts.h"

#include <fmt/core.h>

#include <algorithm>
#include <cstdlib>
#include <nlohmann/json.hpp>

#include "core/base/json.h"

namespace bold::parts {

std::string ownFolder() {
  const char* data = std::getenv("XDG_DATA_HOME");  // NOLINT(concurrency-mt-unsafe): read once, at start
  if (data && *data == '/') return std::string(data) + "/bold-harness/parts";
  const char* home = std::getenv("HOME");  // NOLINT(concurrency-mt-unsafe)
  return home && *home ? std::string(home) + "/.local/share/bold-harness/parts" : std::string();
}

namespace {

// An id becomes a file's name and stands in addresses.
bool plainId(const std::string& id) {
  return !id.empty() &&
         std::ranges::all_of(id, [](char c) { return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '-' || c == '_'; });
}

std::string idOf(const Json& json) {
  return json.is_object() && json.contains("id") && json["id"].is_string() ? json["id"].get<std::string>() : std::string();
}

}  // namespace

void addOwn(Library& library, FileSystem& disk, std::vector<Problem>& problems) {
  const auto folder = ownFolder();
  if (folder.empty()) return;
  auto texts = disk.readFolder(folder, ".json");
  problems.insert(problems.end(), texts.problems.begin(), texts.problems.end());
  library.addOwn(texts.files, problems);
}

std::vector<Problem> problemsOfOwn(const std::string& text) {
  static const Library shipped = Library::shipped();
  std::vector<Problem> problems;
  const auto json = parseJson(text, "the part", problems);
  if (!json) return {json.error()};
  const auto id = idOf(*json);
  if (!plainId(id)) problems.push_back({"The id needs small letters, digits and dashes, such as my-bridge.", "#/id", {}});
  auto library = shipped;
  library.addOwn({{"the part", text}}, problems);
  return problems;
}

Result<std::string> copyOf(const Library& library, const std::string& part, const std::string& id, const std::string& name) {
  const auto* json = library.json(part);
  if (!json) return fail(Problem{fmt::format("The part \"{}\" is not in the library.", part), {}, {}});
  Json copy = *json;
  copy["id"] = id;
  copy["name"] = name;
  return jsonText(copy);
}

Result<std::string> saveOwn(FileSystem& disk, const std::string& folder, const std::string& text) {
  if (const auto problems = problemsOfOwn(text); !problems.empty()) return fail(problems.front());
  std::vector<Problem> ignored;
  const auto path = folder + "/" + idOf(*parseJson(text, "the part", ignored)) + ".json";
  if (auto made = disk.makeFolder(folder); !made) return fail(Problem{made.error().what, made.error().where, "Nothing was written."});
  auto written = disk.replace(path, text);
  if (!written) return fail(written.error());
  return path;
}

}  // namespace bold::parts
