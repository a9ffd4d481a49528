#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::motor_across_channels {
namespace {

// The output of a channel that a lead is on; -1: none.
TerminalIndex outputAt(const SolvedBench& s, ChannelRef ref, TerminalIndex lead) {
  for (const auto& o : bench::channelOf(s.bench, ref).out)
    if (const auto t = s.bench.terminal(ref.device, o); s.nets.same(t, lead)) return t;
  return -1;
}

}  // namespace

// A brushed motor with one lead on an output of one bridge and the other on an output of another.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (m.kind != MotorKind::TwoLead || m.reached.size() != 2) continue;
    auto mine = m.reached[0];
    auto other = m.reached[1];
    if (m.meant == other) std::swap(mine, other);
    const auto bridge = [&](ChannelRef r) { return !bench::channelOf(s.bench, r).lowSide && bench::channelOf(s.bench, r).out.size() == 2; };
    if (!bridge(mine) || !bridge(other)) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    auto a = s.bench.terminal(m.device, w.a);
    auto b = s.bench.terminal(m.device, w.b);
    if (outputAt(s, mine, a) < 0) std::swap(a, b);
    const auto onMine = outputAt(s, mine, a);
    const auto onOther = outputAt(s, other, b);
    if (onMine < 0 || onOther < 0 || outputAt(s, mine, b) >= 0 || outputAt(s, other, a) >= 0) continue;
    const auto& outs = bench::channelOf(s.bench, mine).out;
    const auto partner = s.bench.terminal(mine.device, outs[0] == s.bench.facts(onMine).id ? outs[1] : outs[0]);
    auto f = finding(Severity::Stop, fmt::format("{} hangs between two bridges", called(s, m)),
                     fmt::format("{} goes from {} to {}: those belong to two bridges. Its second lead belongs on {}.", called(s, m),
                                 s.bench.called(onMine), s.bench.called(onOther), s.bench.called(partner)),
                     {s.bench.address(onOther), s.bench.address(partner), idOf(s.bench, m.device)});
    f.formula = fmt::format("{} of {}, {} of {}", s.bench.facts(onMine).label, bench::called(s.bench, mine), s.bench.facts(onOther).label,
                            bench::called(s.bench, other));
    if (connectionsAt(s.bench, onOther) == 1 && !s.bench.connected(partner))
      f.repair = RepairDraft(s.bench)
                     .exchange(onOther, partner)
                     .repair(fmt::format("Move the wire from {} to {}.", found(s.bench, onOther), found(s.bench, partner)));
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"motor-across-channels", "grounds", "A motor between two channels", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::motor_across_channels
