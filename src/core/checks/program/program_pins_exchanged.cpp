#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::program_pins_exchanged {
namespace {

struct Pair {
  const WiredRole *a, *b;
  const UsedPin *usedA, *usedB;
  bool motors;  // else two roles of one motor
};

// What the call that is given a pin uses it for; empty: nobody says. Of two inputs of a bridge either may come first.
std::string givenRole(const UsedPin& used) {
  for (const auto& g : used.source->groups)
    for (std::size_t k = 0; k < g.roles.size() && k < g.words.size(); ++k)
      if (g.words[k] == used.use->word && !g.roles[k].starts_with("in") && g.kind != "together" && g.kind != "channel") return g.roles[k];
  return {};
}

int fitsUse(const SolvedBench& s, const UsedPin& used, const WiredRole& role) {
  constexpr int kGiven = 2;  // a call knows better than a name
  return fitsRole(s, used.use->name, role) + (givenRole(used) == role.role ? kGiven : 0);
}

// By what the source calls two pins, or hands them over as, each belongs where the other is wired.
std::optional<Pair> exchanged(const SolvedBench& s, const ProgramOnBench& p, const WiredRole& a, const WiredRole& b) {
  const auto *usedA = p.at(a.pin), *usedB = p.at(b.pin);
  if (a.pin == b.pin || !usedA || !usedB) return std::nullopt;
  if (a.motor == b.motor) {
    const auto coils = [&](const WiredRole& r) { return r.role.starts_with("in") && s.motors[r.motor].kind != MotorKind::TwoLead; };
    if (coils(a) && coils(b)) return std::nullopt;  // their order is program-coil-order's matter
    const bool cross = fitsUse(s, *usedA, b) > fitsUse(s, *usedA, a) && fitsUse(s, *usedB, a) > fitsUse(s, *usedB, b);
    return cross ? std::optional(Pair{&a, &b, usedA, usedB, false}) : std::nullopt;
  }
  const auto &nameA = usedA->use->name, &nameB = usedB->use->name;
  if (a.role != b.role || nameA.empty() || nameB.empty()) return std::nullopt;
  const bool cross =
      fitsMotor(s, nameA, b.motor) > fitsMotor(s, nameA, a.motor) && fitsMotor(s, nameB, a.motor) > fitsMotor(s, nameB, b.motor);
  return cross ? std::optional(Pair{&a, &b, usedA, usedB, true}) : std::nullopt;
}

std::string calledThere(const UsedPin& used) {
  return givenRole(used).empty() ? used.use->name : givenRole(used);
}

// "calls 5 IN1 and 7 ENA", "uses 3 as step and 2 as dir"
std::string meant(const Pair& x) {
  const auto roleA = givenRole(*x.usedA), roleB = givenRole(*x.usedB);
  const auto &a = *x.usedA->use, &b = *x.usedB->use;
  if (roleA.empty() || roleB.empty())
    return fmt::format("calls {} {} and {} {}", a.word, calledThere(*x.usedA), b.word, calledThere(*x.usedB));
  return fmt::format("uses {} as {} and {} as {}", a.word, roleA, b.word, roleB);
}

// The other way round is no fault of a pair of direction inputs.
bool onlyTurnsRound(const WiredRole& a, const WiredRole& b) {
  return a.role.starts_with("in") && b.role.starts_with("in");
}

}  // namespace

// Two pins that the source names for what the wires bring to each other's.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  const auto& roles = program.roles();
  for (std::size_t i = 0; i < roles.size(); ++i)
    for (std::size_t k = i + 1; k < roles.size(); ++k) {
      const auto x = exchanged(s, program, roles[i], roles[k]);
      if (!x) continue;
      const bool round = !x->motors && onlyTurnsRound(*x->a, *x->b);
      const auto inputA = s.bench.called(x->a->input), inputB = s.bench.called(x->b->input);
      auto f = programFinding(
          round ? Severity::Caution : Severity::Stop,
          x->motors ? fmt::format("{} and {} are exchanged", called(s, s.motors[x->a->motor]), called(s, s.motors[x->b->motor]))
                    : fmt::format("{} and {} are exchanged", s.bench.called(x->a->pin), s.bench.facts(x->b->pin).label),
          fmt::format("The program {}; {} is wired to {}{}, {} to {}{}.", meant(*x), s.bench.called(x->a->pin), inputA,
                      x->motors ? " for " + called(s, s.motors[x->a->motor]) : "", s.bench.called(x->b->pin), inputB,
                      x->motors ? " for " + called(s, s.motors[x->b->motor]) : ""),
          {s.bench.address(x->a->pin), s.bench.address(x->b->pin)}, *x->usedA->use);
      for (const auto& spot : spotsOf(*x->usedB->use)) f.spots.push_back(spot);
      f.formula = fmt::format("{} at {}, {} at {}", calledThere(*x->usedA), inputA, calledThere(*x->usedB), inputB);
      const auto exchange = fmt::format("xchange {} and {} in {}.", x->usedA->use->word, x->usedB->use->word,
                                        f.spots.empty() ? std::string("the program") : where(f.spots.front()));
      f.ways = {{"E" + exchange}};
      if (stated(s, *x->a) || stated(s, *x->b)) {
        out.push_back(std::move(f));
        continue;
      }
      f.repair = RepairDraft(s.bench)
                     .exchange(x->a->pin, x->b->pin)
                     .repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, x->a->pin), found(s.bench, x->b->pin)));
      f.ways = {{"Or e" + exchange}};
      out.push_back(std::move(f));
    }
  return out;
}

Check check() {
  return {"program-pins-exchanged", "program", "Two pins of the program exchanged", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_pins_exchanged
