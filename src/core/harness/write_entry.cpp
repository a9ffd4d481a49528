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

// A plan's signals one by one, so that those that could not be read stay.
std::string signalsText(std::string_view list, const Intent& before, const Intent& now) {
  const auto elements = elementsOf(list);
  std::vector<std::string> out;
  for (std::size_t i = 0; i < elements.size(); ++i) {
    const auto old = std::ranges::find(before.signals, std::optional(i), &Signal::index);
    const auto kept = std::ranges::find(now.signals, std::optional(i), &Signal::index);
    if (old == before.signals.end())
      out.emplace_back(elements[i]);
    else if (kept != now.signals.end())
      out.push_back(patched(std::string(elements[i]), toJson(*old), toJson(*kept)));
  }
  for (const auto& s : now.signals)
    if (!s.index || *s.index >= elements.size()) out.push_back(lineText(toJson(s)));
  const bool high = list.find('\n') != std::string_view::npos || out.size() > 1;
  std::string text = "[";
  for (const auto& o : out) text += (text.size() > 1 ? "," : "") + std::string(high ? "\n        " : "") + o;
  return text + (high && !out.empty() ? "\n      ]" : "]");
}

}  // namespace

std::string entryText(const Device& d, std::size_t indent) {
  return textOf(d, indent);
}

std::string entryText(const Connection& c, std::size_t indent) {
  return textOf(c, indent);
}

std::string entryText(const Intent& i, std::size_t indent) {
  if (!i.raw) return textOf(i, indent);
  const auto before = asRead(i);
  if (before.signals == i.signals) return textOf(i, indent);
  auto text = i.raw->text;
  const auto members = membersOf(text);
  const auto list = std::ranges::find(members, "signals", &TextMember::key);
  const bool stands = list != members.end() && list->value.starts_with('[');
  text = withMember(text, "signals", signalsText(stands ? list->value : std::string_view("[]"), before, i));
  auto said = toJson(before);
  said["signals"] = toJson(i)["signals"];
  return patched(text, said, toJson(i));
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
