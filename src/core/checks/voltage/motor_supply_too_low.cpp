#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::motor_supply_too_low {
namespace {

constexpr double kClearly = 0.95;  // of its least
constexpr double kNothing = 0.5;   // V below which there is no supply at all

struct Low {
  Margins margins;  // nominal charge, nearly empty
  TerminalIndex supply;
  const Motor* motor;
};

// A little below what is promised it will mostly work all the same: a stop is for what is clearly below.
std::vector<Limit> limitsOf(const Figure& window, Severity severity) {
  if (severity != Severity::Stop) return {atLeast(LimitKind::Recommended, severity, window.min, "least", window.source)};
  std::optional<double> clearly;
  if (window.min) clearly = kClearly * *window.min;
  return rising(atLeast(LimitKind::Recommended, Severity::Caution, window.min, "least", window.source),
                atLeast(LimitKind::Promised, Severity::Stop, clearly, "clearly below its least", window.source));
}

Margin marginOf(const SolvedBench& s, TerminalIndex t, const OperatingPoint& p, std::string quantity, Severity severity) {
  const auto& supply = *s.bench.facts(t).supply;
  return {.quantity = std::move(quantity),
          .subjects = {s.bench.address(t)},
          .unit = Unit::Volt,
          .value = p.across(t, s.bench.terminal(s.bench.deviceOf(t), supply.back)).value_or(Volts{0}).value,
          .limits = limitsOf(supply.recommended, severity),
          .at = &p};
}

bool past(const Low& m) {
  return m.margins.front().passed() || m.margins.back().passed();
}

// The first of its motors that the supply is too low for, else the first.
std::optional<Low> measure(const SolvedBench& s, TerminalIndex t) {
  const int d = s.bench.deviceOf(t);
  std::optional<Low> first;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    bool uses = motor.device == d;
    for (const auto& r : motor.reached) uses = uses || r.device == d;
    const auto* nominal = uses ? s.running(static_cast<int>(m), Corner::Nominal) : nullptr;
    if (!nominal) continue;
    Low low{{marginOf(s, t, *nominal, "supply while running", Severity::Stop)}, t, &motor};
    if (const auto* empty = s.running(static_cast<int>(m), Corner::Empty))
      low.margins.push_back(marginOf(s, t, *empty, "supply while running, nearly empty", onceEmpty(s)));
    if (past(low)) return low;
    if (!first) first = std::move(low);
  }
  return first;
}

std::vector<Low> measure(const SolvedBench& s) {
  std::vector<Low> out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    const bool asks = supply && supply->purpose == parts::SupplyFor::Motor && supply->recommended.min;
    if (!asks || isServo(s, s.bench.deviceOf(t))) continue;  // servo-supply speaks of those
    if (auto low = measure(s, t)) out.push_back(std::move(*low));
  }
  return out;
}

}  // namespace

// A used stage below its least motor supply, at nominal charge while its motor runs; only when empty it is a caution.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Low& m) {
    const bool atNominal = m.margins.front().passed() != nullptr;
    const auto& margin = atNominal ? m.margins.front() : m.margins.back();
    const Volts v{*margin.value};
    const Volts least{*s.bench.facts(m.supply).supply->recommended.min};
    const bool none = m.margins.front().stops() && v.value < kNothing;
    const auto name = s.bench.called(m.supply);
    auto f =
        finding(none ? fmt::format("{} has no supply", name) : fmt::format("{} gets only {}", name, show(v)),
                none ? fmt::format("Nothing feeds {}: {} cannot move.", name, called(s, *m.motor))
                     : fmt::format("{} gets {} {} while {} runs; it needs {}.", name, show(v),
                                   atNominal ? "at nominal charge" : "once the supply is nearly empty", called(s, *m.motor), show(least)),
                margin.subjects);
    f.ways = {{none ? fmt::format("Wire {} to a supply of {} or more.", name, show(least))
                    : fmt::format("Take a supply that holds {} or more there, or a stage that works with {}.", show(least), show(v))}};
    f.formula = against(v, "<", least);
    f.args = {{"voltage", v}, {"least", least}};
    f.bar = Bar{"supply while running", v, {}, least, "least", true};
    f.sources = sourcesOf({&s.bench.facts(m.supply).supply->recommended});
    return f;
  });
}

Check check() {
  return {"motor-supply-too-low", "voltage", "Motor supply too low for the stage", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::motor_supply_too_low
