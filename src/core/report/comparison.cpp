#include "core/report/comparison.h"

#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/margin_words.h"
#include "core/harness/differences.h"

namespace bold::report {
namespace {

constexpr double kShift = 0.05;  // of the way to a limit: less is no difference to anybody

std::map<std::string, checks::Severity> graveness(const Analysis& a) {
  std::map<std::string, checks::Severity> out;
  for (const auto& f : a.findings)
    if (f.severity != checks::Severity::Note) out.emplace(f.identity(), f.severity);
  return out;
}

// Those that the other bench has not, or has milder.
checks::Findings onlyIn(const Analysis& a, const Analysis& other) {
  const auto there = graveness(other);
  checks::Findings out;
  for (const auto& f : a.findings) {
    if (f.severity == checks::Severity::Note) continue;
    const auto it = there.find(f.identity());
    if (it == there.end() || it->second > f.severity) out.push_back(f);
  }
  return out;
}

}  // namespace

Comparison compare(const harness::Harness& from, const Analysis& before, const harness::Harness& to, const Analysis& after) {
  Comparison out;
  out.changes = harness::differences(from, to);
  out.before = headline(before.verdict);
  out.after = headline(after.verdict);
  out.fresh = onlyIn(after, before);
  out.gone = onlyIn(before, after);
  std::map<std::string, double> was;
  for (const auto& m : before.margins())
    if (const auto used = m.used()) was.emplace(m.identity(), *used);
  const auto margins = after.margins();
  for (const auto& m : margins) {
    const auto it = was.find(m.identity());
    const auto used = m.used();
    if (it == was.end() || !used || std::abs(*used - it->second) < kShift) continue;
    MarginShift shift{m.quantity, it->second, *used};
    if (after.solved) shift.name = fmt::format("{} of {}", m.quantity, checks::placeOf(after.solved->bench, m));
    (*used > it->second ? out.worse : out.better).push_back(std::move(shift));
  }
  const auto much = [](const MarginShift& s) { return -std::abs(s.after - s.before); };
  std::ranges::stable_sort(out.worse, {}, much);
  std::ranges::stable_sort(out.better, {}, much);
  return out;
}

}  // namespace bold::report
