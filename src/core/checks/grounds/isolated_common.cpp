#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"

namespace bold::checks::isolated_common {
// An isolated input through which no current can flow, or whose isolation has been given up.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& o : optoInputs(s)) {
    if (o.driven && o.most <= kOptoOff.value) {
      auto f = finding(
          Severity::Stop, fmt::format("No current can flow through {}", s.bench.called(o.plus)),
          fmt::format("The LED of this isolated input needs a way in at {} and a way back at {}: in no command does it get more than {}.",
                      s.bench.called(o.plus), s.bench.called(o.minus), show(Amps{o.most})),
          {s.bench.address(s.bench.connected(o.plus) ? o.minus : o.plus)});
      f.ways = {{fmt::format("Wire {}: to a pin, or to the ground or supply its partner's level is against.",
                             s.bench.called(s.bench.connected(o.plus) ? o.minus : o.plus))}};
      f.formula = fmt::format("{} at most, {} needed", show(Amps{o.most}), show(kOptoOff));
      out.push_back(std::move(f));
      continue;
    }
    const auto& device = s.bench.devices[o.device];
    for (const auto& t : device.part->terminals) {
      if (!t.ground || !s.nets.same(s.bench.terminal(o.device, t.id), o.minus)) continue;
      auto f = finding(Severity::Note, fmt::format("{} gives up its isolation", called(s.bench, o.device)),
                       fmt::format("{} is joined to the motor ground of {}: the signals are no longer isolated, motor noise comes through.",
                                   s.bench.called(o.minus), called(s.bench, o.device)),
                       {s.bench.address(o.minus)});
      f.ways = {{fmt::format("Take {} to the controller's ground only, if the isolation is wanted.", s.bench.called(o.minus))}};
      f.formula = "signal common and motor ground are one net";
      out.push_back(std::move(f));
      break;
    }
  }
  return out;
}

Check check() {
  return {"isolated-common", "grounds", "The common of isolated inputs", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::isolated_common
