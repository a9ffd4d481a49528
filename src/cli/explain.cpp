#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "commands.h"
#include "core/base/json.h"
#include "core/checks/check.h"
#include "output.h"

namespace bold::cli {

int explain(const std::string& id, bool json) {
  const auto* c = checks::findCheck(id);
  if (!c) {
    complain(fmt::format("There is no check \"{}\". \"boldh checks\" lists them all.", id));
    return 2;
  }
  if (json) {
    const Json out{
        {"checks", Json::array({Json{
                       {"id", c->id}, {"family", c->family}, {"title", c->title}, {"harm", word(c->harm)}, {"page", checks::page(id)}}})}};
    sayJson(jsonText(out));
  } else {
    say(checks::page(id));
  }
  return 0;
}

int listChecks(bool json) {
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

}  // namespace bold::cli
