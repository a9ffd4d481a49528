#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
// Motors fed out of a board's raw input pin.
Findings vinAsOutput(const SolvedBench& s) {
  Findings out;
  for (const auto& input : supplyInputs(s.bench, "board")) {
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) { return leaving(s, p, input.positive).value; });
    if (worst.value <= 0.5) continue;
    const bool stop = worst.value > 1.0;
    auto f = finding(
        stop ? Severity::Stop : Severity::Caution, fmt::format("{} feeds {}", s.bench.called(input.positive), show(Amps{worst.value})),
        fmt::format("With {} {} come out of {}: they pass the jack, the diode and the thin tracks of {}.", during(*worst.point),
                    show(Amps{worst.value}), s.bench.called(input.positive), called(s.bench, s.bench.deviceOf(input.positive))),
        {s.bench.address(input.positive)});
    f.formula = fmt::format("{} > {}", show(Amps{worst.value}), stop ? "1 A" : "0.5 A");
    f.args = {{"current", Amps{worst.value}}};
    f.bar = Bar{"current out of the pin", Amps{worst.value}, {}, Amps{stop ? 1.0 : 0.5}, stop ? "its diode" : "to plan with"};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
