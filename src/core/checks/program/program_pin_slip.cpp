#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/mismatch.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::program_pin_slip {
namespace {

int onlyWireAt(const SolvedBench& s, TerminalIndex t) {
  int found = -1;
  for (std::size_t c = 0; c < s.bench.connections.size(); ++c)
    if (s.bench.terminal(s.bench.connections[c].a) == t || s.bench.terminal(s.bench.connections[c].b) == t) {
      if (found >= 0) return -1;
      found = static_cast<int>(c);
    }
  return found;
}

std::string landsOn(const SolvedBench& s, const ProgramOnBench& program, const Slip& slip) {
  if (slip.used->pin < 0) return "which " + called(s.bench, s.bench.deviceOf(slip.role->pin)) + " does not have";
  const auto pin = s.bench.called(slip.used->pin);
  const auto roles = program.rolesAt(slip.used->pin);
  if (roles.empty()) return fmt::format("which is {} and has no wire", pin);
  return fmt::format("which is {} and is wired to {} of {}", pin, s.bench.called(roles.front()->input),
                     called(s, s.motors[roles.front()->motor]));
}

}  // namespace

// One pin of the program has no wire and one wire has no pin of the program: they were meant for each other.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  for (const auto& slip : program.mismatch().slips) {
    auto use = *slip.used->use;  // as it was meant
    use.name = slip.name;
    if (slip.spot.line > 0) use.number = slip.spot;
    const UsedPin meant{slip.used->source, &use, slip.used->pin};
    const auto& role = *slip.role;
    const auto wired = s.bench.called(role.pin);
    const auto input = s.bench.called(role.input);
    const auto& motor = called(s, s.motors[role.motor]);
    const bool open = program.openAt(role.pin) != nullptr;
    auto f =
        programFinding(open ? Severity::Caution : Severity::Stop, fmt::format("The program drives {} where {} is wired", said(use), wired),
                       fmt::format("{} of {} is wired to {}, which the program {}; it drives {}, {}{}.", input, motor, wired,
                                   open ? "does not drive as far as it could be told" : "never drives", said(use),
                                   landsOn(s, program, slip), slip.how.empty() ? "" : ": " + slip.how),
                       {s.bench.address(role.pin), s.bench.address(role.input)}, use);
    if (slip.used->pin >= 0) f.subjects.push_back(s.bench.address(slip.used->pin));
    f.formula = fmt::format("program {}, wires {}", said(use), inWordsOf(s, use, role.pin));
    f.ways = {{changeTo(s, meant, role.pin) + "."}};
    const int wire = onlyWireAt(s, role.pin);
    if (slip.used->pin >= 0 && wire >= 0 && !program.wired(slip.used->pin) && !stated(s, role)) {
      const auto move = fmt::format("ove the wire from {} to {}", found(s.bench, role.pin), found(s.bench, slip.used->pin));
      f.repair = RepairDraft(s.bench).move(wire, role.pin, slip.used->pin).repair("M" + move + ".");
      f.ways = {{fmt::format("Or c{}.", changeTo(s, meant, role.pin).substr(1))}};
    }
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-pin-slip", "program", "A pin of the program that was meant for another", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pin_slip
