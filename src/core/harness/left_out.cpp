#include "core/harness/left_out.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/base/json_text.h"
#include "core/harness/entry_json.h"
#include "core/harness/write_entry.h"

namespace bold::harness {
namespace {

// What a document says at a place, as far as it was understood.
const Json* at(const Json& json, const std::vector<std::string>& field) {
  const auto* here = &json;
  for (const auto& key : field) {
    if (!here->is_object() || !here->contains(key)) return nullptr;
    here = &here->at(key);
  }
  return here;
}

bool sameThere(const Json& before, const Json& now, const std::vector<std::string>& field) {
  const auto* a = at(before, field);
  const auto* b = at(now, field);
  return a && b ? *a == *b : a == b;
}

template <class T>
std::vector<Doubt> openDoubts(const T& entry) {
  if (!entry.raw || entry.raw->doubts.empty()) return {};
  std::vector<Doubt> out;
  const auto before = toJson(asRead(entry));
  const auto now = toJson(entry);
  for (const auto& d : entry.raw->doubts)
    if (sameThere(before, now, d.field)) out.push_back(d);
  return out;
}

std::vector<Doubt> openDoubts(const PartCopy& part) {
  return part.raw ? part.raw->doubts : std::vector<Doubt>{};
}

// Beside the lists.
std::vector<Doubt> openDoubts(const Harness& h) {
  if (!h.raw || h.raw->doubts.empty()) return {};
  std::vector<Problem> ignored;
  const auto json = parseJson(h.raw->text, "", ignored);
  const auto before = headJson(*readHead(*json).value);
  const auto now = headJson(h);
  std::vector<Doubt> out;
  for (const auto& d : h.raw->doubts)
    if (sameThere(before, now, d.field)) out.push_back(d);
  return out;
}

// In the order of a list, with what could not be read of it in between.
template <class T>
void collect(const Harness& h, Section section, const std::vector<T>& entries, std::vector<Problem>& out) {
  std::vector<std::pair<std::size_t, Problem>> found;
  for (const auto& u : h.unread)
    if (u.section == section) found.emplace_back(u.raw->index, u.why);
  for (const auto& e : entries)
    for (const auto& d : openDoubts(e)) found.emplace_back(e.raw->index, d.problem);
  std::ranges::stable_sort(found, {}, &std::pair<std::size_t, Problem>::first);
  for (auto& [index, p] : found) out.push_back(std::move(p));
}

// Two things that are called the same: whoever reads a finding cannot know which is meant.
void sameNames(const Harness& h, std::vector<Problem>& out) {
  std::map<std::string, const Device*> called;
  for (std::size_t i = 0; i < h.devices.size(); ++i) {
    const auto& d = h.devices[i];
    const auto [it, fresh] = called.emplace(d.called(), &d);
    if (!fresh)
      out.push_back({fmt::format("{} and {} are both called \"{}\".", it->second->id, d.id, d.called()),
                     fmt::format("#/devices/{}/name", d.raw ? d.raw->index : i), "Both were kept; give one another name."});
  }
}

// The entry as it reads without the doubtful field. Of a list, later members move up: all doubts are found anew.
template <class T>
std::optional<Edit> mend(const std::vector<T>& entries, Section section, const std::string& where,
                         ReadEntry<T> (*read)(const Json&, const std::string&)) {
  for (const auto& e : entries)
    for (const auto& d : openDoubts(e)) {
      if (d.problem.where != where) continue;
      const auto whole = entryText(e, 0);
      auto text = without(whole, d.field, d.repeated);
      if (text == whole) return std::nullopt;  // it is missing, not too much
      const auto at = fmt::format("/{}/{}", word(section), e.raw->index);
      std::vector<Problem> repeats;
      const auto json = parseJson(text, "", repeats);
      if (!json) return std::nullopt;
      for (auto& p : repeats) p.where = "#" + at + p.where.substr(1);
      auto entry = read(*json, at);
      if (!entry.value || entry.value->id != e.id) return std::nullopt;
      entry.value->raw = sourceOf(std::move(text), e.raw->index, 2, std::move(entry.problems), std::move(repeats));
      return Edit{"Take out " + where.substr(1), {Put<T>{std::move(*entry.value), {}}}};
    }
  return std::nullopt;
}

std::optional<Edit> mendHead(const Harness& h, const std::string& where) {
  for (const auto& d : openDoubts(h)) {
    if (d.problem.where != where || d.field.empty()) continue;
    auto source = std::make_shared<Source>(*h.raw);
    source->text = without(source->text, d.field, d.repeated);
    std::erase_if(source->doubts, [&](const Doubt& x) { return x.problem.where == where; });
    return Edit{"Take out " + where.substr(1), {SetSource{std::move(source)}}};
  }
  return std::nullopt;
}

}  // namespace

std::vector<Problem> leftOut(const Harness& h) {
  std::vector<Problem> out;
  for (const auto& d : openDoubts(h)) out.push_back(d.problem);
  collect(h, Section::Devices, h.devices, out);
  sameNames(h, out);
  collect(h, Section::Connections, h.connections, out);
  collect(h, Section::Goals, h.goals, out);
  collect(h, Section::Assignments, h.assignments, out);
  collect(h, Section::Program, h.program, out);
  collect(h, Section::Sources, h.sources, out);
  collect(h, Section::Marks, h.marks, out);
  collect(h, Section::Rounds, h.rounds, out);
  collect(h, Section::Parts, h.parts, out);
  return out;
}

std::vector<std::string> missingLists(const Harness& h) {
  if (!h.raw) return {};
  std::vector<std::string> out;
  const auto members = membersOf(h.raw->text);
  const auto look = [&](Section section, bool empty) {
    if (empty && std::ranges::find(members, word(section), &TextMember::key) == members.end()) out.emplace_back(word(section));
  };
  look(Section::Devices, h.devices.empty());
  look(Section::Connections, h.connections.empty());
  look(Section::Goals, h.goals.empty());
  return out;
}

std::optional<Edit> takeOut(const Harness& h, const std::string& where) {
  for (const auto& u : h.unread)
    if (u.why.where == where) return Edit{"Take out " + where.substr(1), {DropUnread{u.section, u.raw->index}}};
  if (auto e = mend(h.devices, Section::Devices, where, &readDevice)) return e;
  if (auto e = mend(h.connections, Section::Connections, where, &readConnection)) return e;
  if (auto e = mend(h.goals, Section::Goals, where, &readGoal)) return e;
  if (auto e = mend(h.assignments, Section::Assignments, where, &readAssignment)) return e;
  if (auto e = mend(h.program, Section::Program, where, &readProgramFacts)) return e;
  if (auto e = mend(h.sources, Section::Sources, where, &readSourceRead)) return e;
  if (auto e = mend(h.marks, Section::Marks, where, &readMark)) return e;
  if (auto e = mend(h.rounds, Section::Rounds, where, &readRound)) return e;
  return mendHead(h, where);
}

}  // namespace bold::harness
