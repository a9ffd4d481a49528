#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/checks/check.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::checks_list {
namespace {

int print(bool json) {
  Json all = Json::array();
  std::string_view family;
  for (const auto& c : checks::registry()) {
    if (json) {
      all.push_back({{"id", c.id}, {"family", c.family}, {"title", c.title}, {"harm", word(c.harm)}});
      continue;
    }
    if (c.family != family) family = c.family;
    say(fmt::format("{:<26} {:<14} {}\n", c.id, word(c.harm), c.title));
  }
  if (json) sayJson(jsonText(Json{{"checks", all}}));
  return 0;
}

Run declare(Arguments& takes) {
  const auto format = std::make_shared<std::string>("text");
  takes.option("--format", *format, "text or json", {"text", "json"});
  return [format] { return print(*format == "json"); };
}

}  // namespace

Subcommand subcommand() {
  return {"checks", "List every check.", declare};
}

}  // namespace bold::cli::checks_list
