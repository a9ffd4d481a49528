#include <fmt/core.h>

#include <algorithm>

#include "core/bench/signal_path.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::active_level {
namespace {

// The level at which an input moves the motor, over everything that its stage can do: high where any way of moving it needs a high.
std::optional<parts::Level> levelToMove(const SolvedBench& s, const Motor& m, const std::string& input) {
  std::optional<parts::Level> out;
  for (const auto& channel : bench::meantChannels(s.bench, m))
    for (const auto action : {Action::Forward, Action::Reverse, Action::Hold, Action::Step}) {
      const auto recipe = bench::inputsFor(s.bench, m, channel, action, 0);
      const auto it = recipe.inputs.find(input);
      if (!recipe.found || it == recipe.inputs.end()) continue;
      if (it->second == parts::Level::High) return parts::Level::High;
      if (it->second == parts::Level::Low) out = parts::Level::Low;
    }
  return out;
}

// What turns levels over on the way leaves nothing to hold the statement against.
bool indirect(bench::Path path) {
  return path == bench::Path::Straight || path == bench::Path::Inverted || path == bench::Path::Unclear;
}

}  // namespace

// What is stated of an active level against the stage's own truth table, both ways.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& m : s.motors) {
    if (!m.intent || m.meant.device < 0) continue;
    for (const auto& sig : m.intent->signals) {
      const bool edges = sig.role == "step" || sig.role == "dir" || sig.role == "pulse";
      if (sig.active == harness::Active::Unsaid || edges) continue;
      const auto input = bench::inputOf(s.bench, m, sig.role);
      const auto pin = s.bench.terminal(sig.pin);
      if (input < 0 || (pin >= 0 && indirect(bench::pathBetween(s.bench, s.nets, pin, input)))) continue;
      const bool statedHigh = sig.active == harness::Active::High;
      const auto level = levelToMove(s, m, s.bench.facts(input).id);
      if (!level || (*level == parts::Level::High) == statedHigh) continue;
      const auto* stated = statedHigh ? "high" : "low";
      const auto* needed = statedHigh ? "low" : "high";
      auto f = finding(
          Severity::Stop, fmt::format("{} is active {}", s.bench.called(input), needed),
          fmt::format("The plan drives {} of {} as active {}; {} has to be {} for {} to move: on and off come out the wrong way round.",
                      sig.role, called(s, m), stated, s.bench.called(input), needed, called(s, m)),
          {s.bench.address(input), idOf(s.bench, m.device)});
      f.ways = {{fmt::format("State {} as active {}, if the program does so.", sig.role, needed), fieldOf(s, m, "signal " + sig.role)},
                {fmt::format("Or write {} the other way round in the program.", s.bench.called(input))}};
      f.formula =
          fmt::format("{} = {} to move, by the truth table of {}", s.bench.facts(input).label, needed, called(s.bench, m.meant.device));
      out.push_back(std::move(f));
    }
  }
  return out;
}

Check check() {
  return {"active-level", "levels", "On and off the wrong way round", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::active_level
