#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::vin_as_output {
namespace {

constexpr double kToPlanWith = 0.5;  // A
constexpr double kItsDiode = 1.0;    // A

struct Out {
  Margin margin;
  TerminalIndex pin;
  Extreme worst;
};

std::vector<Out> measure(const SolvedBench& s) {
  std::vector<Out> out;
  for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Board)) {
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return leaving(s, p, input.positive).value; });
    out.push_back({{.quantity = "current out of the pin",
                    .subjects = {s.bench.address(input.positive)},
                    .unit = Unit::Amp,
                    .value = worst.known(),
                    .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kToPlanWith, "to plan with"),
                                     atMost(LimitKind::Absolute, Severity::Stop, kItsDiode, "its diode")),
                    .at = worst.point},
                   input.positive,
                   worst});
  }
  return out;
}

}  // namespace

// Motors fed out of a board's raw input pin.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Out& m) {
    const Amps amps{m.worst.value};
    const auto& limit = *m.margin.passed();
    auto f = finding(fmt::format("{} feeds {}", s.bench.called(m.pin), show(amps)),
                     fmt::format("With {} {} come out of {}: they pass the jack, the diode and the thin tracks of {}.",
                                 during(*m.worst.point), show(amps), s.bench.called(m.pin), called(s.bench, s.bench.deviceOf(m.pin))),
                     m.margin.subjects);
    f.ways = {{fmt::format("Feed the motors from the supply itself instead of from {}.", s.bench.called(m.pin))}};
    f.formula = fmt::format("{} > {:g} A", show(amps), *limit.most);
    f.args = {{"current", amps}};
    f.bar = barOf(m.margin, *limit.most, std::string(limit.name));
    return f;
  });
}

Check check() {
  return {"vin-as-output", "current", "Motors fed through a board's input pin", Harm::Damage, judge};
}

}  // namespace bold::checks::vin_as_output
