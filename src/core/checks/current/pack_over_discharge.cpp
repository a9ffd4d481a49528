#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pack_over_discharge {
// A lithium pack that nothing protects from being emptied too far.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    if (!body.lithium || body.cutsOff || !s.bench.connected(pole.positive)) continue;
    auto f = finding(
        Severity::Caution, fmt::format("{} has no cut-off", called(s.bench, pole.device)),
        fmt::format("Nothing stops {} from being emptied below {}: a lithium cell taken below that is spoilt and may burn when charged.",
                    called(s.bench, pole.device), displayText(body.empty)),
        {idOf(s.bench, pole.device)});
    f.ways = {{fmt::format("Take a pack with a protection board, or put a low-voltage alarm on {}.", called(s.bench, pole.device))}};
    f.formula = "lithium, without protection of its own";
    f.sources = sourcesOf({&body.empty});
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"pack-over-discharge", "current", "A lithium pack without cut-off", Harm::Danger, judge};
}

}  // namespace bold::checks::pack_over_discharge
