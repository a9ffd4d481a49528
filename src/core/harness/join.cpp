#include "core/harness/join.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/harness/edit_maker.h"
#include "core/harness/names.h"
#include "core/harness/typed_end.h"
#include "core/harness/wire_colour.h"
#include "core/parts/connectors.h"

namespace bold::harness {
namespace {

struct End {
  const Device* device;
  parts::Connector connector;
  Address address() const { return {device->id, connector.id}; }
};

// The connector an address names, where it is no terminal.
std::optional<parts::Connector> connectorAt(const Harness& h, const parts::Library& library, const Address& a) {
  const auto* d = h.device(a.device);
  const auto part = d ? library.find(d->part) : nullptr;
  if (!part || part->find(a.terminal)) return std::nullopt;
  auto named = parts::connectorsNamed(*part, a.terminal);
  return named.empty() ? std::nullopt : std::optional(std::move(named.front()));
}

bool samePlace(const Connection& c, const Address& a, const Address& b) {
  return (c.a == a && c.b == b) || (c.a == b && c.b == a);
}

bool taken(const Harness& h, const Address& a) {
  return std::ranges::any_of(h.connections, [&](const Connection& c) { return c.a == a || c.b == a; });
}

// "usb.usb", "usb": the connectors that a word means.
std::vector<End> connectorsTyped(const Harness& h, const parts::Library& library, const std::string& word) {
  std::vector<End> out;
  const auto dot = word.find('.');
  for (const auto* d : devicesTyped(h, library, word.substr(0, dot))) {
    const auto part = library.find(d->part);
    if (!part) continue;
    for (auto& c : dot == std::string::npos ? parts::connectorsOf(*part) : parts::connectorsNamed(*part, word.substr(dot + 1)))
      out.push_back({d, std::move(c)});
  }
  return out;
}

Result<Edit> plugsTyped(const Harness& h, const parts::Library& library, const std::vector<std::string>& words) {
  std::vector<std::pair<End, End>> same;
  std::vector<std::pair<End, End>> other;
  for (const auto& a : connectorsTyped(h, library, words[0]))
    for (const auto& b : connectorsTyped(h, library, words[1]))
      if (a.device != b.device && parts::mates(a.connector, b.connector))
        (a.connector.id == b.connector.id ? same : other).emplace_back(a, b);
  auto& pairs = same.empty() ? other : same;
  if (pairs.empty()) return fail(fmt::format("Nothing of \"{}\" can be plugged into \"{}\".", words[0], words[1]));
  const bool oneBoard = std::ranges::all_of(
      pairs, [&](const auto& p) { return p.first.device == pairs.front().first.device && p.second.device == pairs.front().second.device; });
  if (!oneBoard || (same.empty() && pairs.size() > 1)) {
    const auto& last = pairs.back();
    return fail(fmt::format("\"{} {}\" could be {} {} or {} {}: write them so.", words[0], words[1], pairs.front().first.address().text(),
                            pairs.front().second.address().text(), last.first.address().text(), last.second.address().text()));
  }
  if (pairs.size() == 1) return join(h, library, pairs.front().first.address(), pairs.front().second.address());
  EditMaker maker(h);
  for (const auto& [a, b] : pairs)
    if (!taken(h, a.address()) && !taken(h, b.address())) maker.plug(a.address(), b.address());
  const auto& [one, into] = pairs.front();
  if (maker.empty()) return fail(fmt::format("{} is plugged in already.", shownName(h, *one.device)));
  return maker.take(fmt::format("Plug {} into {}", shownName(h, *one.device), shownName(h, *into.device)));
}

}  // namespace

Result<Edit> join(const Harness& h, const parts::Library& library, const Address& a, const Address& b) {
  const auto nameA = shownEnd(h, library, a);
  const auto nameB = shownEnd(h, library, b);
  if (a == b) return fail(fmt::format("Both ends are {}.", nameA));
  for (const auto& c : h.connections)
    if (samePlace(c, a, b) && c.state != State::ToBeRemoved)
      return fail(fmt::format("{} and {} are joined already, by {}.", nameA, nameB, c.id));
  const auto plugA = connectorAt(h, library, a);
  const auto plugB = connectorAt(h, library, b);
  EditMaker maker(h);
  if (!plugA && !plugB) return maker.wire(a, b, colourOf(h, library, a, b)).take(fmt::format("Add a wire from {} to {}", nameA, nameB));
  if (!plugA || !plugB)
    return fail(fmt::format("{} is a connector of {} poles and {} is one terminal: join it pole by pole.", plugA ? nameA : nameB,
                            (plugA ? *plugA : *plugB).terminals.size(), plugA ? nameB : nameA));
  if (!parts::mates(*plugA, *plugB)) return fail(fmt::format("{} and {} do not go into each other.", nameA, nameB));
  for (const auto& [end, name] : {std::pair{&a, &nameA}, std::pair{&b, &nameB}})
    if (taken(h, *end)) return fail(fmt::format("Something is plugged into {} already.", *name));
  return maker.plug(a, b).take(fmt::format("Plug {} into {}", nameA, nameB));
}

Result<Edit> typedJoin(const Harness& h, const parts::Library& library, std::string_view text) {
  const auto wire = parseTypedWire(h, library, text);
  if (wire) return join(h, library, wire->a, wire->b);
  const auto words = typedWords(text);
  const bool ends = words.size() == 2 && !connectorsTyped(h, library, words[0]).empty() && !connectorsTyped(h, library, words[1]).empty();
  if (ends) return plugsTyped(h, library, words);
  return fail(wire.error());
}

}  // namespace bold::harness
