#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_channel_shared {

// Pins of two motors that the program joins to one channel of a timer: both get the same duty, always.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& source : s.bench.sources)
    for (const auto& g : source.groups) {
      if (g.kind != "channel") continue;
      std::vector<const WiredRole*> roles;  // one a motor
      for (const auto& r : program.roles()) {
        const auto* u = program.at(r.pin);
        const bool joined = u && u->source == &source && std::ranges::count(g.words, u->use->word) > 0;
        if (joined && std::ranges::none_of(roles, [&](const WiredRole* x) { return x->motor == r.motor; })) roles.push_back(&r);
      }
      if (roles.size() < 2) continue;
      const auto together = [&](const WiredRole* r) { return s.motors[r->motor].intent && s.motors[r->motor].intent->together; };
      if (std::ranges::all_of(roles, together)) continue;
      std::string motors, pins;
      std::vector<std::string> subjects;
      for (const auto* r : roles) {
        motors += (motors.empty() ? "" : " and ") + called(s, s.motors[r->motor]);
        pins += (pins.empty() ? "" : " and ") + s.bench.facts(r->pin).label;
        subjects.push_back(s.bench.address(r->pin));
        subjects.push_back(idOf(s.bench, s.motors[r->motor].device));
      }
      auto f = programFinding(Severity::Stop, fmt::format("{} share one PWM channel", motors),
                              fmt::format("The program joins {} to one channel of a timer: {} always get the same duty.", pins, motors),
                              std::move(subjects), *program.at(roles.front()->pin)->use);
      f.spots.insert(f.spots.begin(), g.place);
      f.formula = fmt::format("{}: one channel", pins);
      f.ways = {{fmt::format("Give {} a channel of its own.", called(s, s.motors[roles.back()->motor]))},
                {"Or state that these motors run together.", fieldOf(s, s.motors[roles.back()->motor], "together")}};
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"program-channel-shared", "program", "Two motors of the program on one PWM channel", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_channel_shared
