#include <fmt/core.h>

#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_cannot_drive {

// Signals of the intent on terminals that cannot be written.
Findings judge(const SolvedBench& s) {
  Findings out;
  std::set<std::string> told;
  for (const auto& intent : s.bench.intents) {
    const int d = s.bench.deviceIndex(intent.motor);
    const auto motor = d < 0 ? intent.motor : called(s.bench, d);
    for (const auto& signal : intent.signals) {
      const auto t = s.bench.terminal(signal.pin);
      const auto where = signal.pin.text();
      if (told.contains(where)) continue;
      std::string why;
      if (t < 0)
        why = "is not on the bench";
      else if (!s.bench.facts(t).pin)
        why = s.bench.facts(t).ground ? "is a ground" : s.bench.facts(t).supply ? "is a supply" : "is no digital pin";
      else if (!s.bench.facts(t).pin->output)
        why = "is input only";
      else if (!s.bench.facts(t).pin->reserved.empty())
        why = "is reserved: " + s.bench.facts(t).pin->reserved;
      if (why.empty()) continue;
      told.insert(where);
      const auto name = t < 0 ? where : s.bench.called(t);
      auto f = finding(Severity::Stop, fmt::format("{} cannot be driven", name),
                       fmt::format("The plan drives {} of {} from {}, which {}.", signal.role, motor, name, why), {where, intent.motor});
      f.ways = {{fmt::format("Take another pin for {} of {}, in the wires and in the program.", signal.role, motor),
                 {intent.motor, "signal " + signal.role}}};
      f.formula = fmt::format("{} {}", name, why);
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"pin-cannot-drive", "pins", "A pin that cannot be written", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::pin_cannot_drive
