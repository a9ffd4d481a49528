#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/parts/read_element.h"

namespace bold::checks::pack_over_discharge {
namespace {

constexpr Metres kNearby{1};

// Whether anything but the cell and its board has an end on the cell's minus: its current goes past the protection.
bool passedBy(const SolvedBench& s, const bench::Nets::Pole& pole, TerminalIndex minus) {
  const int board = s.bench.deviceOf(minus);
  auto cellSide = s.bench;
  std::erase_if(cellSide.links, [&](const bench::Link& l) {
    return (s.bench.deviceOf(l.a) == board && l.a != minus) || (s.bench.deviceOf(l.b) == board && l.b != minus);
  });
  const bench::Nets nets(cellSide);
  const int net = nets.of(pole.negative);
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    const auto& device = s.bench.devices[d];
    if (static_cast<int>(d) == board || static_cast<int>(d) == pole.device) continue;
    for (const auto& e : device.part->elements) {
      if (!device.has(e)) continue;
      bool here = false;
      bool beyond = false;  // what has all its ends there is only a way
      for (const auto& n : parts::nodesOf(e)) {
        const auto t = at(s.bench, static_cast<int>(d), n);
        (t >= 0 && nets.of(t) == net ? here : beyond) = true;
      }
      if (here && beyond) return true;
    }
  }
  return false;
}

// A protection board between the cell's minus and all that it feeds.
bool protectedBy(const SolvedBench& s, const bench::Nets::Pole& pole) {
  bool any = false;
  eachElement<parts::Resistor>(s.bench, [&](int d, int, const parts::Resistor& r) {
    const auto t = at(s.bench, d, r.a);
    any = any || (r.cutsOff && t >= 0 && copperDistance(s.bench, s.nets, pole.negative, t, kNearby) && !passedBy(s, pole, t));
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
