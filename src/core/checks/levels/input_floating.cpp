#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/read_element.h"
#include "core/parts/truth_table.h"

namespace bold::checks::input_floating {
namespace {

// Motors that a device's input decides about: those on outputs whose switches read it, or a chopper that reads it.
std::vector<const Motor*> decides(const SolvedBench& s, TerminalIndex t) {
  const int d = s.bench.deviceOf(t);
  const auto& id = s.bench.facts(t).id;
  const auto& part = *s.bench.devices[d].part;
  std::vector<const Motor*> out;
  // What enables the outputs of a register decides about every motor that is steered by one.
  const bool enables = parts::enablingLevel(part, id).has_value();
  for (const auto& m : s.motors) {
    if (enables && m.intent)
      for (const auto& x : m.intent->signals)
        if (const auto pin = s.bench.terminal(x.pin); pin >= 0 && s.bench.deviceOf(pin) == d && std::ranges::count(out, &m) == 0)
          out.push_back(&m);
    for (const auto& ref : m.reached) {
      if (ref.device != d) continue;
      const auto& channel = bench::channelOf(s.bench, ref);
      bool reads = std::ranges::any_of(channel.signals, [&](const auto& x) { return x.second == id; });
      for (const auto& e : part.elements) {
        const auto inputs = parts::inputsOf(e);
        const auto nodes = parts::nodesOf(e);
        const bool here = std::ranges::any_of(nodes, [&](const auto& n) { return std::ranges::count(channel.out, n) > 0; });
        reads = reads || (here && std::ranges::count(inputs, id) > 0);
      }
      if (reads && std::ranges::count(out, &m) == 0) out.push_back(&m);
    }
  }
  return out;
}

// Whether it decides about motion or life: a condition of a switch or chopper reads it.
bool steers(const SolvedBench& s, TerminalIndex t) {
  const auto& part = *s.bench.devices[s.bench.deviceOf(t)].part;
  return std::ranges::any_of(part.elements, [&](const parts::Element& e) {
    const auto inputs = parts::inputsOf(e);
    return std::ranges::count(inputs, s.bench.facts(t).id) > 0;
  });
}

TerminalIndex pinAt(const SolvedBench& s, TerminalIndex t) {
  for (const auto r : signalReach(s, t))
    if (pinGroup(s.bench, r)) return r;
  return -1;
}

}  // namespace

// An input that no resistor, tie or driven pin holds, in every command that runs a motor it decides about.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    if (!s.bench.facts(t).input) continue;
    const auto motors = decides(s, t);
    if (motors.empty()) continue;  // a channel without load
    const auto* p = s.running(indexOf(s, *motors.front()), Corner::Nominal);
    if (!p || p->level(t) != parts::Level::Undefined) continue;
    // An input that a driven pin reaches is not open; if it has no level, the missing ground is the reason.
    const auto pin = pinAt(s, t);
    const bool driven = pin >= 0 && p->command().pins.contains(pin);
    if (driven) continue;
    if (pin >= 0 && std::ranges::none_of(motors, [](const Motor* m) { return hasSignals(*m); })) continue;  // nobody stated any
    const bool stop = steers(s, t);
    const auto name = s.bench.called(t);
    auto f = finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} floats", name),
                     pin >= 0 ? fmt::format("{} hangs on {}, which no signal of the plan drives: {} may move by itself or stay dead.", name,
                                            s.bench.called(pin), called(s, *motors.front()))
                              : fmt::format("{} is open and the part gives it no level: {} may move by itself or stay dead.", name,
                                            called(s, *motors.front())),
                     {s.bench.address(t)});
    if (pin >= 0)
      f.ways = {
          {fmt::format("State which role {} has for {}: what the program drives there.", s.bench.called(pin), called(s, *motors.front())),
           fieldOf(s, *motors.front(), "signals")}};
    else
      f.ways = {{fmt::format("Wire {} to a pin, or tie it to the level it needs.", name)}};
    f.formula = "more than 1 MΩ to anything that could hold it";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"input-floating", "levels", "An input that nothing holds", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::input_floating
