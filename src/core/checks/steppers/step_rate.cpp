#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kStartStop = 500;  // full steps/s that a small stepper starts from standstill at most

double stepsPerFull(const SolvedBench& s, const Motor& m) {
  const auto* steps = s.bench.devices[static_cast<std::size_t>(m.device)].part->figure("steps");
  if (!m.intent->stepsPerTurn || !steps || !steps->figure.typical()) return 1;
  return std::max(1.0, *m.intent->stepsPerTurn / *steps->figure.typical());
}
}  // namespace

// The planned rate against the rate at which the supply can still force the current, and against a start from standstill.
Findings stepRate(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (!m.intent || !m.intent->rate || m.windings.empty() || m.kind == MotorKind::Brushed) continue;
    const double full = m.intent->rate->value / stepsPerFull(s, m);
    const auto& w = circuit::windingOf(s.bench, m, 0);
    const auto* p = s.running(static_cast<int>(k), Charge::Nominal);
    const auto* c = m.meant.device < 0 ? nullptr : circuit::chopperOf(s.bench, m.meant);
    const auto l = w.inductance.typical();
    const auto r = w.resistance.typical();
    const double amps = p ? std::abs(p->element(m.device, m.windings[0]).value) : 0;
    std::optional<Volts> volts;
    if (p && c) volts = p->across(at(s.bench, m.meant.device, c->supply), at(s.bench, m.meant.device, c->ground));
    if (l && r && volts && amps > 0.01) {
      const double knee = (volts->value - amps * *r) / (2 * *l * amps);
      if (full > knee) {
        auto f = finding(
            full > 2 * knee ? Severity::Caution : Severity::Note, fmt::format("{} is weak at {:.0f} steps/s", called(s, m), full),
            fmt::format("Above {:.0f} full steps/s {} cannot force {} into the coils of {} any more; {:.0f} are planned: its torque falls.",
                        knee, show(*volts), show(Amps{amps}), called(s, m), full),
            {idOf(s.bench, m.device)});
        f.formula = fmt::format("({} - {} x {}) / (2 x {} x {}) = {:.0f} full steps/s", show(*volts), show(Amps{amps}), show(Ohms{*r}),
                                show(Henries{*l}), show(Amps{amps}), knee);
        f.args = {{"rate", Hertz{full}}, {"knee", Hertz{knee}}};
        f.bar = Bar{"full steps a second", Hertz{full}, {}, Hertz{knee}, "knee"};
        f.sources = sourcesOf({&w.inductance, &w.resistance});
        out.push_back(std::move(f));
        continue;
      }
    }
    if (full > kStartStop && !m.intent->ramp) {
      auto f =
          finding(Severity::Note, fmt::format("{} needs a ramp", called(s, m)),
                  fmt::format("{:.0f} full steps/s from standstill is more than a small stepper follows: start slower and speed up.", full),
                  {idOf(s.bench, m.device)});
      f.formula = fmt::format("{:.0f} > {:.0f} full steps/s", full, kStartStop);
      out.push_back(std::move(f));
    }
  }
  return out;
}

}  // namespace bold::checks
