#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::gate_drive {
namespace {

struct Gate {
  Margin margin;
  const parts::Mosfet* mosfet;
  int device;
  Volts vgs, row, threshold, thresholdMost;
  Amps carries;  // a typical one at this voltage, by the square law
};

std::vector<Gate> measure(const SolvedBench& s) {
  std::vector<Gate> out;
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& m) {
    for (const auto& motor : s.motors) {
      if (std::ranges::none_of(motor.reached, [&](ChannelRef r) { return r.device == d; })) continue;
      const auto* p = s.running(indexOf(s, motor), Corner::Nominal);
      if (!p || m.rds.empty() || motor.windings.empty() || m.gate.starts_with('~')) continue;
      const auto vgs = p->across(s.bench.terminal(d, m.gate), s.bench.terminal(d, m.source));
      if (!vgs || std::abs(vgs->value) < 0.5) continue;  // not driven at all is command-outcome's business
      const Volts v{std::abs(vgs->value)};
      const auto& [rowVolts, rowOhms] = m.rds.front();
      const auto& w = bench::windingOf(s.bench, motor, 0);
      const double wanted = w.run.typical().value_or(motor.still ? parts::ratedCurrent(w).value_or(0) : 0);
      const double thTyp = m.threshold.typical().value_or(rowVolts);
      const double thMax = m.threshold.greatest().value_or(rowVolts);
      const double k = 1 / (2 * rowOhms * std::max(rowVolts - thTyp, 0.1));
      const double over = std::max(v.value - thTyp, 0.0);
      const Amps carries{k * over * over};
      // Where a typical one does not carry the motor, the row itself is the stop.
      Margin margin{
          .quantity = "gate voltage",
          .subjects = {idOf(s.bench, d)},
          .unit = Unit::Volt,
          .value = v.value,
          .limits = rising(atLeast(LimitKind::Promised, Severity::Caution, rowVolts, "lowest promised row"),
                           atLeast(LimitKind::Promised, Severity::Stop, carries.value < wanted ? rowVolts : std::min(thMax, rowVolts),
                                   carries.value < wanted ? "to carry its motor" : "to open for sure", m.threshold.source)),
          .at = p};
      out.push_back({std::move(margin), &m, d, v, Volts{rowVolts}, Volts{thTyp}, Volts{thMax}, carries});
    }
  });
  return out;
}

}  // namespace

// VGS that the pin really gives against the rows that are promised; never the threshold as if it were on.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Gate& g) {
    auto f = finding(
        fmt::format("{} gets {} on its gate", called(s.bench, g.device), show(g.vgs)),
        fmt::format("{} gets {} between gate and source; its lowest promised row is {}. {}", called(s.bench, g.device), show(g.vgs),
                    show(g.row),
                    g.margin.stops() ? fmt::format("It may not open at all (threshold up to {}).", show(g.thresholdMost))
                                     : fmt::format("A typical one carries about {} there, which is not promised.", show(g.carries))),
        g.margin.subjects);
    f.ways = {{fmt::format("Take a MOSFET with a promised row at {} or below in the place of {}.", show(g.vgs), called(s.bench, g.device))},
              {fmt::format("Or lift its gate to {} by a level shifter or a transistor.", show(g.row))}};
    f.formula = fmt::format("{} < {}; K (VGS - {})² = {}", show(g.vgs), show(g.row), show(g.threshold), show(g.carries));
    f.args = {{"vgs", g.vgs}, {"row", g.row}, {"carries", g.carries}};
    f.bar = barOf(g.margin, g.row.value, "lowest promised row", {}, true);
    f.sources = sourcesOf({&g.mosfet->threshold});
    return f;
  });
}

Check check() {
  return {"gate-drive", "current", "Too little gate voltage", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::gate_drive
