#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/program/on_bench.h"

namespace bold::checks::program_timer_taken {
namespace {

struct Claim {
  const UsedPin* by;
  std::string unit;
  std::string what;  // "the servo on D11"
};

// PWM units that something else of the program takes for itself: the usual servo library, and tones on the second timer of AVR.
std::vector<Claim> claims(const SolvedBench& s, const ProgramOnBench& p) {
  std::vector<Claim> out;
  for (const auto& u : p.used()) {
    if (u.pin < 0) continue;
    const auto group = pinGroup(s.bench, u.pin);
    if (!group) continue;
    if (u.use->does.contains("servo") && !group->pins->servoTimer.empty())
      out.push_back({&u, group->pins->servoTimer, fmt::format("the servo on {}", s.bench.facts(u.pin).label)});
    if (u.use->does.contains("tone")) {
      const auto& part = *s.bench.devices[group->device].part;
      if (std::ranges::any_of(part.terminals, [](const parts::Terminal& t) { return t.pin && t.pin->pwm == "TC2"; }))
        out.push_back({&u, "TC2", fmt::format("the tone on {}", s.bench.facts(u.pin).label)});
    }
  }
  return out;
}

const std::string& unitOf(const SolvedBench& s, const UsedPin& u) {
  return s.bench.facts(u.pin).pin->pwm;
}

bool chopped(const SolvedBench& s, const UsedPin& u) {
  return u.pin >= 0 && u.use->does.contains("pwm") && !u.use->does.contains("soft") && s.bench.facts(u.pin).pin && !unitOf(s, u).empty();
}

void taken(const SolvedBench& s, const ProgramOnBench& p, Findings& out) {
  for (const auto& c : claims(s, p))
    for (const auto& u : p.used()) {
      if (&u == c.by || !chopped(s, u) || u.source != c.by->source || unitOf(s, u) != c.unit || !p.wired(u.pin)) continue;
      auto f = programFinding(
          Severity::Stop, fmt::format("{} loses its PWM", s.bench.called(u.pin)),
          fmt::format("The program asks {} for PWM, which {} makes, and that timer is taken by {}: the pin is full on or off.",
                      said(*u.use), c.unit, c.what),
          {s.bench.address(u.pin), s.bench.address(c.by->pin)}, *u.use);
      for (const auto& spot : spotsOf(*c.by->use)) f.spots.push_back(spot);
      f.formula = fmt::format("{} on {}, {} on {}", s.bench.facts(u.pin).label, c.unit, c.what, c.unit);
      f.ways = {{fmt::format("Take a PWM pin of another timer than {} for {}.", c.unit, said(*u.use))}};
      out.push_back(std::move(f));
    }
}

// One timer or slice has one frequency.
void twoRates(const SolvedBench& s, const ProgramOnBench& p, Findings& out) {
  const auto& all = p.used();
  for (std::size_t i = 0; i < all.size(); ++i)
    for (std::size_t k = i + 1; k < all.size(); ++k) {
      const auto &a = all[i], &b = all[k];
      if (!chopped(s, a) || !chopped(s, b) || a.source != b.source || !a.use->frequency || !b.use->frequency) continue;
      const auto &unit = unitOf(s, a), &other = unitOf(s, b);
      // A unit that every pin has is made of channels that can be set each by itself.
      if (unit != other || unit == "PWM" || *a.use->frequency == *b.use->frequency || s.bench.deviceOf(a.pin) != s.bench.deviceOf(b.pin))
        continue;
      auto f = programFinding(
          Severity::Stop, fmt::format("{} and {} share {}", s.bench.called(a.pin), s.bench.facts(b.pin).label, unit),
          fmt::format(
              "The program wants {} on {} and {} on {}; both are made by {}, which has one frequency: the last one counts for both.",
              show(*a.use->frequency), said(*a.use), show(*b.use->frequency), said(*b.use), unit),
          {s.bench.address(a.pin), s.bench.address(b.pin)}, *a.use);
      for (const auto& spot : spotsOf(*b.use)) f.spots.push_back(spot);
      f.formula = fmt::format("{} against {} on {}", show(*a.use->frequency), show(*b.use->frequency), unit);
      f.ways = {{fmt::format("Give both the same frequency, or move one to a pin that {} does not make.", unit)}};
      out.push_back(std::move(f));
    }
}

}  // namespace

// Timers that the program wants for two things at once.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  taken(s, program, out);
  twoRates(s, program, out);
  return out;
}

Check check() {
  return {"program-timer-taken", "program", "One timer for two things", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_timer_taken
