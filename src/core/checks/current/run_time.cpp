#include <fmt/core.h>

#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kShort = 0.5;  // h
}

// How long a battery lasts with everything running.
Findings runTime(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto capacity = body.capacity.typical();
    if (!capacity) continue;
    const auto running = largest(
        s, [](const OperatingPoint& p) { return steady(p) && p.charge() == Charge::Nominal; },
        [&](const OperatingPoint& p) { return p.element(pole.device, pole.element).value; });
    if (running.value <= 1e-3) continue;
    const double hours = *capacity / running.value;
    if (hours >= kShort) continue;
    auto f = finding(Severity::Note, fmt::format("{} lasts about {:.0f} min", called(s.bench, pole.device), 60 * hours),
                     fmt::format("With {} {} gives {}: its {} last about {:.0f} minutes.", during(*running.point),
                                 called(s.bench, pole.device), show(Amps{running.value}), displayText(body.capacity), 60 * hours),
                     {idOf(s.bench, pole.device)});
    f.formula = fmt::format("{} / {} = {:.2f} h", displayText(body.capacity), show(Amps{running.value}), hours);
    f.args = {{"current", Amps{running.value}}};
    f.sources = sourcesOf({&body.capacity});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
