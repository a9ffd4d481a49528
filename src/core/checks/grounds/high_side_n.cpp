#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
// An NPN or N-channel transistor between the supply's + and the motor: the motor gets the pin's voltage less a junction.
Findings highSideN(const SolvedBench& s) {
  Findings out;
  const auto judge = [&](int d, TerminalIndex top, TerminalIndex bottom, const char* what) {
    if (top < 0 || bottom < 0 || !sourceAt(s, top, true)) return;
    for (std::size_t k = 0; k < s.motors.size(); ++k) {
      const auto& m = s.motors[k];
      if (m.windings.size() != 1) continue;
      const auto& w = circuit::windingOf(s.bench, m, 0);
      const auto a = s.bench.terminal(m.device, w.a);
      const auto b = s.bench.terminal(m.device, w.b);
      if (!s.nets.same(bottom, a) && !s.nets.same(bottom, b)) continue;
      const auto* p = s.running(static_cast<int>(k), Charge::Nominal);
      const auto v = p ? p->across(a, b) : std::nullopt;
      const auto lost = p ? p->across(top, bottom) : std::nullopt;
      if (!v || !lost || lost->value < 0.6) continue;
      const double need = w.run.typical().value_or(0) * w.resistance.typical().value_or(0);
      const double rated = 0.6 * w.nominal.typical().value_or(0);
      const bool stop = std::abs(v->value) < std::max(need, rated);
      auto f = finding(
          stop ? Severity::Stop : Severity::Caution, fmt::format("{} sits above {}", called(s.bench, d), called(s, m)),
          fmt::format(
              "{} is {} on the supply's side: {} gets its control voltage less a junction, {}, and {} stay in the transistor as heat.",
              called(s.bench, d), what, called(s, m), show(Volts{std::abs(v->value)}), show(*lost)),
          {idOf(s.bench, d), idOf(s.bench, m.device)});
      f.formula = fmt::format("{} at the motor, {} lost", show(Volts{std::abs(v->value)}), show(*lost));
      f.args = {{"voltage", Volts{std::abs(v->value)}}, {"lost", *lost}};
      out.push_back(std::move(f));
    }
  };
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    if (!t.pnp) judge(d, at(s.bench, d, t.collector), at(s.bench, d, t.emitter), "an NPN transistor");
  });
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    if (!t.pChannel) judge(d, at(s.bench, d, t.drain), at(s.bench, d, t.source), "an N-channel MOSFET");
  });
  return out;
}

}  // namespace bold::checks
