#include "core/checks/wired_signals.h"

#include <algorithm>

#include "core/bench/sensed_pins.h"
#include "core/bench/signal_nets.h"
#include "core/parts/roles.h"

namespace bold::checks {
namespace {

TerminalIndex inputFor(const SolvedBench& s, const Motor& m, const std::string& role) {
  if (m.coil >= 0) return bench::inputOf(s.bench, s.motors[m.coil], role);
  if (m.kind != MotorKind::Servo) return bench::inputOf(s.bench, m, role);
  for (const auto& t : s.bench.devices[m.device].part->terminals)
    if (t.input) return s.bench.terminal(m.device, t.id);
  return -1;
}

}  // namespace

std::vector<WiredSignal> wiredSignals(const SolvedBench& s, const Motor& m) {
  std::vector<WiredSignal> out;
  for (const auto& role : bench::rolesOf(s.bench, m)) {
    WiredSignal signal{.role = role, .pin = {}, .input = inputFor(s, m, role), .tied = {}};
    if (const auto input = signal.input; input >= 0) {
      const auto pins = bench::programPins(s.bench, s.nets, input);
      if (pins.size() == 1) signal.pin = s.bench.place(*pins.begin());
      if (pins.empty() && s.bench.connected(input)) {
        const auto* off = s.point(Action::AllOff, Corner::Nominal);
        const auto level = off ? off->level(input) : parts::Level::Undefined;
        signal.tied = level == parts::Level::High ? "high" : level == parts::Level::Low ? "low" : "";
      }
    }
    out.push_back(std::move(signal));
  }
  return out;
}

std::vector<WiredSignal> wiredReads(const SolvedBench& s, int device) {
  std::vector<WiredSignal> out;
  const auto pins = bench::sensedPins(s);
  for (const auto& end : parts::peripheralLines(*s.bench.devices[device].part)) {
    std::vector<TerminalIndex> here;
    for (const auto& x : pins)
      if (x.device == device && s.bench.facts(x.end).id == end) here.push_back(x.pin);
    if (here.size() == 1) out.push_back({.role = end, .pin = s.bench.place(here.front()), .tied = {}});
  }
  return out;
}

std::optional<harness::Edit> stateAsWired(const harness::Harness& h, const SolvedBench& s, const std::string& motor) {
  const auto it = std::ranges::find_if(s.motors, [&](const Motor& m) { return idOf(s.bench, m.device) == motor; });
  const int device = s.bench.deviceIndex(motor);
  if (device < 0 || !h.device(motor)) return std::nullopt;
  auto intent = harness::intentFor(h, motor);
  const auto before = intent.signals.size();
  for (const auto& w : it == s.motors.end() ? wiredReads(s, device) : wiredSignals(s, *it)) {
    const bool stated = std::ranges::count(intent.signals, w.role, &harness::Signal::role) > 0;
    if (!stated && !w.pin.device.empty()) intent.signals.push_back({w.role, w.pin, "label", harness::Active::Unsaid});
  }
  if (intent.signals.size() == before) return std::nullopt;
  return harness::stating(h, intent, "State the pins of " + called(s.bench, device) + " as they are wired");
}

}  // namespace bold::checks
