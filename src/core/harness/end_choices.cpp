#include "core/harness/end_choices.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/base/lower.h"
#include "core/harness/end_facts.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/parts/roles.h"
#include "core/places/arrangement.h"

namespace bold::harness {
namespace {

enum class Use { Ground, Supply, Pin, Input, Output, Any };

Use useOf(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* t = factsOf(h, library, a);
  if (!t || t->ground || isPole(h, library, a, false)) return t ? Use::Ground : Use::Any;
  if (t->supply || isPole(h, library, a, true)) return Use::Supply;
  if (t->pin) return t->pin->code.empty() ? Use::Any : Use::Pin;
  if (t->input) return Use::Input;
  return t->output ? Use::Output : Use::Any;
}

bool goTogether(Use a, Use b) {
  if (a == Use::Any || b == Use::Any) return true;
  if (a == Use::Ground || b == Use::Ground || a == Use::Supply || b == Use::Supply) return a == b;
  return a != b && !(a == Use::Output && b == Use::Input) && !(a == Use::Input && b == Use::Output) &&
         !(a == Use::Output && b == Use::Pin) && !(a == Use::Pin && b == Use::Output);
}

// The words before the last, and that one: what is still being typed.
std::pair<std::string, std::string> split(std::string_view line) {
  const auto gap = line.find_last_of(" \t");
  if (gap == std::string_view::npos) return {{}, lower(line)};
  return {std::string(line.substr(0, gap)), lower(line.substr(gap + 1))};
}

}  // namespace

std::vector<EndChoice> endChoices(const Harness& h, const parts::Library& library, std::string_view line, std::size_t most) {
  const auto [before, word] = split(line);
  if (word.empty() || word.find('-') != std::string::npos) return {};
  std::optional<Address> other;
  if (!typedWords(before).empty()) {
    const auto end = parseTypedEnd(h, library, before);
    if (!end) return {};  // a name of several words, or nonsense: nothing to go by
    other = *end;
  }
  std::map<Address, std::string> taken;
  for (const auto& c : h.connections)
    for (const auto* end : {&c.a, &c.b}) taken.emplace(*end, c.id);
  const auto dot = word.find('.');
  const auto device = dot == std::string::npos ? std::string() : word.substr(0, dot);
  const auto terminal = dot == std::string::npos ? word : word.substr(dot + 1);
  std::vector<EndChoice> out;
  for (const auto& d : h.devices) {
    const auto part = library.find(d.part);
    if (!part || d.state == State::ToBeRemoved) continue;
    const bool named = !device.empty() && (lower(d.id) == device || lower(d.name) == device);
    // A word without a dot is the beginning of a device, or a pin of a controller.
    const bool begun = device.empty() && (lower(d.id).starts_with(word) || lower(d.called()).starts_with(word));
    if (!named && !begun && !(device.empty() && parts::isController(*part))) continue;
    if (!device.empty() && !named) continue;
    for (const auto& t : part->terminals) {
      if (places::outOfReach(*part, t)) continue;
      const bool meant = begun || lower(t.label).starts_with(terminal) || lower(t.id).starts_with(terminal);
      if (!meant) continue;
      EndChoice c{.end = {d.id, t.id}};
      if (other && *other == c.end) continue;
      c.insert = c.end.text();
      c.exact = lower(t.label) == terminal || lower(t.id) == terminal;
      c.shown = shownEnd(h, library, c.end);
      const auto it = taken.find(c.end);
      c.free = it == taken.end();
      c.fits = !other || goTogether(useOf(h, library, *other), useOf(h, library, c.end));
      c.remark = !c.free ? "taken by " + it->second : c.fits ? "free" : "free, does not fit";
      out.push_back(std::move(c));
    }
  }
  std::ranges::stable_sort(out, {}, [](const EndChoice& c) { return (c.exact ? 0 : 4) + (c.fits ? 0 : 2) + (c.free ? 0 : 1); });
  if (out.size() > most) out.resize(most);
  return out;
}

}  // namespace bold::harness
