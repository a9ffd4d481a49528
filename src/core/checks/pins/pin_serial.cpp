#include <fmt/core.h>

#include <cctype>

#include "core/bench/sensed_pins.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_serial {
namespace {

struct Use {
  std::string what;                   // "speed of Gate", "the input S1 M0"
  std::vector<std::string> subjects;  // besides the pin
};

// What the program drives from the pin, or what it reads there, or else the first input that its wires reach.
std::optional<Use> useOf(const SolvedBench& s, const std::vector<bench::SensedPin>& sensed, TerminalIndex pin) {
  for (const auto& intent : s.bench.intents)
    for (const auto& sig : intent.signals)
      if (s.bench.terminal(sig.pin) == pin)
        return Use{fmt::format("{} of {}", sig.role, called(s.bench, s.bench.deviceIndex(intent.motor))), {intent.motor}};
  for (const auto& x : sensed)
    if (x.pin == pin) return Use{called(s.bench, x.device), {s.bench.address(x.end)}};
  if (!s.bench.connected(pin) || s.nets.rail(s.nets.of(pin))) return std::nullopt;
  for (const auto t : signalReach(s, pin))
    if (s.bench.facts(t).input && s.bench.deviceOf(t) != s.bench.deviceOf(pin))
      return Use{fmt::format("the input {}", s.bench.called(t)), {s.bench.address(t)}};
  return std::nullopt;
}

}  // namespace

// A signal, or an input that wires reach, on a pin that the console or the programming plug uses.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto sensed = bench::sensedPins(s);
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& pin = s.bench.facts(t).pin;
    const auto use = pin && !pin->serial.empty() ? useOf(s, sensed, t) : std::nullopt;
    if (!use) continue;
    auto f = finding(Severity::Caution, fmt::format("{} is the {}", s.bench.called(t), pin->serial),
                     fmt::format("{} is on {}, the {}: messages and programming drive it, and what hangs on it disturbs them.", use->what,
                                 s.bench.called(t), pin->serial),
                     {s.bench.address(t)});
    f.text[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(f.text[0])));
    f.subjects.insert(f.subjects.end(), use->subjects.begin(), use->subjects.end());
    f.ways = {{fmt::format("Move what is on {} to a pin that is no {}.", s.bench.called(t), pin->serial)}};
    f.formula = pin->serial;
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"pin-serial", "pins", "A signal on the console's pin", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_serial
