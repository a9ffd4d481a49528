#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "core/base/json.h"
#include "core/checks/check.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::explain {
namespace {

int print(const std::string& id, bool json) {
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

Run declare(Arguments& takes) {
  struct Taken {
    std::string check;
    std::string format = "text";
  };
  const auto a = std::make_shared<Taken>();
  takes.positional("CHECK", a->check, "its id, such as base-drive");
  takes.option("--format", a->format, "text or json", {"text", "json"});
  return [a] { return print(a->check, a->format == "json"); };
}

}  // namespace

Subcommand subcommand() {
  return {"explain", "Print the page of a check: what, why, formula, examples, how to mend.", declare};
}

}  // namespace bold::cli::explain
