#include <fmt/core.h>

#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// The microsteps that the mode inputs choose as they stand; nothing when the part has no such table or no row fits.
std::optional<int> microsteps(const SolvedBench& s, const OperatingPoint& p, int device) {
  const auto& table = s.bench.devices[static_cast<std::size_t>(device)].part->microsteps;
  std::string levels;
  for (const auto& in : table.inputs) levels += p.level(s.bench.terminal(device, in)) == parts::Level::High ? '1' : '0';
  for (const auto& [row, steps] : table.rows)
    if (row == levels) return steps;
  return std::nullopt;
}

}  // namespace

// The mode pins as wired, against the steps a turn that the program counts.
Findings microstepSetting(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (!m.intent || !m.intent->stepsPerTurn || m.meant.device < 0) continue;
    const auto* steps = s.bench.devices[static_cast<std::size_t>(m.device)].part->figure("steps");
    const auto* p = s.running(static_cast<int>(k), Charge::Nominal);
    const auto& table = s.bench.devices[static_cast<std::size_t>(m.meant.device)].part->microsteps;
    if (!steps || !steps->figure.typical() || !p || table.rows.empty()) continue;
    const auto micro = microsteps(s, *p, m.meant.device);
    const double counted = micro ? *micro * *steps->figure.typical() : 0;
    if (micro && std::abs(counted - *m.intent->stepsPerTurn) < 0.5) continue;
    std::string names;
    for (const auto& in : table.inputs) names += (names.empty() ? "" : ", ") + s.bench.facts(s.bench.terminal(m.meant.device, in)).label;
    auto f = finding(Severity::Caution,
                     fmt::format("{} makes {} steps a turn", called(s, m), micro ? fmt::format("{:.0f}", counted) : "an unknown number of"),
                     micro ? fmt::format("{} as wired give {} microsteps: {:.0f} pulses a turn of {}, where the plan counts {}.", names,
                                         *micro, counted, called(s, m), *m.intent->stepsPerTurn)
                           : fmt::format("{} as wired are no row of the table of {}.", names, called(s.bench, m.meant.device)),
                     {idOf(s.bench, m.meant.device), idOf(s.bench, m.device)});
    f.formula = micro ? fmt::format("{} x {:.0f} = {:.0f}, plan {}", *micro, *steps->figure.typical(), counted, *m.intent->stepsPerTurn)
                      : "no such row";
    f.sources = sourcesOf({&steps->figure});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
