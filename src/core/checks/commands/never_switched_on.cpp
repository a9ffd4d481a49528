#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::never_switched_on {
namespace {

using bench::Doing;

// What it does in every position that its switches and buttons are judged in, each moved for itself.
std::set<Doing> doings(const SolvedBench& s, int motor) {
  std::set<Doing> out;
  for (const auto& p : s.points) {
    const auto a = p->command().action;
    const bool position = a == Action::AllOff || a == Action::AllRunning || a == Action::Pressed || a == Action::SwitchedOff ||
                          (p->command().motor == motor && p->command().moment == Moment::Running);
    if (position && p->solved()) out.insert(p->doing(motor));
  }
  return out;
}

// A supply with a pole in the air: open-lead says so.
bool halfSupply(const SolvedBench& s) {
  return std::ranges::any_of(s.nets.sources(), [&](const bench::Nets::Pole& p) {
    return p.positive >= 0 && p.negative >= 0 && s.bench.connected(p.positive) != s.bench.connected(p.negative);
  });
}

int worked(const SolvedBench& s) {
  int out = 0;
  for (const auto& d : s.bench.devices)
    out += std::ranges::any_of(d.part->elements, [](const parts::Element& e) {
      const auto* c = std::get_if<parts::Contact>(&e.body);
      return c && (c->moved == parts::Moved::Thrown || c->moved == parts::Moved::Pressed || c->moved == parts::Moved::Senses);
    });
  return out;
}

}  // namespace

// A motor that is switched by hand alone and that no position of what a hand moves sets going, or turns the other way.
Findings judge(const SolvedBench& s) {
  Findings out;
  if (halfSupply(s)) return out;
  const int movers = worked(s);
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != bench::MotorKind::TwoLead || bench::wiredSteering(s.bench, s.nets, m) != bench::Steering::AlwaysOn) continue;
    if (!bench::windingOf(s.bench, m, 0).resistance.known() || hangsOnUnknown(s, m)) continue;  // not-solved
    const auto all = doings(s, static_cast<int>(k));
    if (all.empty() || all.contains(Doing::Undecided)) continue;
    const bool forward = all.contains(Doing::Forward), reverse = all.contains(Doing::Reverse);
    const bool on = forward || reverse || all.contains(Doing::On);
    const bool oneWay = m.intent && m.intent->bothDirections && !m.still && movers > 0 && on && forward != reverse;
    if (on && !oneWay) continue;
    // Two that have to be moved together are not tried.
    const auto severity = movers > 1 ? Severity::Caution : Severity::Stop;
    const auto& name = called(s, m);
    auto f =
        on ? finding(severity, fmt::format("{} turns one way only", name),
                     fmt::format("{} is to turn both ways. In every position of what a hand moves it runs {} or stands.", name,
                                 forward ? "forward" : "in reverse"),
                     {idOf(s.bench, m.device)})
           : finding(severity, fmt::format("Nothing sets {} going", name),
                     fmt::format("In every position of the switches on this bench {} stands: its leads never come to both poles.", name),
                     {idOf(s.bench, m.device)});
    f.ways = {{on ? fmt::format("Cross the wires of the changeover switch: one throw of each pole to plus, the other to minus.")
                  : fmt::format("Lead one end of {} to plus and the other to minus, by way of the switch.", name)}};
    f.formula = "every position solved";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"never-switched-on", "commands", "A motor that no switch sets going", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::never_switched_on
