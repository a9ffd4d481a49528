#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_both_high {
namespace {

const UsedPin* usedAt(const ProgramOnBench& program, const harness::SourceRead& source, const harness::PinGroup& together,
                      const WiredRole* role) {
  const auto* u = role ? program.at(role->pin) : nullptr;
  return u && u->source == &source && std::ranges::count(together.words, u->use->word) > 0 ? u : nullptr;
}

}  // namespace

// Both inputs of one bridge are on at once: it holds both ends of its motor alike. A function that says so by its name means it.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    if (s.motors[m].kind != MotorKind::TwoLead) continue;
    const auto roles = program.rolesOf(static_cast<int>(m));
    const auto of = [&](const char* role) {
      const auto it = std::ranges::find(roles, role, &WiredRole::role);
      return it == roles.end() ? nullptr : *it;
    };
    const auto *first = of("in1"), *second = of("in2");
    if (!first || !second || first->pin == second->pin) continue;
    for (const auto& source : s.bench.sources) {
      const auto group = std::ranges::find_if(source.groups, [&](const harness::PinGroup& g) {
        return g.kind == "together" && usedAt(program, source, g, first) && usedAt(program, source, g, second);
      });
      if (group == source.groups.end()) continue;
      const auto &a = *usedAt(program, source, *group, first)->use, &b = *usedAt(program, source, *group, second)->use;
      // One that is never low leaves only one direction: program-goal-unserved says so where both are meant.
      const auto* intent = s.motors[m].intent;
      if (intent && intent->bothDirections && !(a.does.contains("low") && b.does.contains("low"))) continue;
      const auto& motor = called(s, s.motors[m]);
      auto f = programFinding(
          Severity::Caution, fmt::format("Both inputs of {} are high at once", motor),
          fmt::format("From {} on {} and {} are both high: the bridge holds both ends of {} alike, and it brakes instead of turning.",
                      where(group->place), said(a), said(b), motor),
          {idOf(s.bench, s.motors[m].device), s.bench.address(first->pin), s.bench.address(second->pin)}, a);
      f.spots = {group->place};
      f.formula = fmt::format("{} high, {} high", said(a), said(b));
      f.ways = {{fmt::format("Write one of {} and {} low where {} is to turn.", said(a), said(b), motor)},
                {"If it is meant to brake, do it in a function whose name says so."}};
      out.push_back(std::move(f));
      break;
    }
  }
  return out;
}

Check check() {
  return {"program-both-high", "program", "Both inputs of a bridge high at once", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_both_high
