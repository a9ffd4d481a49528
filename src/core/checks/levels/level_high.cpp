#include <fmt/core.h>

#include <map>

#include "core/checks/levels/reading.h"

namespace bold::checks {
namespace {

constexpr double kThin = 0.2;  // V of margin below which it is worth a note

struct High {
  Margin margin;
  TerminalIndex input, pin;
  Reading reading;
};

Margin marginOf(const SolvedBench& s, TerminalIndex input, const InputsOfPins::Worst& w) {
  const auto& r = w.reading;
  return {.quantity = "high level",
          .subjects = {s.bench.address(input), s.bench.address(w.pin)},
          .unit = Unit::Volt,
          .value = r.volts.value,
          .limits = rising(atLeast(LimitKind::Promised, Severity::Note, r.high.value + kThin, "0.2 V to spare"),
                           atLeast(LimitKind::Promised, Severity::Caution, r.high.value, "least for high"),
                           atLeast(LimitKind::Promised, Severity::Stop, (r.low.value + r.high.value) / 2, "read as low")),
          .from = r.rail ? std::optional(r.rail->value) : std::nullopt,
          .at = w.point};
}

std::vector<High> measure(const SolvedBench& s) {
  std::vector<High> out;
  for (const auto& [t, w] : InputsOfPins(s).worst(circuit::PinState::High, [](const Reading& r) { return (r.volts - r.high).value; }))
    out.push_back({marginOf(s, t, w), t, w.pin, w.reading});
  return out;
}

}  // namespace

// What a pin written high really gives at the stage's input, against that stage's own ground.
Said levelHigh(const SolvedBench& s) {
  return say(measure(s), [&](const High& m) {
    const auto& r = m.reading;
    const auto severity = m.margin.passed()->consequence;
    auto f = finding(fmt::format("{} sees {} for high", s.bench.called(m.input), show(r.volts)),
                     fmt::format("{} written high gives {} at {}; high is promised from {}{}.", s.bench.called(m.pin), show(r.volts),
                                 s.bench.called(m.input), show(r.high),
                                 severity == Severity::Stop      ? ", and this will be read as low"
                                 : severity == Severity::Caution ? ": it will often work, but nobody promises it"
                                                                 : ", so little is left"),
                     m.margin.subjects);
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.highLevels(), show(r.high));
    f.args = {{"voltage", r.volts}, {"high", r.high}, {"low", r.low}};
    f.bar = barOf(m.margin, r.high.value, "least for high", {}, true);
    return f;
  });
}

}  // namespace bold::checks
