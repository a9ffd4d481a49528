#include "core/parts/library.h"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "core/base/embedded.h"
#include "core/base/parallel.h"
#include "core/parts/read_part.h"
#include "core/parts/replaced_parts.h"
#include "core/parts/search.h"

namespace bold::parts {
namespace {

constexpr int kDeepestBase = 4;
constexpr double kContradiction = 0.2;  // share by which two replaced figures may disagree

}  // namespace

Library::Library() : m_replaced(std::make_shared<ReplacedParts>()) {}

std::map<std::string, std::string> shippedPartFiles() {
  std::map<std::string, std::string> out;
  for (const auto& f : embedded::parts()) out.emplace(std::string(f.path), std::string(f.text));
  return out;
}

Library Library::shipped() {
  Library l;
  l.m_shipped = ShippedParts::all();
  return l;
}

void Library::addOwn(const std::map<std::string, std::string>& files, std::vector<Problem>& problems) {
  // Files and parts are read side by side, and gathered in order.
  struct Parsed {
    const std::string* file;
    const std::string* text;
    std::optional<Result<Json>> json;
    std::vector<Problem> problems;
  };
  std::vector<Parsed> parsed;
  for (const auto& [file, text] : files) parsed.push_back({&file, &text, {}, {}});
  inParallel(parsed.size(), [&](std::size_t k) { parsed[k].json = parseJson(*parsed[k].text, *parsed[k].file, parsed[k].problems); });
  std::map<std::string, std::pair<std::string, Json>> raw;  // id -> file, json
  for (auto& one : parsed) {
    const auto& file = *one.file;
    auto& json = *one.json;
    problems.insert(problems.end(), one.problems.begin(), one.problems.end());
    if (!json) {
      problems.push_back(json.error());
      continue;
    }
    const bool named = json->is_object() && json->contains("id") && (*json)["id"].is_string();
    const auto id = named ? (*json)["id"].get<std::string>() : std::string();
    if (id.empty()) {
      problems.push_back({"The part has no \"id\".", file + "#/id", "The other parts were loaded."});
    } else if (m_own.contains(id) || (m_shipped && m_shipped->has(id))) {
      problems.push_back(
          {fmt::format("A part with the id \"{}\" is in the library already.", id), file + "#/id", "The library's part was kept."});
    } else if (!raw.emplace(id, std::pair{file, std::move(*json)}).second) {
      problems.push_back({fmt::format("Another file has a part with the id \"{}\".", id), file + "#/id", "The first one was kept."});
    }
  }
  struct Whole {
    std::string id, file;
    Json json;
    std::optional<Part> part;
    std::vector<Problem> problems;
  };
  std::vector<Whole> wholes;
  const bool based = std::ranges::any_of(raw, [](const auto& r) { return r.second.second.contains("basedOn"); });
  for (auto& [id, entry] : raw) {
    const auto& file = entry.first;
    Json whole = based ? entry.second : std::move(entry.second);  // another may be based on it
    std::vector<std::string> chain{id};
    bool sound = true;
    while (sound && whole.contains("basedOn") && whole["basedOn"].is_string()) {
      const auto base = whole["basedOn"].get<std::string>();
      const auto here = raw.find(base);
      const Json* found = here != raw.end() ? &here->second.second : json(base);
      std::string wrong;
      if (std::ranges::count(chain, base) > 0)
        wrong = fmt::format("The part is based on itself by way of \"{}\".", base);
      else if (!found)
        wrong = fmt::format("The part is based on \"{}\", which is not in the library.", base);
      else if (static_cast<int>(chain.size()) >= kDeepestBase)
        wrong = fmt::format("The part is based on another more than {} levels deep.", kDeepestBase);
      if (!wrong.empty()) {
        problems.push_back({wrong, file + "#/basedOn", "The other parts were loaded."});
        sound = false;
        break;
      }
      chain.push_back(base);
      Json mine = whole;
      mine.erase("basedOn");
      whole = onTopOf(*found, mine);
      if (!found->contains("basedOn")) whole.erase("basedOn");
    }
    if (!sound) continue;
    wholes.push_back({id, file, std::move(whole), {}, {}});
  }
  inParallel(wholes.size(), [&](std::size_t k) { wholes[k].part = readPart(wholes[k].json, wholes[k].file, wholes[k].problems); });
  for (auto& w : wholes) {
    if (!w.part) {
      w.problems.front().kept = "The part was left out; the other parts were loaded.";
      problems.insert(problems.end(), w.problems.begin(), w.problems.end());
      continue;
    }
    w.part->own = true;
    m_own[w.id] = {std::make_shared<const Part>(std::move(*w.part)), std::make_shared<const Json>(std::move(w.json))};
  }
}

void Library::addFromDocument(const Json& partJson, const std::string& file, std::vector<Problem>& problems) {
  // A part of the document may be another one with some figures changed; the other is known by now.
  Json whole = partJson;
  if (whole.is_object() && whole.contains("basedOn") && whole["basedOn"].is_string()) {
    const auto base = whole["basedOn"].get<std::string>();
    const auto* other = json(base);
    if (!other) {
      problems.push_back({fmt::format("The part is based on \"{}\", which is not in the library.", base), file + "#/basedOn",
                          "The copy was kept and is not used."});
      return;
    }
    whole.erase("basedOn");
    whole = onTopOf(*other, whole);
  }
  std::vector<Problem> found;
  auto part = readPart(whole, file, found);
  problems.insert(problems.end(), found.begin(), found.end());
  if (!part || (m_shipped && m_shipped->has(part->id))) return;
  part->own = true;
  part->fromDocument = true;
  const auto id = part->id;
  if (const auto mine = m_own.find(id); mine != m_own.end() && !mine->second.part->fromDocument) m_mine.emplace(id, mine->second.json);
  m_own[id] = {std::make_shared<const Part>(std::move(*part)), std::make_shared<const Json>(std::move(whole))};
}

const LibraryEntry* Library::entry(const std::string& id) const {
  if (const auto it = m_own.find(id); it != m_own.end()) return &it->second;
  return m_shipped ? m_shipped->find(id) : nullptr;
}

std::shared_ptr<const Part> Library::find(const std::string& id) const {
  const auto* e = entry(id);
  return e ? e->part : nullptr;
}

const Json* Library::json(const std::string& id) const {
  const auto* e = entry(id);
  return e ? e->json.get() : nullptr;
}

const Json* Library::mine(const std::string& id) const {
  const auto it = m_mine.find(id);
  return it == m_mine.end() ? nullptr : it->second.get();
}

std::shared_ptr<const Part> Library::withOverrides(const std::string& id, const std::map<std::string, std::string>& overrides,
                                                   std::vector<Problem>& problems) const {
  auto plain = find(id);
  if (!plain || overrides.empty()) return plain;
  auto one = m_replaced->of(plain, overrides);
  problems.insert(problems.end(), one.problems.begin(), one.problems.end());
  return one.part;
}

std::vector<Problem> Library::contradictions(const std::string& id, const std::map<std::string, std::string>& overrides) const {
  std::vector<Problem> out;
  const auto plain = find(id);
  if (!plain || overrides.size() < 2) return out;
  // Two replacements that contradict each other: one is used, and nobody should be left to guess which.
  for (const auto& f : plain->figures) {
    const auto value = [&](const std::string& name) -> std::optional<double> {
      const auto it = overrides.find(name);
      const auto* figure = plain->figure(name);
      if (!figure) return std::nullopt;
      const auto given = it == overrides.end() ? Result<Figure>(fail(std::string())) : parseFigure(it->second, figure->figure.unit);
      return given ? given->typical() : figure->figure.typical();
    };
    if (f.derivedFrom.empty() || !overrides.contains(f.id) || !overrides.contains(f.derivedOver)) continue;
    const auto a = value(f.derivedFrom);
    const auto b = value(f.derivedOver);
    const auto c = value(f.id);
    if (!a || !b || !c || *b <= 0 || *c <= 0) continue;
    const double follows = *a / *b;
    if (std::abs(follows - *c) > kContradiction * std::max(follows, *c))
      out.push_back(
          {fmt::format("The replaced figures \"{}\" and \"{}\" of {} contradict each other: {} would follow, {} is given.", f.derivedOver,
                       f.id, id, displayText(AnyQuantity{follows, f.figure.unit}), displayText(AnyQuantity{*c, f.figure.unit})),
           {},
           fmt::format("\"{}\" is used.", f.derivedOver)});
  }
  return out;
}

std::vector<std::shared_ptr<const Part>> Library::search(std::string_view text) const {
  const auto query = parseQuery(text);
  std::vector<std::pair<double, std::shared_ptr<const Part>>> hits;
  std::vector<std::shared_ptr<const Part>> all;
  for (const auto& [id, e] : m_own) all.push_back(e.part);
  if (m_shipped) {
    const auto ids = m_shipped->ids();
    const auto first = all.size();
    all.resize(first + ids.size());
    inParallel(ids.size(), [&](std::size_t k) {
      if (const auto* e = m_shipped->find(ids[k])) all[first + k] = e->part;
    });
  }
  for (const auto& part : all)
    if (const double s = part ? score(*part, query) : 0.0; s > 0) hits.emplace_back(s, part);
  std::ranges::stable_sort(hits, [](const auto& a, const auto& b) {
    return a.first != b.first ? a.first > b.first : naturallyBefore(a.second->id, b.second->id);
  });
  std::vector<std::shared_ptr<const Part>> out;
  out.reserve(hits.size());
  for (auto& h : hits) out.push_back(std::move(h.second));
  return out;
}

}  // namespace bold::parts
