#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {

// A used stage below its least motor supply, at nominal charge while its motor runs; only when empty it is a caution.
Findings motorSupplyTooLow(const SolvedBench& s) {
  Findings out;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    const int d = s.bench.deviceOf(t);
    if (!supply || supply->purpose != "motor" || !supply->recommended.min || isServo(s, d)) continue;  // servo-supply speaks of those
    const double least = *supply->recommended.min;
    for (std::size_t m = 0; m < s.motors.size(); ++m) {
      const auto& motor = s.motors[m];
      bool uses = motor.device == d;
      for (const auto& r : motor.reached) uses = uses || r.device == d;
      if (!uses) continue;
      const auto at = [&](Charge c) -> std::optional<Volts> {
        const auto* p = s.running(static_cast<int>(m), c);
        if (!p) return std::nullopt;
        const auto v = p->across(t, s.bench.terminal(d, supply->back));
        return v ? v : std::optional(Volts{0});
      };
      const auto nominal = at(Charge::Nominal);
      const auto empty = at(Charge::Empty);
      if (!nominal) continue;
      const bool stop = nominal->value < least;
      if (!stop && (!empty || empty->value >= least)) continue;
      const Volts v = stop ? *nominal : *empty;
      const bool none = stop && v.value < 0.5;
      auto f =
          finding(stop ? Severity::Stop : Severity::Caution,
                  none ? fmt::format("{} has no supply", s.bench.called(t)) : fmt::format("{} gets only {}", s.bench.called(t), show(v)),
                  none ? fmt::format("Nothing feeds {}: {} cannot move.", s.bench.called(t), called(s, motor))
                       : fmt::format("{} gets {} {} while {} runs; it needs {}.", s.bench.called(t), show(v),
                                     stop ? "at nominal charge" : "once the supply is nearly empty", called(s, motor), show(Volts{least})),
                  {s.bench.address(t)});
      f.formula = fmt::format("{} < {}", show(v), show(Volts{least}));
      f.args = {{"voltage", v}, {"least", Volts{least}}};
      f.bar = Bar{"supply while running", v, {}, Volts{least}, "least", true};
      f.sources = sourcesOf({&supply->recommended});
      out.push_back(std::move(f));
      break;
    }
  }
  return out;
}

}  // namespace bold::checks
