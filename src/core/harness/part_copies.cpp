#include "core/harness/part_copies.h"

#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <nlohmann/json.hpp>
#include <set>
#include <utility>

#include "core/parts/look_alike.h"

namespace bold::harness {
namespace {

// What is only read by people changes nothing that is judged: nobody needs to be told.
Json judgedOf(Json part) {
  if (!part.is_object()) return part;
  for (const auto* key : {"notes", "needs", "requires", "pitfalls", "words", "summary", "hold", "layout", "layoutKnown"}) part.erase(key);
  if (part.contains("figures") && part["figures"].is_object())
    for (auto& figure : part["figures"]) {
      if (!figure.is_object() || !figure.contains("value") || !figure["value"].is_object()) continue;
      auto& value = figure["value"];
      value.erase("secondReading");
      if (value.size() == 1 && value.contains("typ")) value = Json(value["typ"]);
    }
  return part;
}

// " (winding, peak)": figures of both that differ; empty when it is something else.
std::string differing(const Json& one, const Json& other) {
  std::string out;
  const auto a = judgedOf(one);
  const auto b = judgedOf(other);
  if (a.contains("figures") && b.contains("figures") && b["figures"].is_object())
    for (const auto& [name, value] : a["figures"].items())
      if (b["figures"].contains(name) && b["figures"][name] != value) out += (out.empty() ? "" : ", ") + name;
  return out.empty() ? out : " (" + out + ")";
}

const PartCopy* copyOf(const Harness& h, const std::string& id) {
  const auto it = std::ranges::find(h.parts, id, &PartCopy::id);
  return it == h.parts.end() ? nullptr : &*it;
}

// Figures that say what a part stands, not what it does.
bool isRating(const std::string& figure) {
  static constexpr std::array kRatings{"continuous", "peak",    "highest", "absolute", "rating", "bare",    "sink",    "vds",     "vgs",
                                       "vce",        "reverse", "surge",   "average",  "power",  "freeAir", "bundled", "breaking"};
  return std::ranges::count(kRatings, figure) > 0;
}

class Looking {
 public:
  Looking(const Harness& h, const parts::Library& library) : m_h(h), m_library(library) {}

  std::vector<FromFile> run() {
    std::set<std::string> said;
    for (const auto& d : m_h.devices) {
      const auto part = m_library.find(d.part);
      if (!part) continue;
      if (said.insert(d.part).second) lookAt(d, *part);
      raised(d, *part);
    }
    return std::move(m_out);
  }

 private:
  const Harness& m_h;
  const parts::Library& m_library;
  std::vector<FromFile> m_out;

  void lookAt(const Device& d, const parts::Part& part) {
    const auto* copy = copyOf(m_h, d.part);
    if (!copy) return;
    const auto& library = *m_library.json(d.part);
    if (!part.own) {
      if (library != *copy->json && judgedOf(library) != judgedOf(*copy->json))
        m_out.push_back({d.id, d.part,
                         fmt::format("the copy of {} in this file differs from the library's part{}: the library's is used", d.part,
                                     differing(library, *copy->json))});
      return;
    }
    if (!part.fromDocument) return;
    const auto* mine = m_library.mine(d.part);
    if (mine && *mine != *copy->json) {
      m_out.push_back(
          {d.id, d.part,
           fmt::format("your own part {} differs from the copy in this file{}: the file's is used", d.part, differing(*mine, *copy->json)),
           true, true});
    } else if (!mine) {
      const auto like = parts::lookAlike(part, m_library);
      m_out.push_back({d.id, d.part,
                       like.empty()
                           ? fmt::format("the part {} is known from this file alone", d.part)
                           : fmt::format("the part {} is known from this file alone; it looks like the library's {} and differs from it{}",
                                         d.part, like, differing(*m_library.json(like), *copy->json)),
                       false, true});
    }
  }

  void raised(const Device& d, const parts::Part& part) {
    for (const auto& [id, value] : d.overrides) {
      const auto* f = part.figure(id);
      if (!f || !isRating(id) || !f->figure.greatest()) continue;
      const auto now = parseFigure(value, f->figure.unit);
      if (!now || !now->greatest() || *now->greatest() <= *f->figure.greatest()) continue;
      m_out.push_back({d.id, d.part,
                       fmt::format("the {} of {} is raised to {}; the part's is {}", f->label, d.called(),
                                   displayText(AnyQuantity{*now->greatest(), f->figure.unit}),
                                   displayText(AnyQuantity{*f->figure.greatest(), f->figure.unit}))});
    }
  }
};

}  // namespace

void carryParts(Harness& h, const parts::Library& library) {
  std::set<std::string> used;
  for (const auto& d : h.devices) used.insert(d.part);
  std::vector<PartCopy> copies;
  for (auto& copy : h.parts) {
    const bool isUsed = used.erase(copy.id) > 0;
    const auto* json = library.json(copy.id);
    const bool same = json && *json == *copy.json;
    if (!isUsed && same) continue;
    const bool derived = copy.json->is_object() && copy.json->contains("basedOn");  // the document says itself how it comes about
    if (isUsed && json && !same && !derived) copy = {copy.id, std::make_shared<const Json>(*json), nullptr};
    copies.push_back(std::move(copy));
  }
  for (const auto& id : used)
    if (const auto* json = library.json(id)) copies.push_back({id, std::make_shared<const Json>(*json), nullptr});
  h.parts = std::move(copies);
}

namespace {

// Each part of the document after the one that it is based on, else as they stand. Those that go round in a circle come last, and are told
// that the other is not there.
std::vector<std::size_t> basesFirst(const Harness& h) {
  const auto baseOf = [](const PartCopy& p) {
    return p.json && p.json->is_object() && p.json->contains("basedOn") && (*p.json)["basedOn"].is_string()
               ? (*p.json)["basedOn"].get<std::string>()
               : std::string();
  };
  std::vector<std::size_t> out;
  std::set<std::string> waiting;
  for (const auto& p : h.parts) waiting.insert(p.id);
  std::vector<bool> taken(h.parts.size(), false);
  for (bool grown = true; std::exchange(grown, false);)
    for (std::size_t i = 0; i < h.parts.size(); ++i) {
      if (taken[i] || waiting.contains(baseOf(h.parts[i]))) continue;
      out.push_back(i);
      taken[i] = grown = true;
      waiting.erase(h.parts[i].id);
    }
  for (std::size_t i = 0; i < h.parts.size(); ++i)
    if (!taken[i]) out.push_back(i);
  return out;
}

}  // namespace

parts::Library withDocumentParts(const parts::Library& library, const Harness& harness, const std::string& file,
                                 std::vector<Problem>& problems) {
  parts::Library out = library;
  for (const std::size_t i : basesFirst(harness)) {
    const auto& copy = harness.parts[i];
    if (const auto known = library.find(copy.id); known && !known->own) continue;
    const auto at = fmt::format("{}#/parts/{}", file, copy.raw ? copy.raw->index : i);
    std::vector<Problem> found;
    out.addFromDocument(*copy.json, at, found);
    for (auto& p : found) {
      if (p.where.starts_with(at + "#")) p.where.erase(at.size(), 1);  // one pointer into the file
      problems.push_back(std::move(p));
    }
  }
  return out;
}

std::vector<FromFile> fromFile(const Harness& harness, const parts::Library& library) {
  return Looking(harness, library).run();
}

Edit useMine(const std::string& part) {
  return {"Use your own " + part, {DropCopy{part}}};
}

}  // namespace bold::harness
