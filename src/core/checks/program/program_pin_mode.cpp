#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"

namespace bold::checks::program_pin_mode {

Absences absences(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Absences out;
  for (const auto& u : program.used()) {
    if (u.pin < 0 || !(u.use->does.contains("write") || u.use->does.contains("pwm")) || u.use->does.contains("output") ||
        !program.wired(u.pin))
      continue;
    const auto roles = program.rolesAt(u.pin);
    if (roles.empty()) continue;
    const auto pin = s.bench.called(u.pin);
    auto f =
        programFinding(Severity::Stop, fmt::format("{} is {} and is no output", pin, u.use->does.contains("pwm") ? "chopped" : "written"),
                       fmt::format("The program {} {}, which drives {} of {}, and never makes it an output.",
                                   u.use->does.contains("pwm") ? "chops" : "writes", said(*u.use), s.bench.called(roles.front()->input),
                                   called(s, s.motors[roles.front()->motor])),
                       {s.bench.address(u.pin), s.bench.address(roles.front()->input)}, *u.use);
    f.formula = fmt::format("{}: {}", s.bench.facts(u.pin).label, u.use->does.contains("input") ? "made an input" : "no direction");
    f.ways = {{fmt::format("Make {} an output before it is written.", said(*u.use))}};
    out.push_back({std::move(f), {u.pin}, {roles.front()->motor}});
  }
  return out;
}

// A pin that the program writes and never makes an output: it only switches a weak pull-up on and off, or nothing at all.
Findings judge(const ProgramOnBench& program) {
  return standing(program, absences(program));
}

Check check() {
  return {"program-pin-mode", "program", "A pin that is written and is no output", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pin_mode
