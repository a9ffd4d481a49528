#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {

// VGS that the pin really gives against the rows that are promised; never the threshold as if it were on.
Findings gateDrive(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& m) {
    for (const auto& motor : s.motors) {
      if (std::ranges::none_of(motor.reached, [&](ChannelRef r) { return r.device == d; })) continue;
      const auto* p = s.running(indexOf(s, motor), Charge::Nominal);
      if (!p || m.rds.empty() || motor.windings.empty() || m.gate.starts_with('~')) continue;
      const auto vgs = p->across(s.bench.terminal(d, m.gate), s.bench.terminal(d, m.source));
      if (!vgs) continue;
      const Volts v{std::abs(vgs->value)};
      const auto& [rowVolts, rowOhms] = m.rds.front();
      if (v.value < 0.5 || v.value >= rowVolts) continue;  // not driven at all is command-outcome's business
      const auto& w = circuit::windingOf(s.bench, motor, 0);
      const double wanted = w.run.typical().value_or(0);
      const double thTyp = m.threshold.typical().value_or(rowVolts);
      const double thMax = m.threshold.greatest().value_or(rowVolts);
      const double k = 1 / (2 * rowOhms * std::max(rowVolts - thTyp, 0.1));
      const double over = std::max(v.value - thTyp, 0.0);
      const Amps carries{k * over * over};
      const bool stop = v.value < thMax || carries.value < wanted;
      auto f = finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} gets {} on its gate", called(s.bench, d), show(v)),
                       fmt::format("{} gets {} between gate and source; its lowest promised row is {}. {}", called(s.bench, d), show(v),
                                   show(Volts{rowVolts}),
                                   stop ? fmt::format("It may not open at all (threshold up to {}).", show(Volts{thMax}))
                                        : fmt::format("A typical one carries about {} there, which is not promised.", show(carries))),
                       {idOf(s.bench, d)});
      f.formula = fmt::format("{} < {}; K (VGS - {})² = {}", show(v), show(Volts{rowVolts}), show(Volts{thTyp}), show(carries));
      f.args = {{"vgs", v}, {"row", Volts{rowVolts}}, {"carries", carries}};
      f.bar = Bar{"gate voltage", v, {}, Volts{rowVolts}, "lowest promised row", true};
      f.sources = sourcesOf({&m.threshold});
      out.push_back(std::move(f));
    }
  });
  return out;
}

}  // namespace bold::checks
