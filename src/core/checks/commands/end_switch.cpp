#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/end_switches.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::end_switch {
namespace {

constexpr double kStands = 0.1;  // share of its running current below which it no longer turns
constexpr Amps kRuns{5e-3};

// Whether a motor stands still with a switch open that it would run past; nothing: it does not run that way at all.
std::optional<bool> stands(const SolvedBench& s, int motor, Action way, int variant) {
  const auto* before = s.point(motor, way, Moment::Running, Corner::Nominal);
  const auto* open = s.point(motor, Action::EndStop, Moment::Running, Corner::Nominal, variant);
  if (!before || !open) return std::nullopt;
  const auto& m = s.motors[motor];
  const auto amps = [&](const OperatingPoint& p) { return std::abs(p.element(m.device, m.windings.front()).value); };
  if (amps(*before) < kRuns.value) return std::nullopt;
  return amps(*open) < kStands * amps(*before);
}

}  // namespace

// A switch in a motor's lead, open: one way has to stop, and the other has to lead off it again.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto all = bench::endSwitches(s.bench, s.nets, s.motors);
  for (std::size_t k = 0; k < all.size(); ++k) {
    const auto forward = stands(s, all[k].motor, Action::Forward, 2 * static_cast<int>(k));
    const auto reverse = stands(s, all[k].motor, Action::Reverse, 2 * static_cast<int>(k) + 1);
    if (!forward && !reverse) continue;
    const bool any = forward.value_or(false) || reverse.value_or(false);
    const bool every = forward.value_or(true) && reverse.value_or(true);
    const auto& m = s.motors[all[k].motor];
    const auto& motor = called(s, m);
    const auto& name = called(s.bench, all[k].device);
    if (any && (!every || !forward || !reverse)) continue;
    auto f =
        any ? finding(Severity::Stop, fmt::format("{} cannot leave {}", motor, name),
                      fmt::format("With {} open {} stands still both ways: at its end it stops, and never comes back.", name, motor), {})
            : finding(Severity::Stop, fmt::format("{} does not stop {}", name, motor),
                      fmt::format("With {} open {} goes on running{}: current gets past the switch.", name, motor,
                                  forward && reverse ? " both ways" : ""),
                      {});
    f.subjects = {idOf(s.bench, all[k].device), idOf(s.bench, m.device)};
    f.ways = {{any ? fmt::format("Put a diode across {}, for the way that leads off it, and see that it is rated for the current of {}.",
                                 name, motor)
                   : fmt::format("Leave one diode at most across {}, the one for the way that leads off it.", name)}};
    f.formula = any ? "no current either way" : "current past an open contact";
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"end-switch", "commands", "An end switch in a motor's lead", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::end_switch
