#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::step_timing {
namespace {

struct Timing {
  Margins margins;  // the pulse, the rate
  const Motor* motor;
  const parts::Chopper* chopper;
};

std::vector<Timing> measure(const SolvedBench& s) {
  std::vector<Timing> out;
  for (const auto& m : s.motors) {
    if (!m.intent || m.meant.device < 0) continue;
    const auto* c = bench::chopperOf(s.bench, m.meant);
    const auto high = c ? c->stepHigh.greatest() : std::nullopt;
    const auto low = c ? c->stepLow.greatest() : std::nullopt;
    if (!high || !low) continue;
    const std::vector subjects{idOf(s.bench, m.meant.device), idOf(s.bench, m.device)};
    Timing t{{}, &m, c};
    if (m.intent->pulse)
      t.margins.push_back({.quantity = "step pulse",
                           .subjects = subjects,
                           .unit = Unit::Second,
                           .value = m.intent->pulse->value,
                           .limits = rising(atLeast(LimitKind::Promised, Severity::Stop, high, "least", c->stepHigh.source))});
    if (m.intent->rate)
      t.margins.push_back(
          {.quantity = "step rate",
           .subjects = subjects,
           .unit = Unit::Hertz,
           .value = m.intent->rate->value,
           .limits = rising(atMost(LimitKind::Promised, Severity::Stop, 1 / (*high + *low), "greatest", c->stepHigh.source))});
    out.push_back(std::move(t));
  }
  return out;
}

}  // namespace

// The step pulse of the intent against what the stage can follow.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Timing& m) {
    const auto& stage = called(s.bench, m.motor->meant.device);
    const auto& intent = *m.motor->intent;
    const Seconds high{*m.chopper->stepHigh.greatest()};
    const Seconds low{*m.chopper->stepLow.greatest()};
    const bool tooShort = intent.pulse && *intent.pulse < high;
    auto f = finding(
        tooShort ? fmt::format("The step pulse of {} is too short", called(s, *m.motor))
                 : fmt::format("{} cannot follow {}", stage, show(*intent.rate)),
        tooShort ? fmt::format("The plan makes step pulses of {}; {} needs {}: it will miss some.", show(*intent.pulse), stage, show(high))
                 : fmt::format("{} pulses a second are planned; {} follows {} at most.", show(*intent.rate), stage,
                               show(Hertz{1 / (high + low).value})),
        m.margins[0].subjects);
    f.ways = {{tooShort ? fmt::format("Make the step pulse {} or longer.", show(high))
                        : fmt::format("Plan {} at most.", show(Hertz{1 / (high + low).value})),
               fieldOf(s, *m.motor, tooShort ? "pulse" : "rate")}};
    f.formula = tooShort ? against(*intent.pulse, "<", high) : fmt::format("{} > 1 / ({} + {})", show(*intent.rate), show(high), show(low));
    f.sources = sourcesOf({&m.chopper->stepHigh});
    return f;
  });
}

Check check() {
  return {"step-timing", "steppers", "Step pulses too short or too fast", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::step_timing
