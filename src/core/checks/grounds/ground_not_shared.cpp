#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"

namespace bold::checks::ground_not_shared {
namespace {

// Inputs that a pin's signal decides: inputs of stages, bases and gates of loose transistors.
bool isInput(const Bench& bench, TerminalIndex t) {
  if (bench.facts(t).input) return true;
  const auto& part = *bench.devices[bench.deviceOf(t)].part;
  for (const auto& e : part.elements) {
    if (const auto* m = std::get_if<parts::Mosfet>(&e.body); m && m->pChannel && m->gate == bench.facts(t).id) return true;
    if (const auto* b = std::get_if<parts::Bipolar>(&e.body); b && b->pnp && b->base == bench.facts(t).id) return true;
  }
  for (const auto& c : part.channels)
    for (const auto& [role, id] : c.signals)
      if (c.lowSide && id == bench.facts(t).id) return true;  // isolated inputs have no ground to share
  return false;
}

// A transistor on the supply's side is measured against that supply, whose return has to be shared.
TerminalIndex supplyGround(const SolvedBench& s, TerminalIndex control) {
  TerminalIndex top = -1;
  const int d = s.bench.deviceOf(control);
  for (const auto& e : s.bench.devices[d].part->elements) {
    if (const auto* m = std::get_if<parts::Mosfet>(&e.body); m && m->pChannel && m->gate == s.bench.facts(control).id)
      top = at(s.bench, d, m->source);
    if (const auto* b = std::get_if<parts::Bipolar>(&e.body); b && b->pnp && b->base == s.bench.facts(control).id)
      top = at(s.bench, d, b->emitter);
  }
  const auto* pole = sourceAt(s, top, true);
  return pole ? pole->negative : -1;
}

// Whether a loose transistor's reference is no ground at all: a motor's lead, or its other end lies on the ground instead.
bool notOnGround(const SolvedBench& s, TerminalIndex reference, TerminalIndex ground) {
  const int d = s.bench.deviceOf(reference);
  if (parts::isSource(*s.bench.devices[d].part)) return false;
  for (const auto t : s.nets.members(s.nets.of(reference)))
    for (const auto& m : s.motors)
      if (m.device == s.bench.deviceOf(t)) return true;
  const auto& part = *s.bench.devices[d].part;
  return std::ranges::any_of(part.channels, [&](const parts::Channel& c) {
    return c.lowSide && std::ranges::any_of(c.out, [&](const std::string& o) { return s.nets.same(s.bench.terminal(d, o), ground); });
  });
}

// The ground of the controller that is easiest to reach: one that nothing hangs on yet, else the pin group's own.
TerminalIndex freeGround(const SolvedBench& s, const PinGroup& group) {
  const auto& device = s.bench.devices[group.device];
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
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<std::pair<int, int>> told;
  for (TerminalIndex pin = 0; pin < static_cast<int>(s.bench.terminalCount()); ++pin) {
    const auto group = pinGroup(s.bench, pin);
    if (!group || !s.bench.connected(pin)) continue;
    for (const auto t : signalReach(s, pin)) {
      if (s.bench.deviceOf(t) == group->device || !isInput(s.bench, t)) continue;
      auto reference = referenceOf(s.bench, t);
      if (reference < 0) reference = supplyGround(s, t);
      if (reference < 0 || s.nets.same(reference, group->ground)) continue;
      const int stage = s.bench.deviceOf(t);
      // A transistor above its motor, or the wrong way round, has no ground to share: other checks name that.
      if (!s.bench.facts(t).input && notOnGround(s, reference, group->ground)) continue;
      if (!told.emplace(group->device, stage).second) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} share no ground", called(s.bench, stage), called(s.bench, group->device)),
                       fmt::format("{} is measured against {}, which no wire joins to the ground of {}: its signals have no return path.",
                                   s.bench.called(t), s.bench.called(reference), called(s.bench, group->device)),
                       {s.bench.address(reference), s.bench.address(group->ground)});
      f.formula = fmt::format("{} and {} are two nets", s.bench.called(reference), s.bench.called(group->ground));
      const auto ground = freeGround(s, *group);
      f.ways = {RepairDraft(s.bench)
                    .wire(reference, ground, "BK")
                    .way(fmt::format("Join {} to a ground of {} by a wire of its own.", s.bench.called(reference),
                                     called(s.bench, group->device)))};
      // A loose transistor whose return is open misses its way back to the supply, not to the controller.
      const bool open = !s.bench.facts(t).input && !s.bench.connected(reference);
      if (!open && plainGround(s, reference) && plainGround(s, group->ground))
        f.repair = RepairDraft(s.bench)
                       .wire(reference, ground, "BK")
                       .repair(fmt::format("Add a black wire from {} to {}.", found(s.bench, reference), found(s.bench, ground)));
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"ground-not-shared", "grounds", "Controller and stage share no ground", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::ground_not_shared
