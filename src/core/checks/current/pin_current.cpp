#include <fmt/core.h>

#include <cmath>
#include <map>

#include "core/checks/queries.h"

namespace bold::checks {

// The largest current through each driven pin over all commands. The typical pin resistance is used: half of the
// greatest, so that a high promised resistance cannot hide an overload.
Findings pinCurrent(const SolvedBench& s) {
  struct Worst {
    Amps amps;
    std::string command;
  };
  std::map<TerminalIndex, Worst> worst;
  for (const auto& p : s.points) {
    if (!everyday(*p)) continue;
    for (const auto& [t, state] : p->command().pins) {
      const Amps i{std::abs(p->pin(t).value)};
      auto& w = worst[t];
      if (i > w.amps) w = {i, p->command().title};
    }
  }
  Findings out;
  for (const auto& [t, w] : worst) {
    const auto group = pinGroup(s.bench, t);
    if (!group) continue;
    const auto absolute = group->pins->absolute.typical();
    const auto recommended = group->pins->recommended.typical();
    const bool stop = absolute && w.amps.value > *absolute;
    if (!stop && !(recommended && w.amps.value > *recommended)) continue;
    const Amps limit{stop ? *absolute : *recommended};
    auto f = finding(stop ? Severity::Stop : Severity::Caution, fmt::format("Pin {} gives {}", s.bench.called(t), show(w.amps)),
                     fmt::format("With {} the pin {} carries {}; {} is {}.", w.command, s.bench.called(t), show(w.amps),
                                 stop ? "its absolute maximum" : "the most to plan with", show(limit)),
                     {s.bench.address(t)});
    for (const auto driven : signalReach(s, t))
      if (s.bench.deviceOf(driven) != s.bench.deviceOf(t)) {
        f.subjects.push_back(s.bench.address(driven));
        break;
      }
    f.formula = fmt::format("{} > {}", show(w.amps), show(limit));
    f.args = {{"current", w.amps}, {"limit", limit}};
    f.bar = Bar{"pin current", w.amps, {}, limit, stop ? "absolute maximum" : "recommended"};
    f.sources = sourcesOf({stop ? &group->pins->absolute : &group->pins->recommended});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
