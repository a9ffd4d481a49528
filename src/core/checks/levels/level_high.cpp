#include <fmt/core.h>

#include <map>

#include "core/checks/check.h"
#include "core/checks/levels/reading.h"

namespace bold::checks::level_high {
namespace {

constexpr double kThin = 0.2;  // V of margin below which it is worth a note

struct High {
  Margins margins;  // as solved; with the pin's rail at its lower end and the input's at its upper
  TerminalIndex input, pin;
  Reading reading;
  RailEnds ends;
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
  for (const auto& [t, w] : InputsOfPins(s).worst(bench::PinState::High, [](const Reading& r) { return (r.volts - r.high).value; })) {
    High m{{marginOf(s, t, w)}, t, w.pin, w.reading, railEnds(s, w.pin, t)};
    if (m.ends.apart())
      m.margins.push_back(
          {.quantity = "high level, rails at their ends",
           .subjects = m.margins[0].subjects,
           .unit = Unit::Volt,
           .value = w.reading.volts.value * m.ends.pin,
           .limits = rising(atLeast(LimitKind::Promised, Severity::Caution, w.reading.high.value * m.ends.input, "least for high")),
           .at = w.point});
    out.push_back(std::move(m));
  }
  return out;
}

Finding atEnds(const SolvedBench& s, const High& m) {
  const Volts gives{*m.margins[1].value};
  const Volts least{*m.margins[1].passed()->least};
  auto f = finding(
      fmt::format("{} sees as little as {} for high", s.bench.called(m.input), show(gives)),
      fmt::format("{} written high gives {} at {}{}; high is promised from {}{}: some boards of this kind work, some do not.",
                  s.bench.called(m.pin), show(gives), s.bench.called(m.input), m.ends.pin < 1 ? " while its rail is at its lower end" : "",
                  show(least), m.ends.input > 1 ? " while that rail is at its upper end" : ""),
      m.margins[1].subjects);
  f.ways = {{fmt::format("Put a level shifter between {} and {}, or take a stage that reads {} as high.", s.bench.called(m.pin),
                         s.bench.called(m.input), show(gives))}};
  f.formula = against(gives, "<", least);
  f.args = {{"voltage", gives}, {"high", least}};
  f.bar = barOf(m.margins[1], least.value, "least for high", {}, true);
  return f;
}

}  // namespace

// What a pin written high really gives at the stage's input, against that stage's own ground.
Said judge(const SolvedBench& s) {
  return asOne(say(measure(s), [&](const High& m) {
    const auto& r = m.reading;
    if (!m.margins[0].passed()) return atEnds(s, m);
    const auto severity = m.margins[0].passed()->consequence;
    if (severity == Severity::Note && m.margins.size() > 1 && m.margins[1].passed()) return atEnds(s, m);
    auto f = finding(fmt::format("{} sees {} for high", s.bench.called(m.input), show(r.volts)),
                     fmt::format("{} written high gives {} at {}; high is promised from {}{}.", s.bench.called(m.pin), show(r.volts),
                                 s.bench.called(m.input), show(r.high),
                                 severity == Severity::Stop      ? ", and this will be read as low"
                                 : severity == Severity::Caution ? ": it will often work, but nobody promises it"
                                                                 : ", so little is left"),
                     m.margins[0].subjects);
    f.ways = {{fmt::format("Put a level shifter between {} and {}, or take a stage that reads {} as high.", s.bench.called(m.pin),
                           s.bench.called(m.input), show(r.volts))}};
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.highLevels(), show(r.high));
    f.args = {{"voltage", r.volts}, {"high", r.high}, {"low", r.low}};
    f.bar = barOf(m.margins[0], r.high.value, "least for high", {}, true);
    return f;
  }));
}

Check check() {
  return {"level-high", "levels", "A high that is not read as high", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::level_high
