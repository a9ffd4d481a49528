#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_on_at_start {
namespace {

// The level of a pin at which its motor runs; nothing where more than this pin decides it.
std::optional<bool> runsHigh(const SolvedBench& s, const WiredRole& r) {
  if (r.role != "in") return std::nullopt;
  const auto* running = s.running(r.motor, Corner::Nominal);
  if (!running) return std::nullopt;
  const auto on = running->command().pins.find(r.pin);
  if (on == running->command().pins.end()) return std::nullopt;
  if (on->second == bench::PinState::High) return true;
  return on->second == bench::PinState::Low ? std::optional(false) : std::nullopt;
}

}  // namespace

// A stage that is on at a low level: the program leaves it low at its start, or writes it low where it means off.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& r : program.roles()) {
    const auto* u = program.at(r.pin);
    const auto high = runsHigh(s, r);
    if (!u || !high) continue;
    const auto* on = *high ? "high" : "low";
    const bool start = !*high && u->use->first == on;
    const bool off = u->use->off == on;
    if (!start && !off) continue;
    const auto& motor = called(s, s.motors[r.motor]);
    const auto* other = *high ? "low" : "high";
    const auto input = s.bench.called(r.input);
    auto f = programFinding(
        off ? Severity::Stop : Severity::Caution,
        off ? fmt::format("{} is switched on where the program means off", motor)
            : fmt::format("{} runs as soon as the program starts", motor),
        off ? fmt::format("A function that is called off or stop writes {} {}; {} of {} is on while it is {}.", said(*u->use), on, input,
                          motor, on)
            : fmt::format("{} of {} is on while {} is low, and the program leaves it low at its start.", input, motor, said(*u->use)),
        {s.bench.address(r.pin), idOf(s.bench, s.motors[r.motor].device)}, *u->use);
    f.formula = fmt::format("{}: on at {}, {} {}", s.bench.facts(r.pin).label, on, off ? "off writes" : "at the start", on);
    f.ways = {{off ? fmt::format("Write {} {} to switch {} off.", said(*u->use), other, motor)
                   : fmt::format("Write {} {} before it is made an output.", said(*u->use), other)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-on-at-start", "program", "A motor that is on at the start, or where the program means off", Harm::Danger, judge};
}

}  // namespace bold::checks::program_on_at_start
