#include "core/harness/names.h"

#include <algorithm>
#include <map>
#include <string_view>

#include "core/harness/seen_part.h"
#include "core/parts/connectors.h"

namespace bold::harness {

std::string shownName(const Harness& h, const Device& device) {
  const bool clash = std::ranges::any_of(h.devices, [&](const Device& d) { return d.id != device.id && d.called() == device.called(); });
  return clash && device.called() != device.id ? device.called() + " (" + device.id + ")" : device.called();
}

std::vector<std::string> shownNames(const Harness& h) {
  std::map<std::string_view, int> known;
  for (const auto& d : h.devices) ++known[d.called()];
  std::vector<std::string> out;
  out.reserve(h.devices.size());
  for (const auto& d : h.devices) out.push_back(known[d.called()] > 1 && d.called() != d.id ? d.called() + " (" + d.id + ")" : d.called());
  return out;
}

std::string shownEnd(const Harness& h, const parts::Library& library, const Address& end) {
  const auto* d = h.device(end.device);
  if (!d) return end.text();
  const auto part = seenPart(library.find(d->part), *d, h);
  const auto name = shownName(h, *d) + " ";
  if (!part) return name + end.terminal;
  if (const auto* t = part->find(end.terminal)) {
    const auto alike = std::ranges::count_if(part->terminals, [&](const parts::Terminal& o) { return o.label == t->label; });
    return name + (alike > 1 && !t->ground ? t->id : t->label);
  }
  const auto whole = parts::connectorsNamed(*part, end.terminal);
  return name + (whole.empty() ? end.terminal : whole.front().name);
}

std::string_view word(ConnectionKind kind) {
  return kind == ConnectionKind::Wire ? "wire" : kind == ConnectionKind::Plug ? "plug" : "jumper";
}

std::string shownEnds(const Harness& h, const parts::Library& library, const Connection& c) {
  return shownEnd(h, library, c.a) + " – " + shownEnd(h, library, c.b);
}

}  // namespace bold::harness
