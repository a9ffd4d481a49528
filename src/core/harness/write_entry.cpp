#include "core/harness/write_entry.h"

#include <algorithm>

#include "core/base/json_text.h"
#include "core/harness/entry_json.h"

namespace bold::harness {
namespace {

// The text that said `before`, so that it says `now`: only members that differ are touched.
std::string patched(std::string text, const Json& before, const Json& now) {
  for (const auto& [key, value] : before.items())
    if (!now.contains(key)) {
      // An object of which something could not be read is not emptied of it.
      const auto members = membersOf(text);
      const auto it = std::ranges::find(members, key, &TextMember::key);
      const bool nested = value.is_object() && it != members.end();
      const auto left = nested ? patched(std::string(it->value), value, Json::object()) : std::string();
      text = nested && !membersOf(left).empty() ? withMember(text, key, left) : withoutMember(text, key);
    }
  for (const auto& [key, value] : now.items()) {
    if (before.contains(key) && before[key] == value) continue;
    const auto members = membersOf(text);
    const auto it = std::ranges::find(members, key, &TextMember::key);
    const bool nested = value.is_object() && it != members.end() && it->value.starts_with('{');
    const auto old = before.contains(key) && before[key].is_object() ? before[key] : Json::object();
    text = withMember(text, key, nested ? patched(std::string(it->value), old, value) : lineText(value));
  }
  return text;
}

template <class T>
std::string textOf(const T& entry, std::size_t indent) {
  const auto now = toJson(entry);
  if (!entry.raw) return nestedText(now, indent);
  const auto before = toJson(asRead(entry));
  return before == now ? entry.raw->text : patched(entry.raw->text, before, now);
}

}  // namespace

std::string entryText(const Device& d, std::size_t indent) {
  return textOf(d, indent);
}

std::string entryText(const Connection& c, std::size_t indent) {
  return textOf(c, indent);
}

std::string entryText(const Goal& g, std::size_t indent) {
  return textOf(g, indent);
}

std::string entryText(const Assignment& a, std::size_t indent) {
  return textOf(a, indent);
}

std::string entryText(const ProgramFacts& p, std::size_t indent) {
  return textOf(p, indent);
}

std::string entryText(const SourceRead& s, std::size_t indent) {
  return textOf(s, indent);
}

std::string entryText(const Mark& m, std::size_t indent) {
  return textOf(m, indent);
}

std::string entryText(const Round& r, std::size_t indent) {
  return textOf(r, indent);
}

std::string headText(const Harness& h) {
  std::vector<Problem> ignored;
  const auto json = parseJson(h.raw->text, "", ignored);
  const auto before = readHead(*json);
  auto said = headJson(*before.value);
  said["format"] = (*json)["format"];
  return patched(h.raw->text, said, headJson(h));
}

}  // namespace bold::harness
