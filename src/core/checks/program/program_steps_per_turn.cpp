#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/program/coil_group.h"

namespace bold::checks::program_steps_per_turn {
namespace {
constexpr double kNear = 0.02;  // share: gears are not quite what is printed (2038 or 2048)
}

// The steps that the program takes for one turn, against the motor and the states that it is switched through.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& c : coilGroups(program)) {
    if (!c.group->turn || c.group->states.empty()) continue;
    const auto& m = s.motors[c.motor];
    const auto* steps = s.bench.devices[m.device].part->figure("steps");
    if (!steps || !steps->figure.typical()) continue;
    const double made = *steps->figure.typical() * (c.group->states.size() >= 8 ? 2 : 1);
    const int counted = *c.group->turn;
    if (std::abs(counted - made) <= kNear * made) continue;
    const auto& motor = called(s, m);
    auto f = programFinding(
        Severity::Caution, fmt::format("{} makes {:.0f} steps a turn", motor, made),
        fmt::format("The program counts {} steps for a turn of {}; in this sequence it takes {:.0f}: it turns {:.2g} times as far.",
                    counted, motor, made, counted / made),
        {idOf(s.bench, m.device)}, *c.any->use);
    if (c.group->place.line > 0) f.spots = {c.group->place};
    f.formula = fmt::format("{} against {:.0f}", counted, made);
    f.ways = {{fmt::format("Write {:.0f} steps a turn{}.", made, f.spots.empty() ? "" : " in " + where(f.spots.front()))}};
    f.sources = sourcesOf({&steps->figure});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-steps-per-turn", "program", "Steps a turn that are not this motor's", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_steps_per_turn
