#include <fmt/core.h>

#include <cmath>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_duty_cap {

// A duty that passes what is stated as the greatest: a cap is typed for a motor that its supply would ruin.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& r : program.roles()) {
    const auto& m = s.motors[r.motor];
    const auto* u = program.at(r.pin);
    if (!m.intent || !m.intent->dutyCap || !u || !u->use->does.contains("pwm") || !u->use->duty) continue;
    const double cap = *m.intent->dutyCap, duty = *u->use->duty;
    constexpr double kRounded = 0.005;
    if (duty <= cap + kRounded) continue;
    const auto& motor = called(s, m);
    auto f = programFinding(
        Severity::Stop, fmt::format("The program drives {} past its duty cap", motor),
        fmt::format("{} is written up to {:.0f} %; {} is stated to get {:.0f} % at most.", said(*u->use), 100 * duty, motor, 100 * cap),
        {s.bench.address(r.pin), idOf(s.bench, m.device)}, *u->use);
    f.formula = fmt::format("{:.0f} % > {:.0f} %", 100 * duty, 100 * cap);
    f.ways = {{u->use->scale ? fmt::format("Write {:.0f} of {:g} at most.", std::floor(cap * *u->use->scale), *u->use->scale)
                             : fmt::format("Write {:.0f} % at most.", 100 * cap)},
              {"Or state another cap, if the motor is rated for it.", fieldOf(s, m, "duty")}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-duty-cap", "program", "A duty of the program past the stated cap", Harm::Damage, judge};
}

}  // namespace bold::checks::program_duty_cap
