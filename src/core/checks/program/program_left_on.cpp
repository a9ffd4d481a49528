#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"
#include "core/parts/truth_table.h"

namespace bold::checks::program_left_on {
namespace {

using parts::Drive;
using parts::Level;

// The levels that an input may be left at; empty: nobody drives it any more.
std::set<Level> leftAt(const std::string& last) {
  if (last == "high" || last == "pwm") return {Level::High};
  if (last == "low") return {Level::Low};
  if (last == "unsure") return {Level::High, Level::Low};
  return {};
}

bool moves(const Motor& m, const parts::Channel& c, const parts::TruthRow& row) {
  if (c.lowSide || m.half)
    return std::ranges::any_of(row.outputs, [&](Drive d) { return d == Drive::Low || (m.half && d == Drive::High); });
  if (row.outputs.size() != 2) return false;
  const auto a = parts::bridgeAction(row.outputs[0], row.outputs[1]);
  return a == parts::BridgeAction::Forward || a == parts::BridgeAction::Reverse;
}

// A coil on plain switches or bridges that is left on only gets warm.
void coils(const SolvedBench& s, const ProgramOnBench& program, Findings& out) {
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind == MotorKind::TwoLead || m.kind == MotorKind::Servo || m.meant.device < 0 || bench::chopperOf(s.bench, m.meant)) continue;
    const UsedPin* on = nullptr;
    for (const auto* r : program.rolesOf(static_cast<int>(k)))
      if (const auto* u = program.at(r->pin); u && r->role.starts_with("in") && leftAt(u->use->last).contains(Level::High)) on = u;
    if (!on) continue;
    const auto& motor = called(s, m);
    auto f = programFinding(
        Severity::Note, fmt::format("A coil of {} is left on", motor),
        fmt::format("Once the program is over or is stopped by hand, {} may be left high: a coil of {} stays under current and gets warm.",
                    said(*on->use), motor),
        {s.bench.address(on->pin), idOf(s.bench, m.device)}, *on->use);
    f.formula = fmt::format("{}: {} at the end", s.bench.facts(on->pin).label, on->use->last);
    f.ways = {{fmt::format("Switch the coils of {} off at the end.", motor)}};
    out.push_back(std::move(f));
  }
}

}  // namespace

// What the pins of a motor are left at once the program is over, or was stopped by hand: the stage goes on doing what they say.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  coils(s, program, out);
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.meant.device < 0 || m.kind != MotorKind::TwoLead) continue;
    const auto roles = program.rolesOf(static_cast<int>(k));
    std::map<std::string, std::set<Level>> left;  // by input of the stage
    const UsedPin* on = nullptr;
    bool certain = true, ends = false;
    for (const auto* r : roles) {
      const auto* u = program.at(r->pin);
      if (!u || s.bench.deviceOf(r->input) != m.meant.device || u->use->last.empty()) continue;
      ends = true;
      const auto levels = leftAt(u->use->last);
      if (levels.contains(Level::High) && (!on || u->use->last == "high")) on = u;
      certain = certain && levels.size() == 1;
      if (!levels.empty()) left[s.bench.facts(r->input).id] = levels;
    }
    if (!ends || !on) continue;
    const auto* off = s.point(Action::AllOff, Corner::Nominal);
    const auto rows = parts::truthTable(*s.bench.devices[m.meant.device].part, bench::channelOf(s.bench, m.meant));
    const bool stays = std::ranges::any_of(rows, [&](const parts::TruthRow& row) {
      return moves(m, bench::channelOf(s.bench, m.meant), row) && std::ranges::all_of(row.inputs, [&](const auto& in) {
               if (const auto it = left.find(in.first); it != left.end()) return it->second.contains(in.second);
               const auto t = s.bench.terminal(m.meant.device, in.first);
               const bool driven = std::ranges::any_of(roles, [&](const WiredRole* r) { return r->input == t; });
               if (driven) return false;  // released: it floats, which sets nothing going for certain
               return !off || off->level(t) == in.second || off->level(t) == Level::Undefined;
             });
    });
    if (!stays) continue;
    const auto& motor = called(s, m);
    auto f = programFinding(Severity::Caution, fmt::format("{} {} left on", motor, certain ? "is" : "may be"),
                            fmt::format("Once the program is over or is stopped by hand, {} is left {}: {} {}.", said(*on->use),
                                        on->use->last == "unsure" ? "at whatever it was"
                                        : on->use->last == "pwm"  ? "with its PWM going"
                                                                  : "high",
                                        motor, certain ? "goes on running" : "may go on running"),
                            {s.bench.address(on->pin), idOf(s.bench, m.device)}, *on->use);
    f.formula = fmt::format("{}: {} at the end", s.bench.facts(on->pin).label, on->use->last);
    f.ways = {{fmt::format("Switch {} off at the end, also where the program is stopped by hand.", motor)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-left-on", "program", "A motor left on when the program ends", Harm::Danger, judge};
}

}  // namespace bold::checks::program_left_on
