#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_no_pwm {
namespace {

// The pin that the wires bring to this motor's speed input, and that the program only switches: the two may be exchanged.
const UsedPin* onlySwitched(const ProgramOnBench& program, const WiredRole& role) {
  if (role.role.starts_with("speed")) return nullptr;
  for (const auto* other : program.rolesOf(role.motor)) {
    const auto* used = program.at(other->pin);
    const auto& pin = program.solved().bench.facts(other->pin).pin;
    if (other->role.starts_with("speed") && used && drives(*used->use) && !used->use->does.contains("pwm") && pin && !pin->pwm.empty())
      return used;
  }
  return nullptr;
}

}  // namespace

// PWM that the program asks of a pin without any.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& u : program.used()) {
    if (u.pin < 0 || !u.use->does.contains("pwm") || !s.bench.facts(u.pin).pin) continue;
    const auto& facts = *s.bench.facts(u.pin).pin;
    const auto roles = program.rolesAt(u.pin);
    if (!facts.pwm.empty() || u.use->does.contains("soft") || roles.empty()) continue;
    const auto pin = s.bench.called(u.pin);
    const auto& motor = called(s, s.motors[roles.front()->motor]);
    std::string free;
    const int d = s.bench.deviceOf(u.pin);
    for (const auto& other : s.bench.devices[d].part->terminals)
      if (other.pin && !other.pin->pwm.empty() && other.pin->reserved.empty() && !s.bench.connected(s.bench.terminal(d, other.id)))
        free += (free.empty() ? "" : ", ") + other.label;
    auto f = programFinding(
        facts.softPwm ? Severity::Caution : Severity::Stop, fmt::format("The program asks {} for PWM", pin),
        facts.softPwm
            ? fmt::format("The program sets the speed of {} by PWM on {}, which has it in software only: it jitters.", motor, pin)
            : fmt::format("The program sets the speed of {} by PWM on {}, which has none: it is full speed or nothing.", motor, pin),
        {s.bench.address(u.pin), s.bench.address(roles.front()->input)}, *u.use);
    f.formula = free.empty() ? "no free pin with PWM is left" : "free pins with PWM: " + free;
    f.ways = {{free.empty() ? fmt::format("Give up another PWM pin for {}.", motor)
                            : fmt::format("Take one of {} for {}, in the program and by the wire.", free, said(*u.use))}};
    if (const auto* other = onlySwitched(program, *roles.front()))
      f.ways.insert(f.ways.begin(),
                    {fmt::format("Exchange {} and {}{}: {} goes to the input that sets the speed.", said(*u.use), said(*other->use),
                                 f.spots.empty() ? "" : " in " + where(f.spots.front()), s.bench.called(other->pin))});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-no-pwm", "program", "PWM asked of a pin without any", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_no_pwm
