#include <fmt/core.h>

#include <nlohmann/json.hpp>

#include "commands.h"
#include "core/base/json.h"
#include "core/base/file_system.h"
#include "core/parts/library.h"
#include "core/parts/part_card.h"
#include "core/parts/part_limits.h"
#include "core/parts/typed_part.h"
#include "output.h"

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
      for (const auto& [name, value] : t.overrides) figures += (figures.empty() ? "" : ", ") + name + " " + value;
      say(fmt::format("{:<24} {}, as typed ({})\n", t.part, t.text, figures));
      continue;
    }
    all.push_back({{"id", t.part}, {"name", t.text}, {"overrides", t.overrides}});
  }
  if (json) sayJson(jsonText(Json{{"parts", all}}));
  if (!json && hits.empty() && typed.empty()) complain("No part matches all of these words.");
  return 0;
}

namespace {

Json terminal(const parts::Terminal& t) {
  Json out{{"id", t.id}, {"label", t.label}, {"aliases", t.aliases}};
  if (!t.place.connector.empty()) out["connector"] = t.place.connector;
  if (t.place.position > 0) out["position"] = t.place.position;
  out["contact"] = t.place.contact;
  if (t.ground) out["ground"] = true;
  if (t.output) out["output"] = true;
  if (t.input) out["input"] = true;
  if (t.supply) out["supply"] = t.supply->purpose;
  if (t.pin)
    out["pin"] = {{"code", t.pin->code}, {"chip", t.pin->chip}, {"pwm", t.pin->pwm}, {"serial", t.pin->serial}, {"strap", t.pin->strap}};
  return out;
}

// Everything that the card says, for programs.
Json asJson(const parts::Part& p) {
  Json out{{"id", p.id}, {"name", p.name}, {"kind", p.kind}, {"summary", p.summary}, {"own", p.own}};
  for (const auto* list : {"terminals", "figures", "settings", "channels", "limits"}) out[list] = Json::array();
  for (const auto& t : p.terminals) out["terminals"].push_back(terminal(t));
  for (const auto& f : p.figures) out["figures"].push_back(figure(f));
  for (const auto& s : p.settings)
    out["settings"].push_back({{"id", s.id}, {"label", s.label}, {"values", s.values}, {"default", s.standard}});
  for (const auto& c : p.channels) out["channels"].push_back({{"id", c.id}, {"out", c.out}, {"signals", c.signals}});
  for (const auto& l : parts::limitsOf(p))
    out["limits"].push_back(
        {{"of", l.of}, {"what", l.what}, {"value", l.value}, {"under", l.under}, {"source", l.source}, {"confidence", l.confidence}});
  out["pitfalls"] = p.pitfalls;
  return out;
}

}  // namespace

int showPart(const std::string& id, bool json) {
  Disk disk;
  const auto library = ownLibrary(disk);
  const auto part = library.find(id);
  if (!part) {
    complain(fmt::format("There is no part \"{}\". \"boldh parts WORD\" finds them.", id));
    return 2;
  }
  if (json)
    sayJson(jsonText(asJson(*part)));
  else
    say(parts::partCard(*part, library.json(id)));
  return 0;
}

}  // namespace bold::cli
