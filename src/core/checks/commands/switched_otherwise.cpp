#include <fmt/core.h>

#include "core/bench/signal_nets.h"
#include "core/bench/steering.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::switched_otherwise {
namespace {

using bench::Steering;
using harness::Switched;

// A pin of a controller that gets to something that switches this motor; -1: none.
TerminalIndex pinThatSwitches(const SolvedBench& s, const Motor& m) {
  for (const auto t : bench::controlsOf(s.bench, s.nets, m)) {
    const auto pins = bench::programPins(s.bench, s.nets, t);
    if (!pins.empty()) return *pins.begin();
  }
  return -1;
}

Finding otherwise(const SolvedBench& s, const Motor& m, Severity severity, std::string headline, std::string text, std::string way) {
  auto f = finding(severity, std::move(headline), std::move(text), {idOf(s.bench, m.device)});
  f.ways = {{std::move(way), fieldOf(s, m, "switching")}};
  f.formula = "stated, against the wires";
  return f;
}

}  // namespace

// What a motor is stated to be switched by, against what the wires let switch it.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (!m.intent || !m.intent->signals.empty()) continue;
    const auto wired = bench::wiredSteering(s.bench, s.nets, m);
    const auto& name = called(s, m);
    if (m.intent->switched == Switched::ByProgram && wired == Steering::AlwaysOn)
      out.push_back(
          otherwise(s, m, Severity::Stop, fmt::format("Nothing can switch {} off", name),
                    fmt::format("{} is stated to be switched by the program, and its leads go to its supply over copper, fuses and "
                                "switches alone: it runs from power-up on.",
                                name),
                    fmt::format("Lead {} over a stage, or state that it is always on or switched by hand.", name)));
    if (m.intent->switched == Switched::AlwaysOn && wired != Steering::AlwaysOn)
      out.push_back(otherwise(s, m, Severity::Caution, fmt::format("{} is stated to be always on, and is switched", name),
                              fmt::format("A stage lies between {} and its supply: whatever switches that switches {} too.", name, name),
                              fmt::format("State what switches {}, or lead it straight to its supply.", name)));
    if (m.intent->switched != Switched::ByHand) continue;
    if (const auto pin = pinThatSwitches(s, m); pin >= 0)
      out.push_back(
          otherwise(s, m, Severity::Caution, fmt::format("{} is stated to be switched by hand, and a pin reaches it", name),
                    fmt::format("{} is wired to what switches {}: a hand and a pin would drive one input.", s.bench.called(pin), name),
                    fmt::format("State {} as its pin, or take that wire off.", s.bench.called(pin))));
  }
  return out;
}

Check check() {
  return {"switched-otherwise", "commands", "A motor that is switched otherwise than stated", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::switched_otherwise
