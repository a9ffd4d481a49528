#include <fmt/core.h>

#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_cannot_drive {
namespace {

// Why a pin cannot be what the program needs there; empty: it can.
std::string against(const SolvedBench& s, TerminalIndex t, bool drives) {
  if (t < 0) return "is not on the bench";
  const auto& facts = s.bench.facts(t);
  if (!facts.pin) return facts.ground ? "is a ground" : facts.supply ? "is a supply" : "is no digital pin";
  if (drives && !facts.pin->output) return "is input only";
  return facts.pin->reserved.empty() ? "" : "is reserved: " + facts.pin->reserved;
}

// Of a sensor, a register or a bus part: a contact is read, everything else is written.
bool drivesIt(const SolvedBench& s, int device, const std::string& role) {
  const auto end = s.bench.terminal(device, role);
  return end >= 0 && (s.bench.facts(end).input || !s.bench.facts(end).bus.empty());
}

void judgeIntent(const SolvedBench& s, const harness::Intent& intent, bool sensor, std::set<std::string>& told, Findings& out) {
  const int d = s.bench.deviceIndex(intent.motor);
  const auto name = d < 0 ? intent.motor : called(s.bench, d);
  for (const auto& signal : intent.signals) {
    const auto t = s.bench.terminal(signal.pin);
    const auto where = signal.pin.text();
    const bool drives = !sensor || drivesIt(s, d, signal.role);
    const auto why = against(s, t, drives);
    if (why.empty() || !told.insert(where).second) continue;
    const auto pin = t < 0 ? where : s.bench.called(t);
    auto f = finding(Severity::Stop, fmt::format("{} cannot be {}", pin, drives ? "driven" : "read"),
                     fmt::format("The plan {} {} of {} {} {}, which {}.", drives ? "drives" : "reads", signal.role, name,
                                 drives ? "from" : "at", pin, why),
                     {where, intent.motor});
    f.ways = {{fmt::format("Take another pin for {} of {}, in the wires and in the program.", signal.role, name),
               {intent.motor, "signal " + signal.role}}};
    f.formula = fmt::format("{} {}", pin, why);
    out.push_back(std::move(f));
  }
}

}  // namespace

// Signals of the plan on terminals that cannot be written, or read.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<std::string> told;
  for (const auto& intent : s.bench.intents) judgeIntent(s, intent, false, told, out);
  for (const auto& intent : s.bench.reads) judgeIntent(s, intent, true, told, out);
  return out;
}

Check check() {
  return {"pin-cannot-drive", "pins", "A pin that cannot be written", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_cannot_drive
