#include "core/checks/flyback/clamp.h"

namespace bold::checks {

const OperatingPoint* justOpened(const SolvedBench& s, int motor) {
  for (const auto a : {Action::Forward, Action::Step, Action::Hold})
    if (const auto* p = s.point(motor, a, Moment::JustOpened, Corner::Full)) return p;
  return nullptr;
}

const OperatingPoint* worstOpened(const SolvedBench& s, int motor) {
  const OperatingPoint* worst = justOpened(s, motor);
  for (const auto& p : s.points)
    if (p->solved() && p->command().motor == motor && p->command().moment == Moment::JustOpened)
      if (!worst || p->arcShare(motor) > worst->arcShare(motor) + 1e-9) worst = p.get();
  return worst;
}

TerminalIndex supplyLead(const SolvedBench& s, const Motor& motor) {
  if (motor.windings.size() != 1) return -1;
  const auto& w = bench::windingOf(s.bench, motor, 0);
  const auto a = s.bench.terminal(motor.device, w.a);
  const auto b = s.bench.terminal(motor.device, w.b);
  const bool onA = sourceAt(s, a, true) != nullptr;
  const bool onB = sourceAt(s, b, true) != nullptr;
  return onA == onB ? -1 : onA ? a : b;
}

std::vector<LooseDiode> looseDiodes(const SolvedBench& s) {
  std::vector<LooseDiode> out;
  eachElement<parts::Diode>(s.bench, [&](int d, int e, const parts::Diode& diode) {
    if (s.bench.devices[d].part->elements.size() == 1)
      out.push_back({d, e, s.bench.terminal(d, diode.anode), s.bench.terminal(d, diode.cathode)});
  });
  return out;
}

}  // namespace bold::checks
