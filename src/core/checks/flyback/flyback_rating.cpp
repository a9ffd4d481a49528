#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"

namespace bold::checks::flyback_rating {
namespace {

constexpr Seconds kSlow{5e-6};                              // recovery of a standard rectifier whose data sheet does not say
constexpr double kToSpare = 1.25;                           // times the voltage that it blocks
constexpr double kTooMuch = 1.5;                            // times its average current
constexpr double kShareNoted = 0.01, kShareTooMuch = 0.05;  // of a period that it may take to let go
constexpr double kOffHalf = 0.5;                            // of a period: what an intent without a cap may ask for

// A loose diode that carries a motor's current once its switch opens.
struct Clamp {
  int device;
  std::string name;
  const parts::Diode* body;
  const Motor* motor;
  Amps current;
  const OperatingPoint* opened;
};

// One of its ratings.
struct Rated {
  Margin margin;
  Finding finding;  // where it is passed
};

// @param limit as the sentence gives it
Rated rated(Margin margin, const Clamp& c, const SolvedBench& s, std::string headline, std::string text, std::string formula, double limit,
            const Figure& source) {
  margin.subjects = {idOf(s.bench, c.device)};
  auto f = finding(std::move(headline), std::move(text), margin.subjects);
  f.ways = {{"Take a diode that is made for it, such as a 1N5822 (40 V, 3 A) or an SB560 (60 V, 5 A)."}};
  f.formula = std::move(formula);
  f.args = {{"value", {margin.value.value_or(0), margin.unit}}, {"limit", {limit, margin.unit}}};
  f.bar = barOf(margin, limit, "rating");
  f.sources = sourcesOf({&source});
  return {std::move(margin), std::move(f)};
}

std::optional<double> times(double k, std::optional<double> v) {
  return v ? std::optional(k * *v) : std::nullopt;
}

std::optional<Rated> reverseVoltage(const SolvedBench& s, const Clamp& c) {
  const auto& rating = c.body->reverseVoltage;
  const auto anode = s.bench.terminal(c.device, c.body->anode);
  const auto cathode = s.bench.terminal(c.device, c.body->cathode);
  const auto back = largest(s, everyday, [&](const OperatingPoint& p) {
    const auto v = p.across(cathode, anode);
    return v ? v->value : 0;
  });
  const Volts v{back.value};
  const Volts most{rating.typical().value_or(0)};
  return rated({.quantity = "reverse voltage",
                .unit = Unit::Volt,
                .value = back.known(),
                .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, times(1 / kToSpare, rating.typical()),
                                        "a quarter to spare", rating.source),
                                 atMost(LimitKind::Absolute, Severity::Stop, rating.typical(), "rating", rating.source)),
                .at = back.point},
               c, s, fmt::format("{} is blocked against {}", c.name, show(v)),
               fmt::format("{} stands {} backwards and is blocked against {}.", c.name, show(most), show(v)),
               fmt::format("1.25 x {} > {}", show(v), show(most)), most.value, rating);
}

// A motor behind PWM freewheels for the rest of every period.
std::optional<Rated> averageCurrent(const SolvedBench& s, const Clamp& c) {
  const auto* intent = c.motor->intent;
  const auto& rating = c.body->ratedCurrent;
  if (!intent || !intent->speedControl) return std::nullopt;
  const double off = intent->dutyCap ? 1 - *intent->dutyCap : kOffHalf;
  const Amps mean = c.current * off;
  const Amps most{rating.typical().value_or(0)};
  Margin m{.quantity = "average current",
           .unit = Unit::Amp,
           .value = mean.value,
           .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rating.typical(), "rating", rating.source),
                            atMost(LimitKind::Absolute, Severity::Stop, times(kTooMuch, rating.typical()), "1.5 x rating", rating.source)),
           .at = c.opened};
  if (!intent->dutyCap) m.assumed = {"off for half of every period"};
  return rated(std::move(m), c, s, fmt::format("{} carries {} on average", c.name, show(mean)),
               fmt::format("Between the pulses {} carries the current of {}: {} on average, and it is made for {}.", c.name,
                           called(s, *c.motor), show(mean), show(most)),
               fmt::format("{:.2g} x {} = {} > {}", off, show(c.current), show(mean), show(most)), most.value, rating);
}

std::optional<Rated> surgeCurrent(const SolvedBench& s, const Clamp& c) {
  const auto* stalled = s.point(indexOf(s, *c.motor), Action::Forward, Moment::Stalled, Corner::Full);
  const auto& rating = c.body->surge;
  if (!stalled || (c.motor->intent && c.motor->intent->speedControl)) return std::nullopt;
  const Amps stall{std::abs(stalled->element(c.motor->device, c.motor->windings[0]).value)};
  const Amps most{rating.typical().value_or(0)};
  return rated({.quantity = "surge current",
                .unit = Unit::Amp,
                .value = stall.value,
                .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, rating.typical(), "rating", rating.source)),
                .at = stalled},
               c, s, fmt::format("{} takes {} in one pulse", c.name, show(stall)),
               fmt::format("Switched off while held, {} drives {} through {}, which stands {} once.", called(s, *c.motor), show(stall),
                           c.name, show(most)),
               against(stall, ">", most), most.value, rating);
}

std::optional<Rated> recoveryTime(const SolvedBench& s, const Clamp& c) {
  const auto* intent = c.motor->intent;
  if (!intent || !intent->speedControl || !intent->pwm || c.body->schottky) return std::nullopt;
  const auto& figure = c.body->recovery;
  const Hertz pwm = *intent->pwm;
  const Seconds recovery{figure.typical().value_or(kSlow.value)};
  const double share = recovery.value * pwm.value;
  Margin m{.quantity = "recovery time",
           .unit = Unit::Second,
           .value = recovery.value,
           .limits = rising(atMost(LimitKind::Recommended, Severity::Note, kShareNoted / pwm.value, "1 % of a period"),
                            atMost(LimitKind::Recommended, Severity::Caution, kShareTooMuch / pwm.value, "5 % of a period"))};
  if (!figure.known()) m.assumed = {"a standard rectifier's recovery"};
  return rated(std::move(m), c, s, fmt::format("{} is slow for {}", c.name, show(pwm)),
               fmt::format("{} takes {}{} to let go, {:.0f} % of a period at {}: it heats itself and the switch.", c.name,
                           figure.known() ? "" : "about ", show(recovery), 100 * share, show(pwm)),
               fmt::format("{} x {} = {:.1f} %", show(recovery), show(pwm), 100 * share), kShareTooMuch / pwm.value, figure);
}

std::vector<Clamp> clamps(const SolvedBench& s) {
  std::vector<Clamp> out;
  for (const auto& d : looseDiodes(s)) {
    const auto& body = std::get<parts::Diode>(s.bench.devices[d.device].part->elements[d.element].body);
    for (std::size_t k = 0; k < s.motors.size(); ++k) {
      const auto& m = s.motors[k];
      const auto* opened = justOpened(s, static_cast<int>(k));
      if (!opened || opened->element(d.device, d.element).value < 0.01 || m.windings.size() != 1) continue;
      if (!onLead(s, m, d.anode) && !onLead(s, m, d.cathode)) continue;  // it carries something else
      out.push_back({d.device, called(s.bench, d.device), &body, &m, opened->element(d.device, d.element), opened});
    }
  }
  return out;
}

}  // namespace

// The diode that clamps: its reverse voltage, its current, and how long it takes to let go.
Said judge(const SolvedBench& s) {
  std::vector<Rated> all;
  for (const auto& c : clamps(s))
    for (const auto& one : {reverseVoltage, averageCurrent, surgeCurrent, recoveryTime})
      if (auto r = one(s, c)) all.push_back(std::move(*r));
  return say(std::move(all), [](const Rated& r) { return r.finding; });
}

Check check() {
  return {"flyback-rating", "flyback", "The clamp diode's ratings", Harm::Damage, judge};
}

}  // namespace bold::checks::flyback_rating
