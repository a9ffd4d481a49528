#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"

namespace bold::checks::opto_never_off {
namespace {

struct Off {
  Margin margin;
  TerminalIndex plus;
  Amps least;
};

std::vector<Off> measure(const SolvedBench& s) {
  std::vector<Off> out;
  for (const auto& o : optoInputs(s))
    if (o.driven)
      out.push_back({{.quantity = "LED current while off",
                      .subjects = {s.bench.address(o.plus), s.bench.address(o.minus)},
                      .unit = Unit::Amp,
                      .value = o.least,
                      .limits = rising(atMost(LimitKind::Promised, Severity::Stop, kOptoOff.value, "off for sure"))},
                     o.plus,
                     Amps{o.least}});
  return out;
}

}  // namespace

// An LED that still conducts at the off level of its pin.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Off& m) {
    const auto name = s.bench.called(m.plus);
    auto f = finding(fmt::format("{} never goes off", name),
                     fmt::format("Even at the off level of its pin {} flow through the LED at {}; it is off below {}.", show(m.least), name,
                                 show(kOptoOff)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Take the common of {} to the supply of the pins that drive it, or drive it by a transistor.", name)}};
    f.formula = against(m.least, ">", kOptoOff);
    f.args = {{"current", m.least}};
    return f;
  });
}

Check check() {
  return {"opto-never-off", "levels", "An isolated input that never goes off", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::opto_never_off
