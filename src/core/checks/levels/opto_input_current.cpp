#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::opto_input_current {
namespace {

constexpr double kOver = 1.25;     // times the LED's greatest
constexpr double kFarBelow = 0.6;  // of what on is promised from
constexpr double kMeter = 0.3;     // V that a reverse voltage may be past its rating before it counts

struct Led {
  Margins margins;  // its current, its voltage backwards
  OptoInput input;
  Volts reverse;
};

std::vector<Led> measure(const SolvedBench& s) {
  std::vector<Led> out;
  for (const auto& o : optoInputs(s)) {
    const auto reverse = largest(s, everyday, [&](const OperatingPoint& p) {
      const auto v = p.across(o.minus, o.plus);
      return v ? v->value : 0;
    });
    const auto times = [](const Figure& f, double k) { return f.typical() ? std::optional(k * *f.typical()) : std::nullopt; };
    const auto plus = [](const Figure& f, double v) { return f.typical() ? std::optional(*f.typical() + v) : std::nullopt; };
    const auto& led = *o.led;
    const std::vector subjects{s.bench.address(o.plus), s.bench.address(o.minus)};
    Led m{{{.quantity = "LED current", .subjects = subjects, .unit = Unit::Amp, .value = o.most},
           {.quantity = "LED voltage backwards",
            .subjects = subjects,
            .unit = Unit::Volt,
            .value = reverse.known(),
            .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, plus(led.reverseVoltage, kMeter), "greatest backwards",
                                    led.reverseVoltage.source)),
            .at = reverse.point}},
          o,
          Volts{reverse.value}};
    auto& limits = m.margins[0].limits;
    // One that is never lit, and never meant to be, is not weak.
    if (o.most > kOptoOff.value || o.switched)
      limits =
          rising(atLeast(LimitKind::Promised, Severity::Caution, times(led.promised, 1), "promised on", led.promised.source),
                 atLeast(LimitKind::Promised, Severity::Stop, times(led.promised, kFarBelow), "0.6 x promised on", led.promised.source));
    limits.push_back(atMost(LimitKind::Absolute, Severity::Stop, times(led.most, kOver), "1.25 x greatest", led.most.source));
    out.push_back(std::move(m));
  }
  return out;
}

}  // namespace

// The LED current of isolated inputs against the window that the box promises.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Led& m) {
    const auto& o = m.input;
    const auto name = s.bench.called(o.plus);
    const Amps most{o.most};
    Finding f;
    if (m.margins[1].passed()) {
      f = finding(
          fmt::format("{} is {} the wrong way round", name, show(m.reverse)),
          fmt::format("The LED at {} is fed {} backwards; it stands {}.", name, show(m.reverse), displayText(o.led->reverseVoltage)),
          m.margins[1].subjects);
      f.ways = {RepairDraft(s.bench)
                    .exchange(o.plus, o.minus)
                    .way(fmt::format("Exchange the wires at {} and {}.", s.bench.called(o.plus), s.bench.called(o.minus)))};
      f.formula = fmt::format("{} backwards", show(m.reverse));
    } else {
      const bool over = m.margins[0].passed()->most.has_value();
      const bool dark = !over && o.most <= kOptoOff.value;
      const Amps limit{over ? *o.led->most.typical() : *o.led->promised.typical()};
      f = finding(fmt::format("{} gets {}", name, show(most)),
                  over   ? fmt::format("The LED at {} gets {} and stands {}: a resistor is missing.", name, show(most), show(limit))
                  : dark ? fmt::format("The LED at {} never lights: whatever its pin does, it gets {}; on is promised from {}.", name,
                                       show(std::max(most, Amps{0})), show(limit))
                         : fmt::format("The LED at {} gets {}; on is promised from {}{}.", name, show(most), show(limit),
                                       m.margins[0].stops() ? ", and this is far below" : ": it will often work, but nobody promises it"),
                  m.margins[0].subjects);
      f.ways = {{over   ? fmt::format("Put a resistor before {} that leaves at most {}.", name, show(limit))
                 : dark ? fmt::format("Wire the other side of {} to the ground or supply of the pin that drives it.", name)
                        : fmt::format("Take a smaller resistor before {}, or a higher voltage, until {} flow.", name, show(limit))}};
      f.formula = fmt::format("{} against {}", show(most), show(limit));
      f.bar = barOf(m.margins[0], limit.value, over ? "absolute maximum" : "promised on", {}, !over);
    }
    f.args = {{"current", most}};
    f.sources = sourcesOf({&o.led->promised, &o.led->most});
    return f;
  });
}

Check check() {
  return {"opto-input-current", "levels", "The LED current of an isolated input", Harm::Damage, judge};
}

}  // namespace bold::checks::opto_input_current
