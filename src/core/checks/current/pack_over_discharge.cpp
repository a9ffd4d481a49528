#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::pack_over_discharge {
namespace {

constexpr Metres kNearby{1};

// A protection board between the cell's minus and all that it feeds.
bool protectedBy(const SolvedBench& s, const bench::Nets::Pole& pole) {
  bool any = false;
  eachElement<parts::Resistor>(s.bench, [&](int d, int, const parts::Resistor& r) {
    const auto t = at(s.bench, d, r.a);
    // Its minus goes there and nowhere else.
    any = any ||
          (r.cutsOff && t >= 0 && copperDistance(s.bench, s.nets, pole.negative, t, kNearby) && connectionsAt(s.bench, pole.negative) == 1);
  });
  return any;
}

}  // namespace

// A lithium pack that nothing protects from being emptied too far.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    if (!body.lithium || body.cutsOff || !s.bench.connected(pole.positive) || protectedBy(s, pole)) continue;
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
