#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/mismatch.h"

namespace bold::checks::program_pin_unwired {

// A pin that the program drives and that no wire leaves.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto* u : program.mismatch().unwired) {
    if (u->pin < 0 || !u->use->sure) continue;  // program-no-such-pin; one of several, and nobody knows which
    auto f = programFinding(
        Severity::Caution, fmt::format("{} is driven and not wired", s.bench.called(u->pin)),
        fmt::format("The program drives {}, which is {}, and nothing is wired there.", said(*u->use), s.bench.called(u->pin)),
        {s.bench.address(u->pin)}, *u->use);
    f.formula = fmt::format("{}: no connection", s.bench.facts(u->pin).label);
    f.ways = {{fmt::format("Wire {} to what it is for, or take it out of the program.", s.bench.called(u->pin))}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-pin-unwired", "program", "A pin that the program drives for nothing", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pin_unwired
