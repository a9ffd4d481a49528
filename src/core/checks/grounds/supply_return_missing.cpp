#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::supply_return_missing {
namespace {

// From a source's minus on through sources in a row to a return.
bool comesBack(const SolvedBench& s, TerminalIndex minus, TerminalIndex back) {
  const auto& poles = s.nets.sources();
  for (std::size_t n = 0; n <= poles.size(); ++n) {
    if (s.nets.same(minus, back)) return true;
    const auto next = std::ranges::find_if(poles, [&](const bench::Nets::Pole& p) { return s.nets.same(p.positive, minus); });
    if (next == poles.end()) return false;
    minus = next->negative;
  }
  return false;
}

}  // namespace

// A stage fed from a source's plus whose return does not get back to that source's minus.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto judge = [&](TerminalIndex fed, TerminalIndex back) {
    const auto* pole = sourceAt(s, fed, true);
    if (!pole || back < 0 || comesBack(s, pole->negative, back) || s.nets.same(back, pole->positive)) return;
    for (const auto& other : s.nets.sources())  // two that share the plus
      if (s.nets.same(fed, other.positive) && s.nets.same(back, other.negative)) return;
    auto f = finding(Severity::Stop,
                     fmt::format("{} has no way back to {}", called(s.bench, s.bench.deviceOf(back)), called(s.bench, pole->device)),
                     fmt::format("{} is fed by {}, but {} is not joined to its minus: no current can flow.", s.bench.called(fed),
                                 called(s.bench, pole->device), s.bench.called(back)),
                     {s.bench.address(back), s.bench.address(pole->negative)});
    f.ways = {RepairDraft(s.bench)
                  .wire(back, pole->negative, "BK")
                  .way(fmt::format("Join {} to the minus of {}.", s.bench.called(back), called(s.bench, pole->device)))};
    f.formula = fmt::format("{} and {} are two nets", s.bench.called(back), s.bench.called(pole->negative));
    if (plainGround(s, back) && plainGround(s, pole->negative))
      f.repair = RepairDraft(s.bench)
                     .wire(back, pole->negative, "BK")
                     .repair(fmt::format("Add a black wire from {} to {}.", found(s.bench, back), found(s.bench, pole->negative)));
    for (const auto& o : out)
      if (o.subjects == f.subjects) return;
    out.push_back(std::move(f));
  };
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t)
    if (const auto& supply = s.bench.facts(t).supply; supply && s.bench.connected(t))
      judge(t, s.bench.terminal(s.bench.deviceOf(t), supply->back));
  // Loose transistors: their load hangs on a source, and they switch it to their return.
  for (const auto& m : s.motors) {
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      if (channel.returnTerminal.empty()) continue;
      // A bridge whose current comes back by a terminal of its own.
      if (!channel.lowSide)
        for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor))
          if (s.bench.deviceOf(input.positive) == ref.device && s.bench.connected(input.positive))
            judge(input.positive, s.bench.terminal(ref.device, channel.returnTerminal));
      if (!channel.lowSide) continue;
      for (std::size_t i = 0; i < m.windings.size(); ++i) {
        const auto& w = bench::windingOf(s.bench, m, i);
        for (const auto& lead : {w.a, w.b})
          if (const auto t = s.bench.terminal(m.device, lead); sourceAt(s, t, true))
            judge(t, s.bench.terminal(ref.device, channel.returnTerminal));
      }
    }
  }
  return out;
}

Check check() {
  return {"supply-return-missing", "grounds", "No way back to the supply", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::supply_return_missing
