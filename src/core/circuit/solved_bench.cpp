#include "core/circuit/solved_bench.h"

namespace bold::circuit {

SolvedBench::SolvedBench(Bench b) : bench(std::move(b)), nets(bench), motors(motorsOf(bench, nets)), commands(commandsOf(bench, motors)) {}

const OperatingPoint* SolvedBench::point(int motor, Action action, Moment moment, Charge charge, int step) const {
  for (const auto& p : points) {
    const auto& c = p->command();
    if (c.motor == motor && c.action == action && c.moment == moment && p->charge() == charge && c.step == step && p->solved())
      return p.get();
  }
  return nullptr;
}

const OperatingPoint* SolvedBench::point(Action action, Charge charge) const {
  return point(-1, action, Moment::Running, charge);
}

const OperatingPoint* SolvedBench::running(int motor, Charge charge) const {
  for (const auto a : {Action::Forward, Action::Hold, Action::Step, Action::Move})
    if (const auto* p = point(motor, a, Moment::Running, charge)) return p;
  return nullptr;
}

std::unique_ptr<SolvedBench> solveBench(Bench bench, const std::function<bool()>& cancelled) {
  auto solved = std::make_unique<SolvedBench>(std::move(bench));
  const OperatingPoint* last = nullptr;
  for (const auto& c : solved->commands) {
    for (const auto charge : c.charges) {
      if (cancelled && cancelled()) return nullptr;
      const bool after =
          c.moment == Moment::JustOpened || c.moment == Moment::Reversing || c.action == Action::Brake || c.action == Action::Coast;
      const auto* running = after ? solved->running(c.motor, Charge::Full) : nullptr;
      auto p = solve(solved->bench, solved->nets, solved->motors, c, charge, running, last);
      // A start from another command saves passes; where it leads astray, start from nothing.
      if (!p->solved() && last) p = solve(solved->bench, solved->nets, solved->motors, c, charge, running, nullptr);
      solved->points.push_back(std::move(p));
      if (solved->points.back()->solved()) last = solved->points.back().get();
    }
  }
  return solved;
}

}  // namespace bold::circuit
