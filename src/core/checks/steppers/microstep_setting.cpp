#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::microstep_setting {
namespace {

// The microsteps that the mode inputs choose as they stand; nothing when the part has no such table or no row fits.
std::optional<int> microsteps(const SolvedBench& s, const OperatingPoint& p, int device) {
  const auto& table = s.bench.devices[device].part->microsteps;
  std::string levels;
  for (const auto& in : table.inputs) levels += p.level(s.bench.terminal(device, in)) == parts::Level::High ? '1' : '0';
  for (const auto& [row, steps] : table.rows)
    if (row == levels) return steps;
  return std::nullopt;
}

constexpr double kNear = 0.02;  // share: gears are not quite what is printed (2038 or 2048, 4076 or 4096)

// On plain switches or bridges the program makes the steps itself: full and wave make the motor's own number, half twice that.
std::optional<Finding> bySequence(const SolvedBench& s, const Motor& m, double own) {
  if (bench::chopperOf(s.bench, m.meant)) return std::nullopt;
  const auto& sequence = m.intent->sequence;
  const double made = sequence == "half" ? 2 * own : own;
  const int counted = *m.intent->stepsPerTurn;
  if (std::abs(counted - made) <= kNear * made) return std::nullopt;
  if (sequence.empty() && std::abs(counted - 2 * own) <= kNear * 2 * own) return std::nullopt;  // nobody said which
  const bool half = sequence != "half" && std::abs(counted - 2 * own) <= kNear * 2 * own;
  auto f = finding(
      Severity::Caution, fmt::format("{} makes {:.0f} steps a turn", called(s, m), made),
      fmt::format("The {} sequence makes {:.0f} steps a turn of {}, where the plan counts {}{}.", sequence.empty() ? "full" : sequence,
                  made, called(s, m), counted, half ? ": that many are half steps, whose sequence has eight states" : ""),
      {idOf(s.bench, m.device)});
  if (m.meant.device >= 0) f.subjects.push_back(idOf(s.bench, m.meant.device));
  f.ways = {{fmt::format("State {:.0f} steps a turn, if the program counts so.", made), fieldOf(s, m, "steps")},
            {"Or state the sequence that the program uses.", fieldOf(s, m, "sequence")}};
  f.formula = fmt::format("{:.0f} against {}", made, counted);
  return f;
}

}  // namespace

// The mode pins as wired, against the steps a turn that the program counts.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (!m.intent || !m.intent->stepsPerTurn || m.meant.device < 0) continue;
    const auto* steps = s.bench.devices[m.device].part->figure("steps");
    const auto* p = s.running(static_cast<int>(k), Corner::Nominal);
    const auto& table = s.bench.devices[m.meant.device].part->microsteps;
    if (!steps || !steps->figure.typical()) continue;
    if (table.rows.empty()) {
      if (auto f = bySequence(s, m, *steps->figure.typical())) out.push_back(std::move(*f));
      continue;
    }
    if (!p) continue;
    const auto micro = microsteps(s, *p, m.meant.device);
    const double counted = micro ? *micro * *steps->figure.typical() : 0;
    if (micro && std::abs(counted - *m.intent->stepsPerTurn) < 0.5) continue;
    std::string names;
    for (const auto& in : table.inputs) names += (names.empty() ? "" : ", ") + s.bench.facts(s.bench.terminal(m.meant.device, in)).label;
    auto f = finding(Severity::Caution,
                     fmt::format("{} makes {} steps a turn", called(s, m), micro ? fmt::format("{:.0f}", counted) : "an unknown number of"),
                     micro ? fmt::format("{} as wired give {}: {:.0f} pulses a turn of {}, where the plan counts {}.", names,
                                         *micro == 1 ? std::string("full steps") : fmt::format("{} microsteps", *micro), counted,
                                         called(s, m), *m.intent->stepsPerTurn)
                           : fmt::format("{} as wired are no row of the table of {}.", names, called(s.bench, m.meant.device)),
                     {idOf(s.bench, m.meant.device), idOf(s.bench, m.device)});
    if (micro)
      f.ways = {{fmt::format("State {:.0f} steps a turn, if the program counts so, or wire {} for another number.", counted, names),
                 fieldOf(s, m, "steps")}};
    else
      f.ways = {{fmt::format("Wire {} as a row of the table of {} has it.", names, called(s.bench, m.meant.device))}};
    f.formula = micro ? fmt::format("{} x {:.0f} = {:.0f}, plan {}", *micro, *steps->figure.typical(), counted, *m.intent->stepsPerTurn)
                      : "no such row";
    f.sources = sourcesOf({&steps->figure});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"microstep-setting", "steppers", "Mode pins against the program's steps", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::microstep_setting
