#include <cstdio>
#include <nlohmann/json.hpp>

#include "commands.h"
#include "core/base/json.h"
#include "core/checks/check.h"

namespace bold::cli {

int explain(const std::string& id, bool json) {
  const auto* c = checks::findCheck(id);
  if (!c) {
    std::fprintf(stderr, "boldh: There is no check \"%s\". \"boldh checks\" lists them all.\n", id.c_str());
    return 2;
  }
  if (json) {
    const Json out{
        {"checks", Json::array({Json{
                       {"id", c->id}, {"family", c->family}, {"title", c->title}, {"harm", word(c->harm)}, {"page", checks::page(id)}}})}};
    std::fputs(jsonText(out).c_str(), stdout);
  } else {
    std::fputs(std::string(checks::page(id)).c_str(), stdout);
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
    std::printf("%-26.*s %-14.*s %.*s\n", static_cast<int>(c.id.size()), c.id.data(), static_cast<int>(word(c.harm).size()),
                word(c.harm).data(), static_cast<int>(c.title.size()), c.title.data());
  }
  if (json) std::fputs(jsonText(Json{{"checks", all}}).c_str(), stdout);
  return 0;
}

}  // namespace bold::cli
