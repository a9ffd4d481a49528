#include "core/harness/names.h"

#include <algorithm>
#include <map>
#include <string_view>

#include "core/harness/seen_part.h"
#include "core/parts/connectors.h"

namespace bold::harness {

namespace {

// What a terminal or connector is called on its part.
std::string onPart(const parts::Part* part, const std::string& terminal) {
  if (!part) return terminal;
  if (const auto* t = part->find(terminal)) {
    const auto alike = std::ranges::count_if(part->terminals, [&](const parts::Terminal& o) { return o.label == t->label; });
    return alike > 1 && !t->ground ? t->id : t->label;
  }
  const auto whole = parts::connectorsNamed(*part, terminal);
  return whole.empty() ? terminal : whole.front().name;
}

}  // namespace

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
  return shownName(h, *d) + " " + onPart(seenPart(library.find(d->part), *d, h).get(), end.terminal);
}

EndNames::EndNames(const Harness& h, const parts::Library& library) {
  const auto names = shownNames(h);
  for (std::size_t k = 0; k < h.devices.size(); ++k)
    m_known[h.devices[k].id] = {names[k], seenPart(library.find(h.devices[k].part), h.devices[k], h)};
}

std::string EndNames::end(const Address& end) const {
  const auto it = m_known.find(end.device);
  return it == m_known.end() ? end.text() : it->second.name + " " + onPart(it->second.part.get(), end.terminal);
}

std::string EndNames::device(const std::string& id) const {
  const auto it = m_known.find(id);
  return it == m_known.end() ? id : it->second.name;
}

std::string_view word(ConnectionKind kind) {
  return kind == ConnectionKind::Wire ? "wire" : kind == ConnectionKind::Plug ? "plug" : "jumper";
}

std::string shownEnds(const Harness& h, const parts::Library& library, const Connection& c) {
  return shownEnd(h, library, c.a) + " – " + shownEnd(h, library, c.b);
}

}  // namespace bold::harness
