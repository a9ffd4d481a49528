#include <fmt/core.h>

#include <algorithm>
#include <set>

#include "core/bench/signal_path.h"
#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"

namespace bold::checks::program_enable_inverted {

Absences absences(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Absences out;
  static const std::set<std::string> kReady{"enable", "enable2", "standby", "sleep", "reset"};
  for (const auto& r : program.roles()) {
    const auto* u = program.at(r.pin);
    const auto* running = s.running(r.motor, Corner::Nominal);
    if (!kReady.contains(r.role) || !u || !running || !drives(*u->use) || !u->use->sure) continue;
    auto wanted = running->level(r.input);
    const auto path = bench::pathBetween(s.bench, s.nets, r.pin, r.input);
    if (wanted == parts::Level::Undefined || path == bench::Path::Unclear || path == bench::Path::None) continue;
    if (path == bench::Path::Inverted) wanted = wanted == parts::Level::High ? parts::Level::Low : parts::Level::High;
    const bool high = wanted == parts::Level::High;
    const bool ever = u->use->does.contains(high ? "high" : "low");
    const bool other = u->use->does.contains(high ? "low" : "high");
    if (ever || !other || std::ranges::any_of(out, [&](const Absence& a) { return a.pins.front() == r.pin; })) continue;
    std::string motors;  // all that the pin is for
    Absence one{{}, {r.pin}, {}};
    for (const auto* same : program.rolesAt(r.pin)) {
      motors += (motors.empty() ? "" : ", ") + called(s, s.motors[same->motor]);
      one.motors.push_back(same->motor);
    }
    const auto input = s.bench.called(r.input);
    auto f = programFinding(Severity::Stop, fmt::format("{} is never switched on", input),
                            fmt::format("The program only ever keeps {} {}; {} of {} works while it is {}.", said(*u->use),
                                        high ? "low" : "high", input, motors, high ? "high" : "low"),
                            {s.bench.address(r.pin), s.bench.address(r.input)}, *u->use);
    f.formula = fmt::format("{}: written {}, needed {}", s.bench.facts(r.pin).label, high ? "low" : "high", high ? "high" : "low");
    f.ways = {{fmt::format("Write {} {} to switch it on.", said(*u->use), high ? "high" : "low")}};
    one.finding = std::move(f);
    out.push_back(std::move(one));
  }
  return out;
}

// An enable that the program only ever writes to the level at which the stage is off.
Findings judge(const ProgramOnBench& program) {
  return standing(program, absences(program));
}

Check check() {
  return {"program-enable-inverted", "program", "An enable written the wrong way round", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_enable_inverted
