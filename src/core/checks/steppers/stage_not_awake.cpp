#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::stage_not_awake {
namespace {

bool drivenBySignal(const SolvedBench& s, const Motor& m, TerminalIndex input) {
  return m.intent &&
         std::ranges::any_of(m.intent->signals, [&](const harness::Signal& sig) { return bench::inputOf(s.bench, m, sig.role) == input; });
}

// The logic supply of a stage, to tie an input to: its own, else the rail of a controller.
TerminalIndex tie(const SolvedBench& s, int stage, bool high) {
  const auto& part = *s.bench.devices[stage].part;
  for (const auto& t : part.terminals) {
    if (high && t.supply && t.supply->purpose == parts::SupplyFor::Logic) return s.bench.terminal(stage, t.id);
    if (!high && t.ground) return s.bench.terminal(stage, t.id);
  }
  TerminalIndex rail = -1;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& p) {
    if (rail < 0) rail = s.bench.terminal(d, p.rail);
  });
  return rail;
}

}  // namespace

// Inputs that no signal drives and that keep the stage off although the motor is asked to run: sleep, reset, standby, enable.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.meant.device < 0 || !motor.intent || motor.intent->signals.empty()) continue;
    const auto* p = s.running(static_cast<int>(m), Corner::Nominal);
    if (!p || bench::channelOf(s.bench, motor.meant).lowSide) continue;
    std::vector<TerminalIndex> wrong;
    std::map<TerminalIndex, parts::Level> wanted;
    for (const auto& channel : bench::meantChannels(s.bench, motor))
      for (const auto& [input, level] : bench::inputsFor(s.bench, motor, channel, p->command().action, p->command().variant).inputs)
        wanted[s.bench.terminal(channel.ref.device, input)] = level;
    for (const auto& [t, level] : wanted) {
      const auto got = p->level(t);
      if (!drivenBySignal(s, motor, t) && got != level && got != parts::Level::Undefined) wrong.push_back(t);
    }
    if (wrong.empty()) continue;
    std::string names;
    std::vector<std::string> subjects;
    RepairDraft draft(s.bench);
    std::string repair;
    for (const auto t : wrong) {
      names += (names.empty() ? "" : " and ") + s.bench.facts(t).label;
      subjects.push_back(s.bench.address(t));
      const bool high = wanted.at(t) == parts::Level::High;
      const auto to = tie(s, motor.meant.device, high);
      if (to < 0 || s.bench.connected(t)) continue;  // what is wired to it would be tied as well
      draft.wire(t, to, high ? "RD" : "BK");
      repair += fmt::format("{}{} to {}", repair.empty() ? "" : ", ", found(s.bench, t), found(s.bench, to));
    }
    const bool low = p->level(wrong.front()) == parts::Level::Low;
    auto f = finding(
        Severity::Stop, fmt::format("{} is kept off by {}", called(s.bench, motor.meant.device), names),
        fmt::format("{} of {} {} {} and no signal of the plan drives {}: {} never moves.", names, called(s.bench, motor.meant.device),
                    wrong.size() == 1 ? "is" : "are", low ? "low" : "high", wrong.size() == 1 ? "it" : "them", called(s, motor)),
        subjects);
    f.ways = {{fmt::format("Tie {} of {} {}, or wire it to a pin and state which.", names, called(s.bench, motor.meant.device),
                           low ? "high" : "low"),
               fieldOf(s, motor, "signals")}};
    f.formula = fmt::format("{} read as {}", names, low ? "low" : "high");
    if (!draft.empty() && !repair.empty()) f.repair = draft.repair("Tie " + repair + ".");
    const bool known = std::ranges::any_of(out, [&](const Finding& o) { return o.subjects == f.subjects; });
    if (!known) out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"stage-not-awake", "steppers", "A stage kept off", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::stage_not_awake
