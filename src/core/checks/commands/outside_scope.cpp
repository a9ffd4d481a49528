#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr Volts kHighest{60};  // above it a bench is no longer safe to touch, and not what this program knows
}

Findings outsideScope(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Source>(s.bench, [&](int d, int, const parts::Source& source) {
    const auto v = source.full.greatestAs<Volts>();
    if (source.alternating) {
      out.push_back(finding(Severity::NotJudged, fmt::format("{} is an AC source", called(s.bench, d)),
                            "Only direct current up to 60 V is judged.", {idOf(s.bench, d)}));
    } else if (v && *v > kHighest) {
      auto f = finding(Severity::NotJudged, fmt::format("{} gives {}", called(s.bench, d), show(*v)),
                       "Only direct current up to 60 V is judged.", {idOf(s.bench, d)});
      f.formula = fmt::format("{} > {}", show(*v), show(kHighest));
      f.args = {{"voltage", *v}, {"limit", kHighest}};
      out.push_back(std::move(f));
    }
  });
  return out;
}

}  // namespace bold::checks
