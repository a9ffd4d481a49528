#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::step_rate {
namespace {
constexpr double kFarAbove = 2;     // times the knee
constexpr double kStartStop = 500;  // full steps/s that a small stepper starts from standstill at most

double stepsPerFull(const SolvedBench& s, const Motor& m) {
  const auto* steps = s.bench.devices[m.device].part->figure("steps");
  if (!m.intent->stepsPerTurn || !steps || !steps->figure.typical()) return 1;
  return std::max(1.0, *m.intent->stepsPerTurn / *steps->figure.typical());
}
struct Rate {
  Margins margins;  // against the knee, against a start from standstill
  const Motor* motor;
  const parts::Winding* winding;
  double full;  // full steps/s
  double amps = 0;
  Volts supply{};
  std::optional<double> knee{};
};

// The rate at which the supply can still force the current through the winding's inductance.
void findKnee(const SolvedBench& s, Rate& m) {
  const auto& motor = *m.motor;
  const auto& w = *m.winding;
  const auto* p = s.running(indexOf(s, motor), Corner::Nominal);
  const auto* c = motor.meant.device < 0 ? nullptr : bench::chopperOf(s.bench, motor.meant);
  if (!p || !c) return;
  m.amps = std::abs(p->element(motor.device, motor.windings[0]).value);
  const auto volts = p->across(at(s.bench, motor.meant.device, c->supply), at(s.bench, motor.meant.device, c->ground));
  if (!volts || m.amps <= 0.01) return;
  m.supply = *volts;
  const auto l = w.inductance.typical();
  const auto r = w.resistance.typical();
  if (l && r) m.knee = (volts->value - m.amps * *r) / (2 * *l * m.amps);
  m.margins.push_back(
      {.quantity = "full steps a second",
       .subjects = {idOf(s.bench, motor.device)},
       .unit = Unit::Hertz,
       .value = m.full,
       .limits = rising(atMost(LimitKind::Recommended, Severity::Note, m.knee, "knee", w.inductance.source),
                        atMost(LimitKind::Recommended, Severity::Caution, m.knee ? std::optional(kFarAbove * *m.knee) : std::nullopt,
                               "2 x knee", w.inductance.source)),
       .at = p});
}

std::vector<Rate> measure(const SolvedBench& s) {
  std::vector<Rate> out;
  for (const auto& motor : s.motors) {
    if (!motor.intent || !motor.intent->rate || motor.windings.empty() || motor.kind == MotorKind::TwoLead) continue;
    Rate m{{}, &motor, &bench::windingOf(s.bench, motor, 0), motor.intent->rate->value / stepsPerFull(s, motor)};
    findKnee(s, m);
    if (!motor.intent->ramp)
      m.margins.push_back({.quantity = "full steps a second from standstill",
                           .subjects = {idOf(s.bench, motor.device)},
                           .unit = Unit::Hertz,
                           .value = m.full,
                           .limits = rising(atMost(LimitKind::Recommended, Severity::Note, kStartStop, "what a small stepper follows"))});
    out.push_back(std::move(m));
  }
  return out;
}

Finding weak(const SolvedBench& s, const Rate& m) {
  const auto& name = called(s, *m.motor);
  const auto& w = *m.winding;
  auto f = finding(
      fmt::format("{} is weak at {:.0f} steps/s", name, m.full),
      fmt::format("Above {:.0f} full steps/s {} cannot force {} into the coils of {} any more; {:.0f} are planned: its torque falls.",
                  *m.knee, show(m.supply), show(Amps{m.amps}), name, m.full),
      m.margins[0].subjects);
  f.ways = {{fmt::format("Plan {:.0f} full steps/s at most, or take a higher supply.", *m.knee), fieldOf(s, *m.motor, "rate")}};
  f.formula = fmt::format("({} - {} x {}) / (2 x {} x {}) = {:.0f} full steps/s", show(m.supply), show(Amps{m.amps}),
                          show(Ohms{*w.resistance.typical()}), show(Henries{*w.inductance.typical()}), show(Amps{m.amps}), *m.knee);
  f.args = {{"rate", Hertz{m.full}}, {"knee", Hertz{*m.knee}}};
  f.bar = barOf(m.margins[0], *m.knee, "knee");
  f.sources = sourcesOf({&w.inductance, &w.resistance});
  return f;
}

}  // namespace

// The rate of the intent against the rate at which the supply can still force the current, and against a start from standstill.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Rate& m) {
    if (m.knee && m.full > *m.knee) return weak(s, m);
    auto f =
        finding(fmt::format("{} needs a ramp", called(s, *m.motor)),
                fmt::format("{:.0f} full steps/s from standstill is more than a small stepper follows: start slower and speed up.", m.full),
                m.margins[0].subjects);
    f.ways = {{fmt::format("Let the program begin below {:.0f} full steps/s and speed up.", kStartStop), fieldOf(s, *m.motor, "rate")}};
    f.formula = fmt::format("{:.0f} > {:.0f} full steps/s", m.full, kStartStop);
    return f;
  });
}

Check check() {
  return {"step-rate", "steppers", "The step rate", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::step_rate
