#include <fmt/core.h>

#include <algorithm>
#include <optional>
#include <set>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_tied {
namespace {

// The program is known, and the pin is nothing that it drives.
bool onlyRead(const ProgramOnBench& program, TerminalIndex pin) {
  if (!program.hasProgram(program.solved().bench.deviceOf(pin)) || program.openAt(pin)) return false;
  const auto* u = program.at(pin);
  return !u || !drives(*u->use);
}

bool stated(const SolvedBench& s, TerminalIndex pin) {
  for (const auto* list : {&s.bench.intents, &s.bench.reads})
    for (const auto& i : *list)
      for (const auto& x : i.signals)
        if (s.bench.terminal(x.pin) == pin) return true;
  return false;
}

bool canDrive(const SolvedBench& s, TerminalIndex t) {
  const auto& pin = s.bench.facts(t).pin;
  const auto group = pinGroup(s.bench, t);
  return pin && pin->output && pin->reserved.empty() && group && !group->pins->behind && !group->pins->bus;
}

// Its most current into the other level.
std::string shortOf(const SolvedBench& s, TerminalIndex pin) {
  const auto most = pinGroup(s.bench, pin)->pins->shortCircuit.typical();
  return most ? fmt::format("up to {} flow", show(Amps{*most})) : std::string("it is shorted");
}

}  // namespace

// Two pins of one board joined by copper, or a pin that nobody stated on a rail: whatever the program makes of them.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  const bench::Nets fixed(s.bench, false);
  std::optional<bench::Nets> bare;  // only where something is joined: every trial of a repair comes by here
  const auto inside = [&](TerminalIndex a, TerminalIndex b) {
    if (!bare) {
      Bench without = s.bench;
      without.links.clear();
      bare.emplace(without, false);
    }
    return bare->same(a, b);
  };
  std::set<std::pair<int, int>> told;  // net, device
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    if (!s.bench.connected(t) || !canDrive(s, t)) continue;
    const int d = s.bench.deviceOf(t);
    const int net = fixed.of(t);
    if (!told.emplace(net, d).second) continue;
    std::vector<TerminalIndex> pins;
    for (const auto u : fixed.members(net))
      if (s.bench.deviceOf(u) == d && canDrive(s, u)) pins.push_back(u);
    const auto apart = std::ranges::find_if(pins, [&](TerminalIndex u) { return u != t && !inside(t, u); });
    if (apart != pins.end()) {
      // Both planned is pin-conflict; one that is only looked at does no harm.
      if ((stated(s, t) && stated(s, *apart)) || onlyRead(program, t) || onlyRead(program, *apart)) continue;
      auto f = finding(Severity::Caution, fmt::format("{} and {} are joined", s.bench.called(t), s.bench.facts(*apart).label),
                       fmt::format("Copper joins {} and {}: if the program makes outputs of both and their levels differ, {}.",
                                   s.bench.called(t), s.bench.called(*apart), shortOf(s, t)),
                       {s.bench.address(t), s.bench.address(*apart)});
      f.ways = {{fmt::format("Take one of the two off, or see that the program only ever reads {}.", s.bench.called(*apart))}};
      f.formula = fmt::format("{} and {} are one net", s.bench.called(t), s.bench.called(*apart));
      out.push_back(std::move(f));
      continue;
    }
    const auto group = *pinGroup(s.bench, t);
    const bool high = fixed.same(t, group.rail) && !inside(t, group.rail);
    const bool low = fixed.same(t, group.ground) && !inside(t, group.ground);
    if ((!high && !low) || stated(s, t) || onlyRead(program, t)) continue;
    auto f = finding(Severity::Caution, fmt::format("{} is tied to {}", s.bench.called(t), high ? "its supply" : "ground"),
                     fmt::format("{} is on {} by copper: if the program makes it an output and writes it {}, {}.", s.bench.called(t),
                                 s.bench.called(high ? group.rail : group.ground), high ? "low" : "high", shortOf(s, t)),
                     {s.bench.address(t)});
    f.ways = {{fmt::format("Take the wire off {}, or put 1 kΩ in it.", s.bench.called(t))}};
    f.formula = fmt::format("{} and {} are one net", s.bench.called(t), s.bench.called(high ? group.rail : group.ground));
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"pin-tied", "pins", "A pin tied to another, or to a rail", Harm::Damage, judge};
}

}  // namespace bold::checks::pin_tied
