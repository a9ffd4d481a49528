#include "core/checks/program/absence.h"

namespace bold::checks {

const harness::Untold* openFor(const ProgramOnBench& program, const Absence& absence) {
  for (const auto pin : absence.pins)
    if (const auto* u = program.openAt(pin)) return u;
  return nullptr;
}

Findings standing(const ProgramOnBench& program, Absences absences) {
  Findings out;
  for (auto& a : absences)
    if (!openFor(program, a)) out.push_back(std::move(a.finding));
  return out;
}

}  // namespace bold::checks
