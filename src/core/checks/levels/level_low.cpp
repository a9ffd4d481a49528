#include <fmt/core.h>

#include <map>

#include "core/checks/check.h"
#include "core/checks/levels/reading.h"
#include "core/checks/queries.h"

namespace bold::checks::level_low {
namespace {

constexpr double kThin = 0.2;  // V of margin below which it is worth a note

struct Low {
  Margins margins;  // as solved; with the input's rail at its lower end, where a regulator makes it
  TerminalIndex input, pin;
  Reading reading;
  const OperatingPoint* point;
};

Margin marginOf(const SolvedBench& s, TerminalIndex input, const InputsOfPins::Worst& w) {
  const auto& r = w.reading;
  return {.quantity = "low level",
          .subjects = {s.bench.address(input), s.bench.address(w.pin)},
          .unit = Unit::Volt,
          .value = r.volts.value,
          .limits = rising(atMost(LimitKind::Promised, Severity::Note, r.low.value - kThin, "0.2 V to spare"),
                           atMost(LimitKind::Promised, Severity::Caution, r.low.value, "most for low"),
                           atMost(LimitKind::Promised, Severity::Stop, (r.low.value + r.high.value) / 2, "read as high")),
          .at = w.point};
}

std::vector<Low> measure(const SolvedBench& s) {
  std::vector<Low> out;
  for (const auto& [t, w] : InputsOfPins(s).worst(bench::PinState::Low, [](const Reading& r) { return (r.low - r.volts).value; })) {
    out.push_back({{marginOf(s, t, w)}, t, w.pin, w.reading, w.point});
    const auto ends = railEnds(s, w.pin, t);
    if (ends.inputLow < 1)
      out.back().margins.push_back(
          {.quantity = "low level, rail at its lower end",
           .subjects = out.back().margins[0].subjects,
           .unit = Unit::Volt,
           .value = w.reading.volts.value,
           .limits = rising(atMost(LimitKind::Promised, Severity::Caution, w.reading.low.value * ends.inputLow, "most for low")),
           .at = w.point});
  }
  return out;
}

}  // namespace

// What a pin written low really leaves at the stage's input, against that stage's own ground.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Low& m) {
    const auto& r = m.reading;
    const bool asSolved = m.margins[0].passed() && m.margins[0].passed()->consequence != Severity::Note;
    const bool atEnd = !asSolved && m.margins.size() > 1 && m.margins[1].passed();
    const auto& margin = m.margins[atEnd ? 1 : 0];
    const auto severity = margin.passed()->consequence;
    const Volts low{atEnd ? *margin.passed()->most : r.low.value};
    auto f = finding(
        fmt::format("{} sees {} for low", s.bench.called(m.input), show(r.volts)),
        fmt::format("With {} {} written low leaves {} at {}; low is promised up to {}{}{}.", during(*m.point), s.bench.called(m.pin),
                    show(r.volts), s.bench.called(m.input), show(low), atEnd ? " while its rail is at its lower end" : "",
                    severity == Severity::Stop      ? ", and this will be read as high"
                    : severity == Severity::Caution ? ": it will often work, but nobody promises it"
                                                    : ", so little is left"),
        m.margins[0].subjects);
    f.ways = {{fmt::format("Take a smaller resistor between {} and {}, or a larger pull-up there.", s.bench.called(m.pin),
                           s.bench.called(m.input))}};
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.lowLevels(), show(r.low));
    f.args = {{"voltage", r.volts}, {"low", r.low}, {"high", r.high}};
    f.bar = barOf(margin, low.value, "most for low");
    return f;
  });
}

Check check() {
  return {"level-low", "levels", "A low that is not read as low", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::level_low
