#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

struct Limits {
  double caution, stop;  // multiples of the winding's greatest voltage
};
constexpr Limits kBrushed{1.1, 1.8};
constexpr Limits kCoil{1.1, 1.4};

// The most a winding is meant for: stated, else phase current x resistance.
std::optional<double> greatest(const parts::Winding& w) {
  if (const auto v = w.highest.greatest()) return v;
  if (const auto v = w.nominal.greatest()) return v;
  if (w.phase.typical() && w.resistance.typical()) return *w.phase.typical() * *w.resistance.typical();
  return std::nullopt;
}

}  // namespace

// Voltage across the winding itself, after the stage's drop, at full charge. Never behind a current-regulating stage.
Findings motorOvervoltage(const SolvedBench& s) {
  Findings out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    const auto* p = s.running(static_cast<int>(m), Charge::Full);
    const bool regulated = std::ranges::any_of(motor.reached, [&](ChannelRef r) { return circuit::chopperOf(s.bench, r) != nullptr; });
    if (!p || motor.windings.empty() || regulated) continue;
    double worst = 0;
    for (std::size_t i = 0; i < motor.windings.size(); ++i) {
      const auto& w = circuit::windingOf(s.bench, motor, i);
      const auto v = p->across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
      const bool fed = std::abs(p->element(motor.device, motor.windings[i]).value) > 1e-3;
      if (v && fed) worst = std::max(worst, std::abs(v->value));
    }
    const auto& w = circuit::windingOf(s.bench, motor, 0);
    const auto most = greatest(w);
    if (!most || worst <= 0) continue;
    const double duty = motor.intent && motor.intent->dutyCap ? *motor.intent->dutyCap : 1;
    const Volts v{worst * duty};
    const auto& limits = w.brushed ? kBrushed : kCoil;
    if (v.value <= limits.caution * *most) continue;
    const bool stop = v.value > limits.stop * *most;
    auto f = finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} gets {}", called(s, motor), show(v)),
                     fmt::format("{} gets {} while running; it is made for {} at most.", called(s, motor), show(v), show(Volts{*most})),
                     {idOf(s.bench, motor.device)});
    f.formula = fmt::format("{} > {:.1f} x {}", show(v), stop ? limits.stop : limits.caution, show(Volts{*most}));
    if (duty < 1) f.formula += fmt::format(" (duty held to {:.0f} %)", duty * 100);
    f.args = {{"voltage", v}, {"limit", Volts{*most}}};
    f.bar = Bar{"voltage while running", v, {}, Volts{*most}, "greatest"};
    f.sources = sourcesOf({&w.highest, &w.resistance});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
