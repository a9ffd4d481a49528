#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// Roles that several motors of one stage may share without harm.
bool shareable(const std::string& role) {
  return role == "standby" || role == "enable" || role == "sleep" || role == "reset";
}

}  // namespace

// One pin with two jobs, and two driven pins on one net.
Findings pinConflict(const SolvedBench& s) {
  Findings out;
  struct Job {
    const harness::Intent* intent;
    const harness::Signal* signal;
  };
  std::map<TerminalIndex, std::vector<Job>> jobs;
  for (const auto& intent : s.bench.intents)
    for (const auto& signal : intent.signals)
      if (const auto t = s.bench.terminal(signal.pin); t >= 0) jobs[t].push_back({&intent, &signal});
  for (const auto& [t, jobsHere] : jobs) {
    const auto& list = jobsHere;  // a lambda below needs it, and not every compiler lets it take a binding
    const bool shared =
        std::ranges::all_of(list, [&](const Job& j) { return shareable(j.signal->role) && j.signal->role == list.front().signal->role; });
    if (list.size() < 2 || shared) continue;
    std::vector<std::string> subjects{s.bench.address(t)};
    std::string names;
    for (const auto& j : list) {
      names += fmt::format("{}{} of {}", names.empty() ? "" : " and ", j.signal->role, j.intent->motor);
      if (std::ranges::count(subjects, j.intent->motor) == 0) subjects.push_back(j.intent->motor);
    }
    auto f = finding(Severity::Stop, fmt::format("{} has two jobs", s.bench.called(t)),
                     fmt::format("The plan uses {} for {}.", s.bench.called(t), names), subjects);
    f.formula = names;
    out.push_back(std::move(f));
  }
  std::set<std::pair<TerminalIndex, TerminalIndex>> told;
  for (const auto& [a, listA] : jobs)
    for (const auto& [b, listB] : jobs) {
      if (a >= b || !s.nets.same(a, b) || !pinGroup(s.bench, a) || !pinGroup(s.bench, b) || !told.emplace(a, b).second) continue;
      auto f = finding(Severity::Stop, fmt::format("{} and {} are joined", s.bench.called(a), s.bench.facts(b).label),
                       fmt::format("The program drives both {} and {}, and a wire joins them: one high and the other low is a short.",
                                   s.bench.called(a), s.bench.called(b)),
                       {s.bench.address(a), s.bench.address(b)});
      f.formula = fmt::format("{} and {} are one net", s.bench.called(a), s.bench.called(b));
      out.push_back(std::move(f));
    }
  return out;
}

}  // namespace bold::checks
