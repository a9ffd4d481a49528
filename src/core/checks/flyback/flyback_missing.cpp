#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/flyback/clamp.h"
#include "core/checks/plan.h"

namespace bold::checks {
namespace {

constexpr double kArc = 0.05;  // share of the current that finds no path but an arc

// The diode that carries the motor's current at this supply.
std::string diodeFor(Amps run) {
  return run.value <= 1.0 ? "diode-1n5819" : "diode-1n5822";
}

// The switches of the coils that were on.
void addSwitches(const SolvedBench& s, const Motor& m, const OperatingPoint& p, std::vector<std::string>& subjects) {
  for (std::size_t k = 0; k < m.windings.size(); ++k) {
    if (std::abs(p.element(m.device, m.windings[k]).value) < 1e-3) continue;
    const auto& w = circuit::windingOf(s.bench, m, k);
    for (const auto& ref : m.reached)
      for (const auto& out : circuit::channelOf(s.bench, ref).out) {
        const auto t = s.bench.terminal(ref.device, out);
        const bool here = s.nets.same(t, s.bench.terminal(m.device, w.a)) || s.nets.same(t, s.bench.terminal(m.device, w.b));
        if (here && std::ranges::count(subjects, idOf(s.bench, ref.device)) == 0) subjects.push_back(idOf(s.bench, ref.device));
      }
  }
}

struct Opened {
  Margin margin;
  const Motor* motor;
  const OperatingPoint* point;
  std::size_t winding;  // the one that carries most
  Amps current;
};

std::vector<Opened> measure(const SolvedBench& s) {
  std::vector<Opened> out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    const auto* p = worstOpened(s, static_cast<int>(m));
    if (!p) continue;
    const auto most = std::ranges::max_element(motor.windings, {}, [&](int e) { return std::abs(p->element(motor.device, e).value); });
    out.push_back({{.quantity = "share of the current without a path",
                    .subjects = {idOf(s.bench, motor.device)},
                    .value = p->arcShare(static_cast<int>(m)),
                    .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, kArc, "what finds no path but an arc")),
                    .at = p},
                   &motor,
                   p,
                   static_cast<std::size_t>(most - motor.windings.begin()),
                   Amps{std::abs(p->element(motor.device, *most).value)}});
  }
  return out;
}

std::optional<Repair> fitDiode(const SolvedBench& s, const Opened& m) {
  const auto& motor = *m.motor;
  const auto lead = supplyLead(s, motor);
  if (lead < 0 || motor.kind != MotorKind::Brushed) return std::nullopt;
  const auto& w = circuit::windingOf(s.bench, motor, m.winding);
  const auto a = s.bench.terminal(motor.device, w.a);
  const auto other = lead == a ? s.bench.terminal(motor.device, w.b) : a;
  Plan plan(s.bench);
  const auto part = diodeFor(m.current);
  const auto diode = plan.device(part, "d", s.bench.devices[static_cast<std::size_t>(motor.device)].doc.group);
  plan.wire({diode, "K"}, addressOf(s.bench, lead), "RD").wire({diode, "A"}, addressOf(s.bench, other), "BK");
  return plan.repair(fmt::format("Fit a {} across {}: band to {}, anode to {}.", part == "diode-1n5819" ? "1N5819" : "1N5822",
                                 called(s, motor), s.bench.called(lead), s.bench.called(other)));
}

}  // namespace

// The moment a switch opens: the winding's current must find a clamped path.
Said flybackMissing(const SolvedBench& s) {
  return say(measure(s), [&](const Opened& m) {
    const auto& motor = *m.motor;
    auto subjects = m.margin.subjects;
    std::string stage = "its switch";
    if (motor.reached.size() == 1) {
      stage = circuit::called(s.bench, motor.reached.front());
      subjects.push_back(idOf(s.bench, motor.reached.front().device));
    } else if (motor.kind == MotorKind::UnipolarStepper) {
      addSwitches(s, motor, *m.point, subjects);
    }
    auto f = finding(fmt::format("{} has no flyback path", called(s, motor)),
                     fmt::format("When {} opens, the {} through {} have nowhere to go: the voltage rises until something breaks down.",
                                 stage, show(m.current), called(s, motor)),
                     subjects);
    f.formula = fmt::format("{:.0f} % of {} find no path", 100 * *m.margin.value, show(m.current));
    f.args = {{"current", m.current}};
    f.sources = sourcesOf({&circuit::windingOf(s.bench, motor, m.winding).run});
    f.repair = fitDiode(s, m);
    return f;
  });
}

}  // namespace bold::checks
