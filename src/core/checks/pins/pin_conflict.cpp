#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pin_conflict {
namespace {

// "enable" of "enable2": of one stage with two.
std::string_view plain(std::string_view role) {
  return role.substr(0, role.find_last_not_of("0123456789") + 1);
}

// Roles that several motors, or both sides of one stage, may share without harm.
bool shareable(std::string_view role) {
  return role == "standby" || role == "enable" || role == "sleep" || role == "reset";
}

// Two carriers on one step and one direction pin make the same moves: a gantry.
bool moveAlike(const harness::Intent& a, const harness::Intent& b, const std::string& role) {
  return (role == "step" || role == "dir") && a.bothDirections == b.bothDirections && a.hold == b.hold;
}

// On one channel and meant alike: two motors in parallel.
bool actTogether(const SolvedBench& s, const std::string& a, const std::string& b) {
  const auto find = [&](const std::string& id) { return std::ranges::find(s.motors, s.bench.deviceIndex(id), &Motor::device); };
  const auto one = find(a);
  const auto other = find(b);
  if (one == s.motors.end() || other == s.motors.end()) return false;
  return std::ranges::count(bench::together(s.motors, indexOf(s, *one)), indexOf(s, *other)) > 0;
}

// The usual servo library takes a timer for itself: PWM on its other pins is lost.
void servoTimers(const SolvedBench& s, Findings& out) {
  for (const auto& servo : s.motors) {
    if (servo.kind != bench::MotorKind::Servo || !servo.intent) continue;
    for (const auto& pulse : servo.intent->signals) {
      const auto group = pinGroup(s.bench, s.bench.terminal(pulse.pin));
      if (pulse.role != "pulse" || !group || group->pins->servoTimer.empty()) continue;
      for (const auto& m : s.motors) {
        if (!m.intent) continue;
        for (const auto* sig : harness::dutySignals(*m.intent)) {
          const auto t = s.bench.terminal(sig->pin);
          if (t < 0 || s.bench.deviceOf(t) != group->device || !s.bench.facts(t).pin ||
              s.bench.facts(t).pin->pwm != group->pins->servoTimer)
            continue;
          auto f = finding(Severity::Caution, fmt::format("{} loses its PWM to the servo", s.bench.called(t)),
                           fmt::format("The usual servo library takes {} for {}; {} of {} needs the same timer for its PWM.",
                                       group->pins->servoTimer, called(s, servo), s.bench.called(t), called(s, m)),
                           {s.bench.address(t), idOf(s.bench, servo.device)});
          f.ways = {{fmt::format("Take a PWM pin of another timer than {} for {} of {}.", group->pins->servoTimer, s.bench.called(t),
                                 called(s, m)),
                     fieldOf(s, m, "signals")}};
          f.formula = fmt::format("{} and the servo share {}", s.bench.facts(t).label, group->pins->servoTimer);
          out.push_back(std::move(f));
        }
      }
    }
  }
}

// A pin that a stacked board takes for itself, used by the intent for something else.
void stackedBoards(const SolvedBench& s, Findings& out) {
  for (const auto& m : s.motors) {
    if (!m.intent) continue;
    for (const auto& sig : m.intent->signals) {
      const auto pin = s.bench.terminal(sig.pin);
      if (pin < 0 || !pinGroup(s.bench, pin)) continue;
      for (const auto t : s.nets.members(s.nets.of(pin))) {
        const auto& facts = s.bench.facts(t);
        const int d = s.bench.deviceOf(t);
        if (!facts.input || d == s.bench.deviceOf(pin)) continue;
        const auto& part = *s.bench.devices[d].part;
        const bool channelInput = std::ranges::any_of(part.channels, [&](const parts::Channel& c) {
          return std::ranges::any_of(c.signals, [&](const auto& role) { return role.second == facts.id; });
        });
        const bool servoInput = m.device == d;
        if (channelInput || servoInput || part.channels.empty() || facts.aliases.empty()) continue;
        auto f = finding(Severity::Stop, fmt::format("{} is taken by {}", s.bench.called(pin), called(s.bench, d)),
                         fmt::format("{} uses {} as its {}; the plan wants it for {} of {}.", called(s.bench, d), s.bench.called(pin),
                                     facts.aliases.front(), sig.role, called(s, m)),
                         {s.bench.address(pin), idOf(s.bench, d)});
        f.ways = {{fmt::format("Take another pin than {} for {} of {}.", s.bench.called(pin), sig.role, called(s, m)),
                   fieldOf(s, m, "signal " + sig.role)}};
        f.formula = fmt::format("{} = {}", facts.label, facts.aliases.front());
        out.push_back(std::move(f));
      }
    }
  }
}

}  // namespace

// One pin with two jobs, and two driven pins on one net.
Findings judge(const SolvedBench& s) {
  Findings out;
  struct Job {
    const harness::Intent* intent;
    const harness::Signal* signal;
    bool reads;
  };
  std::map<TerminalIndex, std::vector<Job>> jobs;
  for (const auto* list : {&s.bench.intents, &s.bench.reads})
    for (const auto& intent : *list)
      for (const auto& signal : intent.signals)
        if (const auto t = s.bench.terminal(signal.pin); t >= 0) jobs[t].push_back({&intent, &signal, list == &s.bench.reads});
  for (const auto& [t, jobsHere] : jobs) {
    const auto& list = jobsHere;  // a lambda below needs it, and not every compiler lets it take a binding
    const bool shared = std::ranges::all_of(list, [&](const Job& j) {
      const auto& first = list.front();
      if (shareable(plain(j.signal->role)) && plain(j.signal->role) == plain(first.signal->role)) return true;
      return j.signal->role == first.signal->role &&
             (moveAlike(*first.intent, *j.intent, j.signal->role) || actTogether(s, first.intent->motor, j.intent->motor));
    });
    const bool read = std::ranges::all_of(list, &Job::reads);  // two buttons on one pin: either will do
    if (list.size() < 2 || shared || read) continue;
    std::vector<std::string> subjects{s.bench.address(t)};
    std::string names;
    for (const auto& j : list) {
      names += fmt::format("{}{} of {}", names.empty() ? "" : " and ", j.signal->role, j.intent->motor);
      if (std::ranges::count(subjects, j.intent->motor) == 0) subjects.push_back(j.intent->motor);
    }
    auto f = finding(Severity::Stop, fmt::format("{} has two jobs", s.bench.called(t)),
                     fmt::format("The plan uses {} for {}.", s.bench.called(t), names), subjects);
    f.ways = {{fmt::format("Give one of them another pin than {}, in the wires and in the program.", s.bench.called(t))}};
    f.formula = names;
    out.push_back(std::move(f));
  }
  std::set<std::pair<TerminalIndex, TerminalIndex>> told;
  for (const auto& [a, listA] : jobs)
    for (const auto& [b, listB] : jobs) {
      if (std::ranges::any_of(listA, &Job::reads) || std::ranges::any_of(listB, &Job::reads)) continue;
      if (a >= b || !s.nets.same(a, b) || !pinGroup(s.bench, a) || !pinGroup(s.bench, b) || !told.emplace(a, b).second) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} are joined", s.bench.called(a), s.bench.facts(b).label),
                       fmt::format("The program drives both {} and {}, and a wire joins them: one high and the other low is a short.",
                                   s.bench.called(a), s.bench.called(b)),
                       {s.bench.address(a), s.bench.address(b)});
      f.ways = {{fmt::format("Take the wire between {} and {} away, or drive one of them only.", s.bench.called(a), s.bench.called(b))}};
      f.formula = fmt::format("{} and {} are one net", s.bench.called(a), s.bench.called(b));
      out.push_back(std::move(f));
    }
  servoTimers(s, out);
  stackedBoards(s, out);
  return out;
}

Check check() {
  return {"pin-conflict", "pins", "Two jobs for one pin, two pins on one net", Harm::Damage, judge};
}

}  // namespace bold::checks::pin_conflict
