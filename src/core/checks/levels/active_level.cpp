#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"
#include "core/circuit/signal_nets.h"

namespace bold::checks {
// The plan says low switches on; the stage's truth table says high does.
Findings activeLevel(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (!m.intent || m.meant.device < 0) continue;
    for (const auto& sig : m.intent->signals) {
      const bool steady1 = sig.role == "step" || sig.role == "dir" || sig.role == "pulse";
      if (!sig.activeLow || steady1) continue;
      const auto input = circuit::inputOf(s.bench, m, sig.role);
      const auto pin = s.bench.terminal(sig.pin);
      if (input < 0 || (pin >= 0 && circuit::throughTransistors(s.bench, s.nets, pin, input))) continue;
      const auto channels = circuit::meantChannels(s.bench, m);
      const auto actions = circuit::actionsOf(s.bench, m);
      for (const auto& c : channels) {
        const auto recipe = circuit::inputsFor(s.bench, m, c, actions.front(), 0);
        const auto it = recipe.inputs.find(s.bench.facts(input).id);
        if (!recipe.found || it == recipe.inputs.end() || it->second != parts::Level::High) continue;
        auto f = finding(
            Severity::Stop, fmt::format("{} is active high", s.bench.called(input)),
            fmt::format(
                "The plan drives {} of {} as active low; {} has to be high for {} to move: on and off come out the wrong way round.",
                sig.role, called(s, m), s.bench.called(input), called(s, m)),
            {s.bench.address(input), idOf(s.bench, m.device)});
        f.formula = fmt::format("{} = high to move, by the truth table of {}", s.bench.facts(input).label, called(s.bench, m.meant.device));
        out.push_back(std::move(f));
      }
    }
  }
  return out;
}

}  // namespace bold::checks
