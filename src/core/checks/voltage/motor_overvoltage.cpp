#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_overvoltage {
namespace {

struct Limits {
  double caution, stop;  // multiples of the winding's greatest voltage
  std::string_view cautionName, stopName;
};
constexpr Limits kBrushed{1.1, 1.8, "1.1 x greatest", "1.8 x greatest"};
// What turns nothing makes no voltage of its own either: its heat goes with the square.
constexpr Limits kCoil{1.1, 1.4, "1.1 x greatest", "1.4 x greatest"};

// The most a winding is meant for: stated, else phase current x resistance.
std::optional<double> greatest(const parts::Winding& w) {
  if (const auto v = w.highest.greatest()) return v;
  if (const auto v = w.nominal.greatest()) return v;
  if (w.phase.typical() && w.resistance.typical()) return *w.phase.typical() * *w.resistance.typical();
  return std::nullopt;
}

struct AtMotor {
  Margin margin;
  const Motor* motor;
  Volts most;
  double duty;
  Limits limits;
};

std::vector<AtMotor> measure(const SolvedBench& s) {
  std::vector<AtMotor> out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    const auto* p = s.running(static_cast<int>(m), Corner::Full);
    const bool regulated = std::ranges::any_of(motor.reached, [&](ChannelRef r) { return bench::chopperOf(s.bench, r) != nullptr; });
    if (!p || motor.windings.empty() || regulated) continue;
    double worst = 0;
    for (std::size_t i = 0; i < motor.windings.size(); ++i) {
      const auto& w = bench::windingOf(s.bench, motor, i);
      const auto v = p->across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
      const bool fed = std::abs(p->element(motor.device, motor.windings[i]).value) > 1e-3;
      if (v && fed) worst = std::max(worst, std::abs(v->value));
    }
    if (worst <= 0) continue;
    const auto& w = bench::windingOf(s.bench, motor, 0);
    const auto most = greatest(w);
    const double duty = dutyOf(motor);
    const auto& limits = w.brushed ? kBrushed : kCoil;
    const auto times = [&](double k) { return most ? std::optional(k * *most) : std::nullopt; };
    Margin margin{
        .quantity = "voltage while running",
        .subjects = {idOf(s.bench, motor.device)},
        .unit = Unit::Volt,
        .value = worst * duty,
        .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, times(limits.caution), limits.cautionName, w.highest.source),
                         atMost(LimitKind::Absolute, Severity::Stop, times(limits.stop), limits.stopName, w.highest.source)),
        .at = p};
    if (duty < 1) margin.assumed = {fmt::format("duty held to {:.0f} %", duty * 100)};
    out.push_back({std::move(margin), &motor, Volts{most.value_or(0)}, duty, limits});
  }
  return out;
}

}  // namespace

// Voltage across the winding itself, after the stage's drop, at full charge. Never behind a current-regulating stage.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const AtMotor& m) {
    const Volts v{*m.margin.value};
    const auto& name = called(s, *m.motor);
    auto f = finding(fmt::format("{} gets {}", name, show(v)),
                     fmt::format("{} gets {} while running; it is made for {} at most.", name, show(v), show(m.most)), m.margin.subjects);
    f.ways = {{fmt::format("Hold the duty of {} to {:.0f} % at most, in the program, and state it.", name,
                           std::floor(100 * m.duty * m.most.value / v.value)),
               fieldOf(s, *m.motor, "duty"), fmt::format("{:.2f}", std::floor(100 * m.duty * m.most.value / v.value) / 100)},
              {fmt::format("Or take a supply that leaves it {} at most.", show(m.most))}};
    f.formula = fmt::format("{} > {:.1f} x {}", show(v), m.margin.stops() ? m.limits.stop : m.limits.caution, show(m.most));
    if (m.duty < 1) f.formula += fmt::format(" (duty held to {:.0f} %)", m.duty * 100);
    f.args = {{"voltage", v}, {"limit", m.most}};
    f.bar = barOf(m.margin, m.most.value, "greatest");
    const auto& w = bench::windingOf(s.bench, *m.motor, 0);
    f.sources = sourcesOf({&w.highest, &w.resistance});
    return f;
  });
}

Check check() {
  return {"motor-overvoltage", "voltage", "Too many volts for the motor", Harm::Damage, judge};
}

}  // namespace bold::checks::motor_overvoltage
