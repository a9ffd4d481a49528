#include "core/bench/coil_order.h"

#include <algorithm>
#include <cmath>

#include "core/bench/operating_point.h"

namespace bold::bench {

std::optional<CoilOrder> coilOrder(const SolvedBench& s, int motor) {
  const auto& m = s.motors[motor];
  if (m.kind != MotorKind::UnipolarStepper) return std::nullopt;
  CoilOrder order;
  for (std::size_t i = 0; i < m.windings.size(); ++i) order.coils.push_back(windingOf(s.bench, m, i).name);
  std::vector<std::optional<double>> angles;
  for (int step = 0; step < 4; ++step) {
    const auto* p = s.point(motor, Action::Step, Moment::Running, Corner::Nominal, step);
    if (!p) return std::nullopt;
    CoilRow intended(m.windings.size(), 0);
    for (const int k : stepOutputs(m, step))
      if (static_cast<std::size_t>(k) < intended.size()) intended[k] = 1;
    CoilRow wired;
    double most = 0;
    for (const int w : m.windings) most = std::max(most, std::abs(p->element(m.device, w).value));
    double x = 0;
    double y = 0;
    for (std::size_t i = 0; i < m.windings.size(); ++i) {
      const bool on = most > 0.01 && std::abs(p->element(m.device, m.windings[i]).value) > 0.5 * most;
      wired.push_back(on ? 1 : 0);
      if (!on) continue;
      x += std::cos(1.57079632679 * static_cast<double>(i));
      y += std::sin(1.57079632679 * static_cast<double>(i));
    }
    angles.push_back(std::hypot(x, y) > 0.5 ? std::optional(std::atan2(y, x) / 1.57079632679) : std::nullopt);
    order.intended.push_back(std::move(intended));
    order.wired.push_back(std::move(wired));
  }
  int forward = 0;
  int backward = 0;
  for (std::size_t k = 0; k < 4; ++k) {
    const auto& a = angles[k];
    const auto& b = angles[(k + 1) % 4];
    if (!a || !b) continue;
    const double turn = std::remainder(*b - *a, 4.0);
    forward += std::abs(turn - 1) < 0.2;
    backward += std::abs(turn + 1) < 0.2;
  }
  order.turns = forward == 4 || backward == 4;
  order.backwards = backward == 4;
  return order;
}

}  // namespace bold::bench
