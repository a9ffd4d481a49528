#include "core/checks/current/supply_path.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// Follows copper from a terminal; `stops` names the elements that are taken out.
template <class Stops>
std::set<TerminalIndex> follow(const SolvedBench& s, TerminalIndex from, Stops stops) {
  std::set<TerminalIndex> seen{from};
  std::vector<TerminalIndex> open{from};
  std::multimap<TerminalIndex, TerminalIndex> joined;  // by what wires join to what
  for (const auto& l : s.bench.links)
    if (s.nets.same(l.a, from)) joined.insert({{l.a, l.b}, {l.b, l.a}});
  const auto go = [&](TerminalIndex t) {
    if (t >= 0 && seen.insert(t).second) open.push_back(t);
  };
  while (!open.empty()) {
    const auto t = open.back();
    open.pop_back();
    const auto [first, last] = joined.equal_range(t);
    for (auto it = first; it != last; ++it) go(it->second);
    const int d = s.bench.deviceOf(t);
    const auto& device = s.bench.devices[d];
    for (const auto& e : device.part->elements) {
      if (!device.has(e) || stops(e)) continue;
      if (const auto* j = std::get_if<parts::Joint>(&e.body)) {
        if (std::ranges::count(j->nodes, s.bench.facts(t).id) > 0)
          for (const auto& n : j->nodes) go(at(s.bench, d, n));
      } else if (const auto* r = std::get_if<parts::Resistor>(&e.body); r && r->conductor) {
        if (r->a == s.bench.facts(t).id) go(at(s.bench, d, r->b));
        if (r->b == s.bench.facts(t).id) go(at(s.bench, d, r->a));
      } else if (const auto* c = std::get_if<parts::Contact>(&e.body); c && c->closed) {
        if (c->a == s.bench.facts(t).id) go(at(s.bench, d, c->b));
        if (c->b == s.bench.facts(t).id) go(at(s.bench, d, c->a));
      }
    }
  }
  return seen;
}

}  // namespace

std::set<TerminalIndex> beforeFuse(const SolvedBench& s, const bench::Nets::Pole& pole) {
  return follow(s, pole.positive, [](const parts::Element& e) {
    const auto* r = std::get_if<parts::Resistor>(&e.body);
    return r && r->fuse;
  });
}
std::set<TerminalIndex> beforeSwitch(const SolvedBench& s, const bench::Nets::Pole& pole) {
  // A plug is no switch: it is not made to be pulled under load, and nobody does it in time.
  return follow(s, pole.positive, [](const parts::Element& e) {
    const auto* c = std::get_if<parts::Contact>(&e.body);
    return c && !c->connector;
  });
}

bool reachesLoad(const SolvedBench& s, const std::set<TerminalIndex>& terminals, int source) {
  return std::ranges::any_of(terminals, [&](TerminalIndex t) {
    if (s.bench.deviceOf(t) == source) return false;
    if (s.bench.facts(t).supply) return true;
    for (const auto& m : s.motors)
      if (m.device == s.bench.deviceOf(t)) return true;
    return false;
  });
}

std::optional<Amps> shortCurrent(const parts::Source& body) {
  const auto full = body.full.typical();
  const auto r = body.resistance.least();
  if (body.limit.known()) return Amps{body.limit.greatest().value_or(0)};
  if (!full || !r || *r <= 0) return std::nullopt;
  return Amps{*full / *r};
}

bool strong(const parts::Source& body) {
  const auto amps = shortCurrent(body);
  return body.lithium || (amps && amps->value > 10);
}

std::vector<int> supplyWires(const SolvedBench& s, const bench::Nets::Pole& pole) {
  std::vector<int> out;
  const int net = s.nets.of(pole.positive);
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    const bool wire = s.bench.connections[link.connection].kind == harness::ConnectionKind::Wire;
    if (wire && s.nets.of(link.a) == net) out.push_back(static_cast<int>(l));
  }
  return out;
}

}  // namespace bold::checks
