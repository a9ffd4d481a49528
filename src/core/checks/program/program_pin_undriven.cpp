#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/mismatch.h"

namespace bold::checks::program_pin_undriven {

namespace {

// Motors none of whose pins the program drives are one thing: it may not be their turn yet.
void whole(const SolvedBench& s, const ProgramOnBench& program, std::vector<const WiredRole*>& undriven, Findings& out) {
  std::string motors, pins;
  std::vector<std::string> subjects;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto roles = program.rolesOf(static_cast<int>(k));
    const bool any = std::ranges::any_of(roles, [&](const WiredRole* r) {
      const auto* u = program.at(r->pin);
      return u && drives(*u->use) && (u->use->name.empty() || fitsMotor(s, u->use->name, static_cast<int>(k)) > 0);
    });
    const auto open = std::ranges::count_if(undriven, [&](const WiredRole* r) { return r->motor == static_cast<int>(k); });
    if (roles.empty() || any || open == 0) continue;
    motors += (motors.empty() ? "" : ", ") + called(s, s.motors[k]);
    subjects.push_back(idOf(s.bench, s.motors[k].device));
    for (const auto* r : roles)
      if (std::ranges::count(undriven, r) > 0) {
        pins += (pins.empty() ? "" : ", ") + s.bench.facts(r->pin).label;
        subjects.push_back(s.bench.address(r->pin));
      }
    std::erase_if(undriven, [&](const WiredRole* r) { return r->motor == static_cast<int>(k); });
  }
  if (motors.empty()) return;
  auto f = finding(Severity::Caution, fmt::format("The program never drives {}", motors),
                   fmt::format("{} wired to {}, and the program drives none of these for {}: the inputs there are left to themselves.",
                               motors.find(',') == std::string::npos ? motors + " is" : motors + " are", pins,
                               motors.find(',') == std::string::npos ? "it" : "them"),
                   std::move(subjects));
  f.formula = fmt::format("{}: not among the pins that are driven", pins);
  f.ways = {{"Let the program drive them, or keep their stages off meanwhile."}};
  out.push_back(std::move(f));
}

}  // namespace

// A pin that is wired to an input of a stage, and that the program never drives.
Findings judge(const SolvedBench& s) {
  Findings out;
  const ProgramOnBench program(s);
  auto undriven = mismatchOf(program).undriven;
  whole(s, program, undriven, out);
  for (const auto* r : undriven) {
    const auto& m = s.motors[r->motor];
    const auto pin = s.bench.called(r->pin);
    const auto* used = program.at(r->pin);
    const bool unsure = untold(program, s.bench.deviceOf(r->pin));
    // A direction that nobody drives only takes the other way from it.
    const bool oneWay = r->role == "dir" && m.intent && !m.intent->bothDirections;
    const bool maybe = used && drives(*used->use);
    const auto* says = maybe                                ? "drives it only where nobody can tell whether it comes to that"
                       : !used                              ? "never names it"
                       : used->use->does.contains("output") ? "makes it an output and never writes it"
                                                            : "only reads it";
    auto f = finding(unsure || oneWay || maybe ? Severity::Caution : Severity::Stop, fmt::format("The program never drives {}", pin),
                     fmt::format("{} of {} is wired to {}, and the program {}{}.", s.bench.called(r->input), called(s, m), pin, says,
                                 unsure ? "; some of its pins could not be told" : ""),
                     {s.bench.address(r->pin), s.bench.address(r->input), idOf(s.bench, m.device)});
    if (used) f.spots = spotsOf(*used->use);
    f.formula = fmt::format("{} for {}: not among the pins that are driven", s.bench.facts(r->pin).label, r->role);
    f.ways = {{fmt::format("Let the program drive {}, or tie {} to the level it needs.", pin, s.bench.called(r->input))}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-pin-undriven", "program", "A wired pin that the program never drives", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pin_undriven
