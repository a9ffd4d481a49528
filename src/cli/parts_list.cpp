#include <fmt/core.h>

#include "core/parts/library.h"
#include "core/parts/typed_part.h"
#include "json_figure.h"
#include "load.h"
#include "output.h"
#include "subcommand.h"

namespace bold::cli::parts_list {
namespace {

int print(const std::vector<std::string>& words, bool json) {
  Disk disk;
  const auto library = ownLibrary(disk);
  std::string query;
  for (const auto& w : words) query += w + " ";
  const auto hits = library.search(query);
  Json all = Json::array();
  for (const auto& p : hits) {
    if (!json) {
      say(fmt::format("{:<24} {}: {}{}\n", p->id, p->name, p->summary, p->own ? " (your own)" : ""));
      continue;
    }
    Json one{{"id", p->id}, {"name", p->name}, {"kind", p->kind}, {"summary", p->summary}, {"own", p->own}, {"figures", Json::array()}};
    for (const auto& f : p->figures) one["figures"].push_back(figure(f));
    all.push_back(one);
  }
  const auto typed = parts::typedParts(query);
  for (const auto& t : typed) {
    if (!json) {
      std::string figures;
      for (const auto& [name, value] : t.overrides) figures += fmt::format("{}{} {}", figures.empty() ? "" : ", ", name, value);
      say(fmt::format("{:<24} {}, as typed ({})\n", t.part, t.text, figures));
      continue;
    }
    all.push_back({{"id", t.part}, {"name", t.text}, {"overrides", t.overrides}});
  }
  if (json) sayJson(jsonText(Json{{"parts", all}}));
  if (!json && hits.empty() && typed.empty()) complain("No part matches all of these words.");
  return 0;
}

Run declare(Arguments& takes) {
  struct Taken {
    std::vector<std::string> words;
    std::string format = "text";
  };
  const auto a = std::make_shared<Taken>();
  takes.positionals("WORD", a->words, "words to look for", false);
  takes.option("--format", a->format, "text or json", {"text", "json"});
  return [a] { return print(a->words, a->format == "json"); };
}

}  // namespace

Subcommand subcommand() {
  return {"parts", "List parts, or those that match all words.", declare};
}

}  // namespace bold::cli::parts_list
