#include <fmt/core.h>

#include <algorithm>

#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/truth_table.h"

namespace bold::checks::never_driven {
namespace {

using parts::Level;

// A lead touches it to a rail: an input of logic that copper does not hold.
bool touched(const SolvedBench& s, const Motor& m, TerminalIndex t) {
  const auto& input = s.bench.facts(t).input;
  return bench::steeringOf(s.bench, s.nets, m) == bench::Steering::ByHand && input && !input->levels.empty() && !s.nets.rail(s.nets.of(t));
}

bool moves(const Motor& m, const parts::Channel& c, const parts::TruthRow& row) {
  if (c.lowSide) return std::ranges::count(row.outputs, parts::Drive::Low) > 0;
  if (m.half) return row.outputs[m.half->output] == (m.half->high ? parts::Drive::High : parts::Drive::Low);
  if (row.outputs.size() == 2) {
    const auto a = parts::bridgeAction(row.outputs[0], row.outputs[1]);
    return a == parts::BridgeAction::Forward || a == parts::BridgeAction::Reverse;
  }
  return std::ranges::none_of(row.outputs, [](parts::Drive d) { return d == parts::Drive::Open || d == parts::Drive::Short; });
}

}  // namespace

// Whether any state of the controller's pins can move a motor, and which input stands in the way.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* off = s.point(Action::AllOff, Corner::Nominal);
  if (!off) return out;
  for (const auto& m : s.motors) {
    if (m.meant.device < 0 || m.kind == MotorKind::Servo) continue;
    const auto& channel = bench::channelOf(s.bench, m.meant);
    const auto& part = *s.bench.devices[m.meant.device].part;
    const auto rows = parts::truthTable(part, channel);
    // An input is free when a pin that can be written reaches it, else it has the level it stands at.
    std::string blocks;
    TerminalIndex place = -1;
    bool possible = rows.empty();
    std::size_t fewest = 99;
    for (const auto& row : rows) {
      if (!moves(m, channel, row)) continue;
      std::string against;
      TerminalIndex first = -1;
      std::size_t count = 0;
      for (const auto& [id, level] : row.inputs) {
        const auto t = s.bench.terminal(m.meant.device, id);
        const auto pin = steeredBy(s, t);
        const bool free = pin >= 0 && s.bench.facts(pin).pin && s.bench.facts(pin).pin->output && s.bench.facts(pin).pin->reserved.empty();
        const auto stands = off->level(t);
        const bool input = s.bench.facts(t).input && !s.bench.facts(t).input->levels.empty();
        if (free || touched(s, m, t) || (input && (stands == level || stands == Level::Undefined))) continue;
        if (!input && s.bench.connected(t) && sourceAt(s, t, true)) continue;  // a gate or base tied on
        against += (against.empty() ? "" : ", ") + s.bench.facts(t).label + (level == Level::High ? " high" : " low");
        if (first < 0) first = t;
        ++count;
      }
      if (count == 0) possible = true;
      if (count < fewest) {
        fewest = count;
        blocks = against;
        place = first;
      }
    }
    if (possible || place < 0) continue;
    auto f = finding(Severity::Stop, fmt::format("Nothing can move {}", called(s, m)),
                     fmt::format("To move {} {} needs {}, and no pin of a controller reaches it: the program can do what it likes.",
                                 called(s, m), bench::called(s.bench, m.meant), blocks),
                     {s.bench.address(place), idOf(s.bench, m.device)});
    f.ways = {{fmt::format("Wire a free pin of the controller to {}, or tie it to the level it needs.", s.bench.called(place))}};
    f.formula = fmt::format("needed: {}", blocks);
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"never-driven", "commands", "A motor that no pin can move", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::never_driven
