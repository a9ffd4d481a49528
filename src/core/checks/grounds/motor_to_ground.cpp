#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::motor_to_ground {
namespace {

TerminalIndex outputOf(const SolvedBench& s, ChannelRef ref, TerminalIndex lead) {
  const auto& outs = bench::channelOf(s.bench, ref).out;
  const auto first = s.bench.terminal(ref.device, outs[0]);
  return s.nets.same(first, lead) ? first : s.bench.terminal(ref.device, outs[1]);
}
TerminalIndex partnerOf(const SolvedBench& s, ChannelRef ref, TerminalIndex lead) {
  const auto& outs = bench::channelOf(s.bench, ref).out;
  return outputOf(s, ref, lead) == s.bench.terminal(ref.device, outs[0]) ? s.bench.terminal(ref.device, outs[1])
                                                                         : s.bench.terminal(ref.device, outs[0]);
}
// The pole or ground that a lead is on, as a person finds it.
std::string railName(const SolvedBench& s, TerminalIndex lead) {
  for (const bool positive : {true, false})
    if (const auto* pole = sourceAt(s, lead, positive)) return s.bench.called(positive ? pole->positive : pole->negative);
  for (const auto t : s.nets.members(s.nets.of(lead)))
    if (t != lead && (s.bench.facts(t).ground || s.bench.facts(t).supply)) return s.bench.called(t);
  return s.bench.called(lead);
}

// Tried where one wire leads there.
Way moveLead(const SolvedBench& s, const Motor& m, TerminalIndex lead, TerminalIndex partner) {
  const auto text = fmt::format("Move that lead of {} to {}.", called(s, m), s.bench.called(partner));
  const int only = onlyConnectionAt(s.bench, lead);
  if (only < 0) return {text};
  const auto& c = s.bench.connections[static_cast<std::size_t>(only)];
  const auto far = s.bench.terminal(c.a) == lead ? s.bench.terminal(c.b) : s.bench.terminal(c.a);
  return far < 0 ? Way{text} : RepairDraft(s.bench).move(only, far, partner).way(text);
}

}  // namespace

// A motor between one output of a bridge and a rail.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.windings.size() != 1) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    const TerminalIndex leads[2] = {s.bench.terminal(m.device, w.a), s.bench.terminal(m.device, w.b)};
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      if (channel.lowSide || channel.out.size() != 2) continue;
      const auto onOutput = [&](TerminalIndex t) {
        return std::ranges::any_of(channel.out, [&](const std::string& o) { return s.nets.same(t, s.bench.terminal(ref.device, o)); });
      };
      const auto onRail = [&](TerminalIndex t) {
        const auto& members = s.nets.members(s.nets.of(t));
        return sourceAt(s, t, true) || sourceAt(s, t, false) || std::ranges::any_of(members, [&](TerminalIndex x) {
                 return x != t && (s.bench.facts(x).ground || s.bench.facts(x).supply);
               });
      };
      for (const int i : {0, 1}) {
        if (!onOutput(leads[i]) || onOutput(leads[1 - i]) || !onRail(leads[1 - i])) continue;
        const bool both = m.intent && m.intent->bothDirections;
        auto f = finding(both       ? Severity::Stop
                         : m.intent ? Severity::Note
                                    : Severity::Caution,
                         fmt::format("{} hangs between an output and a rail", called(s, m)),
                         fmt::format("{} goes from {} to {}, not to {}: {}.", called(s, m), s.bench.called(outputOf(s, ref, leads[i])),
                                     railName(s, leads[1 - i]), s.bench.called(partnerOf(s, ref, leads[i])),
                                     both ? "it can never turn the other way" : "it works one way, without brake"),
                         {s.bench.address(leads[1 - i]), idOf(s.bench, ref.device)});
        f.ways = {moveLead(s, m, leads[1 - i], partnerOf(s, ref, leads[i]))};
        if (both) f.ways.push_back({"Or state that it turns one way only.", fieldOf(s, m, "directions")});
        f.formula = "one lead on an output, one on a rail";
        out.push_back(std::move(f));
      }
    }
  }
  return out;
}

Check check() {
  return {"motor-to-ground", "grounds", "A motor from an output to a rail", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::motor_to_ground
