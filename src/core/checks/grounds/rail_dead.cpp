#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"

namespace bold::checks::rail_dead {
namespace {

// What is switched while the bench runs leads on, as it stands or not.
bool onlyCopper(const parts::Part& part) {
  if (parts::isPeripheral(part)) return false;
  return !part.elements.empty() && std::ranges::all_of(part.elements, [](const parts::Element& e) {
    const auto* r = std::get_if<parts::Resistor>(&e.body);
    const auto* c = std::get_if<parts::Contact>(&e.body);
    return std::holds_alternative<parts::Joint>(e.body) || (c && c->moved != parts::Moved::Thrown) || (r && r->conductor);
  });
}

// The place in a row, block or fuse where the pole's copper ends, with nothing on it that could use it; -1: it gets somewhere.
TerminalIndex deadEnd(const SolvedBench& s, const bench::Nets::Pole& pole, TerminalIndex end) {
  TerminalIndex last = -1;
  for (const auto t : s.nets.members(s.nets.of(end))) {
    const int d = s.bench.deviceOf(t);
    if (d == pole.device || !s.bench.connected(t)) continue;
    if (!onlyCopper(*s.bench.devices[d].part)) return -1;
    last = t;
  }
  return last;
}

// What a stage sends its motor current back through.
bool returns(const SolvedBench& s, TerminalIndex t) {
  const auto& channels = s.bench.devices[s.bench.deviceOf(t)].part->channels;
  return std::ranges::any_of(channels, [&](const parts::Channel& c) { return c.returnTerminal == s.bench.facts(t).id; });
}

// A free hole on the one other row of the same part that things are wired to and no source feeds with this pole; -1: there is none,
// or more than one.
TerminalIndex theRow(const SolvedBench& s, TerminalIndex dead, bool plus) {
  const int d = s.bench.deviceOf(dead);
  const auto& device = s.bench.devices[d];
  std::map<int, TerminalIndex> rows;  // by net: a free place on it
  for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
    const auto t = device.first + static_cast<int>(i);
    const int net = s.nets.of(t);
    if (s.nets.same(t, dead) || s.bench.connected(t) || sourceAt(s, t, true) || (plus && sourceAt(s, t, false))) continue;
    const bool wants = std::ranges::any_of(s.nets.members(net), [&](TerminalIndex u) {
      if (s.bench.deviceOf(u) == d) return false;
      const auto& facts = s.bench.facts(u);
      return plus ? facts.supply.has_value() : facts.ground || returns(s, u);
    });
    if (wants) rows.emplace(net, t);
  }
  return rows.size() == 1 ? rows.begin()->second : -1;
}

}  // namespace

// A supply that ends in a row of a breadboard, or in a block, where nothing else is.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources())
    for (const auto& [end, sign] : {std::pair{pole.positive, "plus"}, std::pair{pole.negative, "minus"}}) {
      if (end < 0 || !s.bench.connected(end)) continue;
      const auto t = deadEnd(s, pole, end);
      if (t < 0) continue;
      auto f = finding(Severity::Stop, fmt::format("The {} of {} ends at {}", sign, called(s.bench, pole.device), s.bench.called(t)),
                       fmt::format("The {} of {} goes to {}, and nothing else is joined to that: what belongs on it is on another row.",
                                   sign, called(s.bench, pole.device), s.bench.called(t)),
                       {s.bench.address(t), s.bench.address(end)});
      for (const auto u : s.nets.members(s.nets.of(end)))
        if (const int d = s.bench.deviceOf(u);
            s.bench.connected(u) && d != pole.device && std::ranges::count(f.subjects, idOf(s.bench, d)) == 0)
          f.subjects.push_back(idOf(s.bench, d));
      f.ways = {{fmt::format("Move that wire to the row or rail that the rest of the {} hangs on.", sign)}};
      f.formula = "nothing but copper on that net";
      const auto wire = std::ranges::find_if(s.bench.links, [&](const bench::Link& l) { return l.a == t || l.b == t; });
      const auto row = theRow(s, t, end == pole.positive);
      if (row >= 0 && connectionsAt(s.bench, t) == 1 && wire != s.bench.links.end())
        f.repair = RepairDraft(s.bench)
                       .move(wire->connection, t, row)
                       .repair(fmt::format("Move that wire from {} to {}.", found(s.bench, t), found(s.bench, row)));
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"rail-dead", "grounds", "A rail that nothing feeds", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::rail_dead
