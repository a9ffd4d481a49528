#include <cstdio>
#include <nlohmann/json.hpp>

#include "commands.h"
#include "core/base/json.h"
#include "core/harness/file_system.h"
#include "core/parts/library.h"
#include "core/parts/own_parts.h"
#include "core/parts/part_card.h"
#include "core/parts/typed_part.h"

namespace bold::cli {
namespace {

Json figure(const parts::NamedFigure& f) {
  const auto end = [](const std::optional<double>& v) { return v ? Json(*v) : Json(nullptr); };
  return {{"id", f.id},
          {"label", f.label},
          {"unit", unitSign(f.figure.unit)},
          {"min", end(f.figure.min)},
          {"typ", end(f.figure.typ)},
          {"max", end(f.figure.max)},
          {"source", f.figure.source}};
}

}  // namespace

int listParts(const std::vector<std::string>& words, bool json) {
  Disk disk;
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  parts::addOwn(library, disk, problems);
  for (const auto& p : problems) std::fprintf(stderr, "boldh: %s\n", text(p).c_str());
  std::string query;
  for (const auto& w : words) query += w + " ";
  const auto hits = library.search(query);
  Json all = Json::array();
  for (const auto& p : hits) {
    if (!json) {
      std::printf("%-24s %s: %s%s\n", p->id.c_str(), p->name.c_str(), p->summary.c_str(), p->own ? " (your own)" : "");
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
      for (const auto& [name, value] : t.overrides) figures += (figures.empty() ? "" : ", ") + name + " " + value;
      std::printf("%-24s %s, as typed (%s)\n", t.part.c_str(), t.text.c_str(), figures.c_str());
      continue;
    }
    all.push_back({{"id", t.part}, {"name", t.text}, {"overrides", t.overrides}});
  }
  if (json) std::fputs(jsonText(Json{{"parts", all}}).c_str(), stdout);
  if (!json && hits.empty() && typed.empty()) std::fprintf(stderr, "boldh: No part matches all of these words.\n");
  return 0;
}

int showPart(const std::string& id) {
  Disk disk;
  auto library = parts::Library::shipped();
  std::vector<Problem> problems;
  parts::addOwn(library, disk, problems);
  for (const auto& p : problems) std::fprintf(stderr, "boldh: %s\n", text(p).c_str());
  const auto part = library.find(id);
  if (!part) {
    std::fprintf(stderr, "boldh: There is no part \"%s\". \"boldh parts WORD\" finds them.\n", id.c_str());
    return 2;
  }
  std::fputs(parts::partCard(*part, library.json(id)).c_str(), stdout);
  return 0;
}

}  // namespace bold::cli
