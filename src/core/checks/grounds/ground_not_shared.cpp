#include <fmt/core.h>

#include <set>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// Inputs that a pin's signal decides: inputs of stages, bases and gates of loose transistors.
bool isInput(const Bench& bench, TerminalIndex t) {
  if (bench.facts(t).input) return true;
  const auto& part = *bench.devices[static_cast<std::size_t>(bench.deviceOf(t))].part;
  for (const auto& c : part.channels)
    for (const auto& [role, id] : c.signals)
      if (id == bench.facts(t).id) return true;
  return false;
}

// The ground of the controller that is easiest to reach: one that nothing hangs on yet, else the pin group's own.
TerminalIndex freeGround(const SolvedBench& s, const PinGroup& group) {
  const auto& device = s.bench.devices[static_cast<std::size_t>(group.device)];
  for (std::size_t i = 0; i < device.part->terminals.size(); ++i) {
    const auto t = device.first + static_cast<int>(i);
    const auto& facts = device.part->terminals[i];
    if (facts.ground && facts.place.contact != "socket" && !s.bench.connected(t) && s.nets.same(t, group.ground)) return t;
    if (facts.ground && facts.place.connector != "USB" && facts.place.connector != "jack" && !s.bench.connected(t) &&
        s.nets.same(t, group.ground))
      return t;
  }
  return group.ground;
}

}  // namespace

// For every wired signal: is there copper from the controller's ground to what the input is measured against?
Findings groundNotShared(const SolvedBench& s) {
  Findings out;
  std::set<std::pair<int, int>> told;
  for (TerminalIndex pin = 0; pin < static_cast<int>(s.bench.terminalCount()); ++pin) {
    const auto group = pinGroup(s.bench, pin);
    if (!group || !s.bench.connected(pin)) continue;
    for (const auto t : signalReach(s, pin)) {
      if (s.bench.deviceOf(t) == group->device || !isInput(s.bench, t)) continue;
      const auto reference = referenceOf(s.bench, t);
      if (reference < 0 || s.nets.same(reference, group->ground)) continue;
      const int stage = s.bench.deviceOf(t);
      if (!told.emplace(group->device, stage).second) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} share no ground", called(s.bench, stage), called(s.bench, group->device)),
                       fmt::format("{} is measured against {}, which no wire joins to the ground of {}: its signals have no return path.",
                                   s.bench.called(t), s.bench.called(reference), called(s.bench, group->device)),
                       {s.bench.address(reference), s.bench.address(group->ground)});
      f.formula = fmt::format("{} and {} are two nets", s.bench.called(reference), s.bench.called(group->ground));
      const auto ground = freeGround(s, *group);
      f.repair = Plan(s.bench)
                     .wire(reference, ground, "BK")
                     .repair(fmt::format("Add a black wire from {} to {}.", found(s.bench, reference), found(s.bench, ground)));
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
