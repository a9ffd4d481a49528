#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// What is drawn from one rail over the running and the stalled commands.
struct Draw {
  Extreme running, stalled;
};

template <class Current>
Draw drawOf(const SolvedBench& s, Current current) {
  Draw d;
  d.running = largest(s, steady, [&](const OperatingPoint& p) { return current(p); });
  d.stalled = largest(
      s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Stalled; },
      [&](const OperatingPoint& p) { return current(p); });
  return d;
}

void judge(const SolvedBench& s, Findings& out, TerminalIndex place, const std::string& name, double limit, const Draw& d,
           const Figure& source) {
  const bool stop = d.running.value > limit || d.stalled.value > 3 * limit;
  const bool caution = d.stalled.value > limit;
  if (!stop && !caution) return;
  const bool running = d.running.value > limit;
  const auto& worst = running ? d.running : d.stalled;
  auto f = finding(
      stop ? Severity::Stop : Severity::Caution, fmt::format("{} gives {}", name, show(Amps{worst.value})),
      fmt::format("With {} {} gives {}; it is good for {}.", during(*worst.point), name, show(Amps{worst.value}), show(Amps{limit})),
      {s.bench.address(place)});
  f.formula = fmt::format("{} > {}", show(Amps{worst.value}), show(Amps{limit}));
  f.args = {{"current", Amps{worst.value}}, {"limit", Amps{limit}}};
  f.bar = Bar{"current from the rail", Amps{worst.value}, AnyQuantity(Amps{d.running.value}), Amps{limit}, "good for"};
  f.sources = sourcesOf({&source});
  out.push_back(std::move(f));
}

}  // namespace

// What boards, modules and their regulators give to others.
Findings boardRailCurrent(const SolvedBench& s) {
  Findings out;
  std::vector<int> told;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply || supply->purpose == "board" || !supply->feeds.typical()) continue;
    const auto before = out.size();
    judge(s, out, t, s.bench.called(t), *supply->feeds.typical(),
          drawOf(s, [&](const OperatingPoint& p) { return leaving(s, p, t).value; }), supply->feeds);
    if (out.size() > before) told.push_back(s.bench.deviceOf(t));
  }
  // Regulators that are held at their limit, whatever hangs on them.
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    const auto o = at(s.bench, d, r.out);
    if (o < 0 || !r.limit.typical() || std::ranges::count(told, d) > 0) return;
    judge(s, out, o, fmt::format("the regulator of {}", called(s.bench, d)), 0.98 * *r.limit.typical(),
          drawOf(s, [&](const OperatingPoint& p) { return p.element(d, e).value; }), r.limit);
  });
  return out;
}

}  // namespace bold::checks
