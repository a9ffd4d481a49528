#include <algorithm>

#include "core/base/json_text.h"
#include "core/harness/entry_json.h"
#include "core/harness/read_harness.h"
#include "core/harness/write_entry.h"

namespace bold::harness {
namespace {

constexpr std::size_t kEntryIndent = 4;

// An entry on its way into a list: as it stood, or written anew.
struct Line {
  std::optional<std::size_t> index;  // in the file
  std::string text;
};

template <class T>
std::vector<Line> lines(const std::vector<T>& entries) {
  std::vector<Line> out;
  for (const auto& e : entries) out.push_back({e.raw ? std::optional(e.raw->index) : std::nullopt, entryText(e, kEntryIndent)});
  return out;
}

std::vector<Line> lines(const std::vector<PartCopy>& parts) {
  std::vector<Line> out;
  for (const auto& p : parts)
    out.push_back(p.raw ? Line{p.raw->index, p.raw->text} : Line{std::nullopt, nestedText(*p.json, kEntryIndent)});
  return out;
}

// What could not be read stands where it stood: before what came after it in the file.
std::vector<Line> withUnread(std::vector<Line> read, const Harness& h, Section section) {
  std::vector<Line> out;
  auto unread = h.unread.begin();
  const auto upTo = [&](std::optional<std::size_t> index) {
    for (; unread != h.unread.end(); ++unread) {
      if (unread->section != section) continue;
      if (index && unread->raw->index > *index) return;
      out.push_back({unread->raw->index, unread->raw->text});
    }
  };
  for (auto& line : read) {
    if (line.index) upTo(line.index);
    out.push_back(std::move(line));
  }
  upTo(std::nullopt);
  return out;
}

std::string listText(const std::vector<Line>& list) {
  if (list.empty()) return "[]";
  std::string out = "[";
  for (const auto& line : list) out += (out.size() > 1 ? ",\n    " : "\n    ") + line.text;
  return out + "\n  ]";
}

bool unchanged(const std::vector<Line>& list, std::string_view text) {
  const auto elements = elementsOf(text);
  return std::ranges::equal(list, elements, {}, &Line::text);
}

// A document that came from no file.
Json fresh(const Harness& h) {
  Json j = headJson(h);
  const auto add = [&](Section section, const auto& entries) {
    j[word(section)] = Json::array();
    for (const auto& e : entries) j[word(section)].push_back(toJson(e));
  };
  add(Section::Devices, h.devices);
  add(Section::Connections, h.connections);
  add(Section::Goals, h.goals);
  add(Section::Assignments, h.assignments);
  add(Section::Program, h.program);
  if (!h.sources.empty()) add(Section::Sources, h.sources);
  if (!h.marks.empty()) add(Section::Marks, h.marks);
  if (!h.rounds.empty()) add(Section::Rounds, h.rounds);
  for (const auto& p : h.parts) j["parts"].push_back(*p.json);
  return j;
}

}  // namespace

std::string writeHarness(const Harness& h) {
  if (!h.raw) return jsonText(fresh(h));
  auto text = headText(h);
  const std::pair<Section, std::vector<Line>> lists[] = {{Section::Devices, lines(h.devices)}, {Section::Connections, lines(h.connections)},
                                                         {Section::Goals, lines(h.goals)},     {Section::Assignments, lines(h.assignments)},
                                                         {Section::Program, lines(h.program)}, {Section::Sources, lines(h.sources)},
                                                         {Section::Marks, lines(h.marks)},     {Section::Rounds, lines(h.rounds)},
                                                         {Section::Parts, lines(h.parts)}};
  for (const auto& [section, read] : lists) {
    const auto list = withUnread(read, h, section);
    const auto members = membersOf(text);
    const auto stands = std::ranges::find(members, word(section), &TextMember::key);
    const bool there = stands != members.end();
    const bool needed = section == Section::Devices || section == Section::Connections || section == Section::Goals;
    if (there ? unchanged(list, stands->value) : !needed && list.empty()) continue;
    text = section == Section::Parts && list.empty() ? withoutMember(text, word(section))
                                                     : withFirstMember(text, word(section), listText(list));
  }
  return text;
}

}  // namespace bold::harness
