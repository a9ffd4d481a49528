#include "core/bench/carried_on.h"

#include <cmath>

namespace bold::bench {
namespace {

constexpr double kBackEmf = 0.8;       // of the rated voltage, where nothing better is known of how fast it turns
constexpr double kStillTurning = 0.1;  // share of the voltage across it from which its own one counts as worked out
constexpr double kNothing = 1e-3;      // A

// Of the motor's windings; what has no inductance, such as a light, is simply off.
void openedCurrents(const Bench& bench, const Motor& m, const OperatingPoint& running, CarriedOn& out) {
  for (std::size_t k = 0; k < m.windings.size(); ++k) {
    const int w = m.windings[k];
    if (windingOf(bench, m, k).inductance.typical() == 0.0) continue;
    if (const double i = running.element(m.device, w).value; std::abs(i) > kNothing) out.currents[bench.elementIndex(m.device, w)] = i;
  }
}

// The capacitors at the stage of the opened motor keep the voltage they had.
void heldVoltages(const Bench& bench, const Motor& m, const OperatingPoint& running, CarriedOn& out) {
  for (const auto& [d, e] : m.buffers) {
    const auto& c = std::get<parts::Capacitor>(bench.devices[d].part->elements[e].body);
    if (const auto v = running.across(bench.terminal(d, c.a), bench.terminal(d, c.b)); v && c.capacitance.known())
      out.held[bench.elementIndex(d, e)] = v->value;
  }
}

// The own voltage of a brushed motor that still turns is what it had while running.
std::optional<double> emf(const Bench& bench, const Motor& m, const OperatingPoint* running) {
  if (m.kind != MotorKind::TwoLead || m.still) return std::nullopt;
  const auto& w = windingOf(bench, m, 0);
  const auto ohms = w.resistance.typical();
  const auto nominal = w.nominal.typical();
  if (!ohms || !nominal) return std::nullopt;
  const auto v = running ? running->across(bench.terminal(m.device, w.a), bench.terminal(m.device, w.b)) : std::nullopt;
  if (!v) return kBackEmf * *nominal;
  const double own = v->value - running->element(m.device, m.windings[0]).value * *ohms;
  const bool turns = own * v->value > 0 && std::abs(own) > kStillTurning * std::abs(v->value);
  return turns ? own : kBackEmf * *nominal;
}

}  // namespace

CarriedOn carriedOn(const Bench& bench, const std::vector<Motor>& motors, const Command& command, const OperatingPoint* running) {
  CarriedOn out;
  if (command.motor < 0) return out;
  if (running && !running->solved()) running = nullptr;
  const bool opened = command.moment == Moment::JustOpened && running;
  const bool turns = command.action == Action::Brake || command.action == Action::Coast || command.moment == Moment::Reversing;
  for (const int k : together(motors, command.motor)) {
    const auto& m = motors[k];
    if (opened) openedCurrents(bench, m, *running, out);
    if (const auto volts = turns ? emf(bench, m, running) : std::nullopt) out.emf[bench.elementIndex(m.device, m.windings[0])] = *volts;
  }
  if (opened) heldVoltages(bench, motors[command.motor], *running, out);
  return out;
}

}  // namespace bold::bench
