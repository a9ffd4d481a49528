#include <fmt/core.h>

#include <algorithm>

#include "core/bench/sensed_pins.h"
#include "core/checks/check.h"
#include "core/checks/program/absence.h"
#include "core/checks/program/absences.h"

namespace bold::checks::program_read_floats {
namespace {

constexpr Ohms kFloating{1e6};

// Whether anything gives the pin a level while nobody presses or moves anything.
bool stands(const SolvedBench& s, TerminalIndex pin) {
  const auto group = pinGroup(s.bench, pin);
  const auto* rest = s.point(Action::AllOff, Corner::Nominal);
  if (!group || !rest) return true;  // not known: nothing is said
  const auto low = rest->resistance(pin, group->ground);
  const auto high = rest->resistance(pin, group->rail);
  return (low && *low < kFloating) || (high && *high < kFloating);
}

}  // namespace

Absences absences(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Absences out;
  const auto sensed = bench::sensedPins(s);
  for (const auto& u : program.used()) {
    const auto& does = u.use->does;
    if (u.pin < 0 || !does.contains("read") || does.contains("pull-up") || does.contains("pull-down") || does.contains("output")) continue;
    const auto x = std::ranges::find(sensed, u.pin, &bench::SensedPin::pin);
    const bool open = !program.wired(u.pin);
    if (!open && (x == sensed.end() || x->element < 0 || stands(s, u.pin))) continue;
    const auto pin = s.bench.called(u.pin);
    auto f = programFinding(
        Severity::Caution, open ? fmt::format("{} is read and not wired", pin) : fmt::format("{} floats while it is read", pin),
        open ? fmt::format("The program reads {}, and nothing is wired there: it reads anything.", said(*u.use))
             : fmt::format("The program reads {} without a pull-up or pull-down, and nothing else gives it a level while {} is open.",
                           said(*u.use), called(s.bench, x->device)),
        {s.bench.address(u.pin)}, *u.use);
    if (!open) f.subjects.push_back(idOf(s.bench, x->device));
    f.formula = fmt::format("{}: no pull, no other path", s.bench.facts(u.pin).label);
    f.ways = {{open ? fmt::format("Wire {} to what it reads, or take it out of the program.", pin)
                    : fmt::format("Let the program switch a pull on at {}, or add a resistor.", said(*u.use))}};
    out.push_back({std::move(f), {u.pin}, {}});
  }
  return out;
}

// A pin that the program reads, with a contact on it that is open at rest and no pull: it reads anything.
Findings judge(const ProgramOnBench& program) {
  return standing(program, absences(program));
}

Check check() {
  return {"program-read-floats", "program", "A pin that is read and floats", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_read_floats
