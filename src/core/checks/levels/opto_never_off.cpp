#include <fmt/core.h>

#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"

namespace bold::checks {
// An LED that still conducts at the off level of its pin.
Findings optoNeverOff(const SolvedBench& s) {
  Findings out;
  for (const auto& o : optoInputs(s)) {
    if (!o.driven || o.least <= kOptoOff.value) continue;
    auto f = finding(Severity::Stop, fmt::format("{} never goes off", s.bench.called(o.plus)),
                     fmt::format("Even at the off level of its pin {} flow through the LED at {}; it is off below {}.", show(Amps{o.least}),
                                 s.bench.called(o.plus), show(kOptoOff)),
                     {s.bench.address(o.plus), s.bench.address(o.minus)});
    f.formula = fmt::format("{} > {}", show(Amps{o.least}), show(kOptoOff));
    f.args = {{"current", Amps{o.least}}};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
