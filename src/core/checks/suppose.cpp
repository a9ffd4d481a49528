#include "core/checks/suppose.h"

#include <fmt/core.h>

#include <algorithm>

#include "core/checks/trial.h"

namespace bold {
namespace {

// By bench::SolvedBench::effort, as repairs are (explain.cpp).
constexpr std::size_t kBudget = 1'500'000;
constexpr std::size_t kOneTrial = 20'000;

std::vector<std::string> telling(const bench::SolvedBench& s) {
  using bench::Action;
  std::vector<std::string> out;
  const auto add = [&](const bench::Command& c) {
    if (std::ranges::count(out, c.id) == 0) out.push_back(c.id);
  };
  const bool together = std::ranges::any_of(s.points, [](const auto& p) { return p->command().action == Action::AllRunning; });
  for (const auto& p : s.points) {
    const auto& c = p->command();
    const bool first = !together && c.motor >= 0 && c.moment == bench::Moment::Running && c.action != Action::Combination;
    if (c.action == Action::AllOff || c.action == Action::AllRunning || c.action == Action::OneSupply || first) add(c);
  }
  return out;
}

}  // namespace

checks::Findings suppose(Analysis& a, const harness::Harness& h, const parts::Library& library, const Options& options) {
  // What is destroyed as it stands hides what else would be, and is mended first.
  const auto destroys = [](const checks::Finding& f) {
    return f.severity == checks::Severity::Stop && f.harm != checks::Harm::WillNotWork;
  };
  if (std::ranges::any_of(a.findings, destroys)) return {};
  const auto stands = asItStands(h);
  // What another position destroys it destroys at rest, with everything running, or by one supply alone.
  auto narrow = options;
  if (narrow.only.empty()) narrow.only = telling(*a.solved);
  std::size_t cost = kOneTrial, spent = 0;
  for (const auto& c : a.judged.cells) cost = std::max(cost, kOneTrial + c->solved->effort());
  int untried = 0;
  const checks::Check::Otherwise otherwise = [&](const harness::Edit& edit) -> std::optional<checks::Findings> {
    if (spent + cost > kBudget) {
      ++untried;
      return std::nullopt;
    }
    spent += cost;
    auto trial = tryOut(stands, edit, library, narrow, a.judged);
    return trial ? std::optional(std::move(trial->findings)) : std::nullopt;
  };
  checks::Findings out;
  for (const auto& check : checks::registry()) {
    const auto* supposing = std::get_if<checks::Check::Supposing>(&check.judge);
    if (!supposing) continue;
    for (auto& f : (*supposing)(*a.solved, a.findings, otherwise)) {
      f.check = check.id;
      f.harm = check.harm;
      out.push_back(std::move(f));
    }
  }
  if (untried > 0)
    a.assumptions.push_back(
        fmt::format("the bench is large: {} position{} of links and step switches not tried", untried, untried == 1 ? " was" : "s were"));
  return out;
}

}  // namespace bold
