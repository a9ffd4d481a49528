#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_console_pin {

// A pin of the serial console that the program uses for a motor while it opens that console.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& u : program.used()) {
    if (u.pin < 0 || !u.source->console || !drives(*u.use)) continue;
    const auto& facts = s.bench.facts(u.pin).pin;
    const auto roles = program.rolesAt(u.pin);
    if (!facts || facts->serial.empty() || roles.empty()) continue;
    const auto pin = s.bench.called(u.pin);
    const auto& motor = called(s, s.motors[roles.front()->motor]);
    auto f = programFinding(Severity::Stop, fmt::format("{} is the console's", pin),
                            fmt::format("The program opens the serial console in {} and drives {} of {} by {}, which is a line of it: what "
                                        "is sent moves the motor, and the pin does not obey.",
                                        where(*u.source->console), s.bench.called(roles.front()->input), motor, said(*u.use)),
                            {s.bench.address(u.pin), s.bench.address(roles.front()->input)}, *u.use);
    f.spots.push_back(*u.source->console);
    f.formula = fmt::format("{}: {}", s.bench.facts(u.pin).label, facts->serial);
    f.ways = {{fmt::format("Take another pin than {} for {}, or do without the console.", pin, motor)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-console-pin", "program", "A motor on the console's pin", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_console_pin
