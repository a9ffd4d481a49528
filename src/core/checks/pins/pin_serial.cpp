#include <fmt/core.h>

#include <set>

#include "core/checks/queries.h"

namespace bold::checks {
// A signal on a pin that the console or the programming plug uses.
Findings pinSerial(const SolvedBench& s) {
  Findings out;
  std::set<TerminalIndex> told;
  for (const auto& intent : s.bench.intents)
    for (const auto& sig : intent.signals) {
      const auto t = s.bench.terminal(sig.pin);
      if (t < 0 || !s.bench.facts(t).pin || s.bench.facts(t).pin->serial.empty() || !told.insert(t).second) continue;
      auto f =
          finding(Severity::Caution, fmt::format("{} is the {}", s.bench.called(t), s.bench.facts(t).pin->serial),
                  fmt::format("{} of {} is on {}, the {}: messages and programming move the motor, and the motor disturbs them.", sig.role,
                              called(s.bench, s.bench.deviceIndex(intent.motor)), s.bench.called(t), s.bench.facts(t).pin->serial),
                  {s.bench.address(t), intent.motor});
      f.formula = s.bench.facts(t).pin->serial;
      out.push_back(std::move(f));
    }
  return out;
}

}  // namespace bold::checks
