#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"
#include "core/checks/program/mismatch.h"

namespace bold::checks::program_pin_undriven {

namespace {

// Motors none of whose pins the program drives are one thing: it may not be their turn yet.
// (What may drive some of them takes these motors out of it.)
void whole(const SolvedBench& s, const ProgramOnBench& program, std::vector<const WiredRole*>& undriven, bool open, Absences& out) {
  std::string motors, pins;
  std::vector<std::string> subjects;
  Absence one;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto roles = program.rolesOf(static_cast<int>(k));
    const bool any = std::ranges::any_of(roles, [&](const WiredRole* r) {
      const auto* u = program.at(r->pin);
      return u && drives(*u->use) && (u->use->name.empty() || fitsMotor(s, u->use->name, static_cast<int>(k)) > 0);
    });
    // Of one that something open may drive, the pins that it cannot reach are claims by themselves.
    const auto counts = [&](const WiredRole* r) { return !open || program.openAt(r->pin); };
    const auto left = std::ranges::count_if(undriven, [&](const WiredRole* r) { return r->motor == static_cast<int>(k) && counts(r); });
    const bool told = std::ranges::none_of(roles, [&](const WiredRole* r) { return program.openAt(r->pin) != nullptr; });
    if (roles.empty() || any || left == 0 || told == open) continue;
    one.motors.push_back(static_cast<int>(k));
    motors += (motors.empty() ? "" : ", ") + called(s, s.motors[k]);
    subjects.push_back(idOf(s.bench, s.motors[k].device));
    for (const auto* r : roles)
      if (std::ranges::count(undriven, r) > 0 && counts(r)) {
        pins += (pins.empty() ? "" : ", ") + s.bench.facts(r->pin).label;
        one.pins.push_back(r->pin);
        subjects.push_back(s.bench.address(r->pin));
      }
    std::erase_if(undriven, [&](const WiredRole* r) { return r->motor == static_cast<int>(k) && counts(r); });
  }
  if (motors.empty()) return;
  auto f = finding(Severity::Caution, fmt::format("The program never drives {}", motors),
                   fmt::format("{} wired to {}, and the program drives none of these for {}: the inputs there are left to themselves.",
                               motors.find(',') == std::string::npos ? motors + " is" : motors + " are", pins,
                               motors.find(',') == std::string::npos ? "it" : "them"),
                   std::move(subjects));
  f.formula = fmt::format("{}: not among the pins that are driven", pins);
  f.ways = {{"Let the program drive them, or keep their stages off meanwhile."}};
  one.finding = std::move(f);
  out.push_back(std::move(one));
}

}  // namespace

Absences absences(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Absences out;
  auto undriven = program.mismatch().undriven;
  whole(s, program, undriven, false, out);
  whole(s, program, undriven, true, out);
  for (const auto* r : undriven) {
    const auto& m = s.motors[r->motor];
    const auto pin = s.bench.called(r->pin);
    const auto* used = program.at(r->pin);
    if (used && !writes(*used->use) && drives(*used->use))
      continue;  // an output that nobody writes stands low: what it serves is asked elsewhere
    // A direction that nobody drives only takes the other way from it.
    const bool oneWay = r->role == "dir" && m.intent && !m.intent->bothDirections;
    const bool maybe = used && writes(*used->use);
    const auto* says = maybe ? "drives it only where nobody can tell whether it comes to that" : !used ? "never names it" : "only reads it";
    auto f = finding(oneWay || maybe ? Severity::Caution : Severity::Stop, fmt::format("The program never drives {}", pin),
                     fmt::format("{} of {} is wired to {}, and the program {}.", s.bench.called(r->input), called(s, m), pin, says),
                     {s.bench.address(r->pin), s.bench.address(r->input), idOf(s.bench, m.device)});
    if (used) f.spots = spotsOf(*used->use);
    f.formula = fmt::format("{} for {}: not among the pins that are driven", s.bench.facts(r->pin).label, r->role);
    f.ways = {{fmt::format("Let the program drive {}, or tie {} to the level it needs.", pin, s.bench.called(r->input))}};
    out.push_back({std::move(f), {r->pin}, {r->motor}});
  }
  return out;
}

// A pin that is wired to an input of a stage, and that the program never drives.
Findings judge(const ProgramOnBench& program) {
  return standing(program, absences(program));
}

Check check() {
  return {"program-pin-undriven", "program", "A wired pin that the program never drives", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pin_undriven
