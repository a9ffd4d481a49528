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

// @param before the list as it stands in the file: what lies between its entries stays, and what is new is set apart likewise
std::string listText(const std::vector<Line>& list, std::string_view before) {
  if (list.empty()) return "[]";
  const auto old = elementsOf(before);
  const auto from = [&](std::size_t k) { return static_cast<std::size_t>(old[k].data() - before.data()); };
  // What stands in front of an entry of the file, from the end of the one before it.
  const auto gap = [&](std::size_t k) {
    const auto begin = k == 0 ? 1 : from(k - 1) + old[k - 1].size();
    return std::string(before.substr(begin, from(k) - begin));
  };
  const std::string first = old.empty() ? "\n    " : gap(0);
  const std::string usual = old.size() > 1 ? gap(1) : "," + first;
  std::string out = "[";
  std::optional<std::size_t> last;
  for (const auto& line : list) {
    const bool follows = line.index && *line.index < old.size() && last && *last + 1 == *line.index;
    out += (out.size() == 1 ? first : follows ? gap(*line.index) : usual) + line.text;
    last = line.index;
  }
  return out +
         (old.empty() ? "\n  "
                      : std::string(before.substr(from(old.size() - 1) + old.back().size(),
                                                  before.size() - 1 - from(old.size() - 1) - old.back().size()))) +
         "]";
}

// Files of other systems end their lines otherwise; what is written into one does so too. (A text within JSON holds no line end.)
std::string withLineEnds(std::string text, std::string_view of) {
  if (of.find("\r\n") == std::string_view::npos) return text;
  std::string out;
  out.reserve(text.size() + text.size() / 16);
  for (const char c : text) {
    if (c == '\n' && (out.empty() || out.back() != '\r')) out += '\r';
    out += c;
  }
  return out;
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
                                                     : withFirstMember(text, word(section), listText(list, there ? stands->value : "[]"));
  }
  return withLineEnds(std::move(text), h.raw->text);
}

}  // namespace bold::harness
