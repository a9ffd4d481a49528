#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kStopShare = 1.5;  // times the continuous rating
}

// Running current through each output against the continuous rating for the heat sink really fitted.
Findings runningCurrent(const SolvedBench& s) {
  Findings out;
  for (const auto& ref : loadedChannels(s)) {
    if (circuit::chopperOf(s.bench, ref)) continue;  // what a chopper lets through is its current limit's business
    const auto& channel = circuit::channelOf(s.bench, ref);
    const auto& rating = continuousOf(s.bench, ref);
    const auto most = rating.typical();
    if (!most) continue;
    Amps worst{};
    TerminalIndex at = -1;
    std::string who;
    const auto look = [&](const OperatingPoint* p, const std::string& name) {
      if (!p) return;
      for (const auto& o : channel.out) {
        const auto t = s.bench.terminal(ref.device, o);
        const Amps i{std::abs(leaving(s, *p, t).value)};
        if (i <= worst) continue;
        worst = i;
        at = t;
        who = name;
      }
    };
    const auto loads = loadsOf(s, ref);
    for (const auto* m : loads) look(s.running(indexOf(s, *m), Charge::Full), called(s, *m));
    if (loads.size() > 1) look(s.point(Action::AllRunning, Charge::Full), "all its motors");
    if (at < 0 || worst.value <= *most) continue;
    const bool stop = worst.value > kStopShare * *most;
    auto f =
        finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} carries {} running", circuit::called(s.bench, ref), show(worst)),
                fmt::format("{} running draws {} through {}; it stands {} for long.", who, show(worst), circuit::called(s.bench, ref),
                            show(Amps{*most})),
                {s.bench.address(at)});
    f.formula = fmt::format("{} > {}{}", show(worst), stop ? "1.5 x " : "", show(Amps{*most}));
    f.args = {{"current", worst}, {"limit", Amps{*most}}};
    f.bar = Bar{"running current", worst, {}, Amps{*most}, "continuous"};
    f.sources = sourcesOf({&rating});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
