#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::board_rail_current {
namespace {

constexpr double kStartStop = 3;      // times what it is good for: at a start not for a moment either
constexpr double kAtItsLimit = 0.98;  // share of a regulator's limit from which it is held there

// What is drawn from one rail over the running and the stalled commands.
struct Draw {
  Margins margins;  // running, stalled
  Extreme running, stalled;
  std::string name;
  double limit;
  const Figure* source;
};

template <class Current>
Draw drawOf(const SolvedBench& s, TerminalIndex place, const std::string& quantity, std::string name, double limit, const Figure& source,
            Current current) {
  Draw d{{}, {}, {}, std::move(name), limit, &source};
  d.running = largest(s, steady, current);
  d.stalled = largest(
      s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Stalled; }, current);
  const std::vector subjects{s.bench.address(place)};
  const auto good = atMost(LimitKind::Recommended, Severity::Caution, limit, "good for", source.source);
  auto stop = good;
  stop.consequence = Severity::Stop;
  d.margins = {{.quantity = quantity,
                .subjects = subjects,
                .unit = Unit::Amp,
                .value = d.running.known(),
                .limits = rising(stop),
                .at = d.running.point},
               {.quantity = quantity + " at a start",
                .subjects = subjects,
                .unit = Unit::Amp,
                .value = d.stalled.known(),
                .limits = rising(good, atMost(LimitKind::Recommended, Severity::Stop, kStartStop * limit, "3 x good for", source.source)),
                .at = d.stalled.point}};
  return d;
}

bool past(const Draw& d) {
  return std::ranges::any_of(d.margins, [](const Margin& m) { return m.passed() != nullptr; });
}

// What the rail is good for by what feeds it: of a board's own sources the one that gives most as it stands.
const Figure& inUse(const SolvedBench& s, TerminalIndex t) {
  const auto& supply = *s.bench.facts(t).supply;
  const Figure* best = &supply.feeds;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  const int d = s.bench.deviceOf(t);
  double most = 1e-3;
  const auto& elements = s.bench.devices[d].part->elements;
  for (const auto& [id, figure] : supply.feedsBy)
    for (std::size_t e = 0; p && e < elements.size(); ++e)
      if (const double amps = elements[e].id == id ? p->element(d, static_cast<int>(e)).value : 0; amps > most && figure.typical()) {
        most = amps;
        best = &figure;
      }
  return *best;
}

std::vector<Draw> measure(const SolvedBench& s) {
  std::vector<Draw> out;
  std::vector<int> told;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& supply = s.bench.facts(t).supply;
    if (!supply || supply->purpose == parts::SupplyFor::Board || !supply->feeds.typical()) continue;
    const auto& feeds = inUse(s, t);
    out.push_back(drawOf(s, t, "current from the rail", s.bench.called(t), *feeds.typical(), feeds,
                         [&](const OperatingPoint& p) { return leaving(s, p, t).value; }));
    if (past(out.back())) told.push_back(s.bench.deviceOf(t));
  }
  // Regulators that are held at their limit, whatever hangs on them.
  eachElement<parts::Regulator>(s.bench, [&](int d, int e, const parts::Regulator& r) {
    if (r.charges) return;
    const auto o = at(s.bench, d, r.out);
    if (o < 0 || !r.limit.typical() || std::ranges::count(told, d) > 0) return;
    out.push_back(drawOf(s, o, "current of the regulator", fmt::format("the regulator of {}", called(s.bench, d)),
                         kAtItsLimit * *r.limit.typical(), r.limit, [&](const OperatingPoint& p) { return p.element(d, e).value; }));
  });
  return out;
}

}  // namespace

// What boards, modules and their regulators give to others.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Draw& d) {
    const auto& worst = d.running.value > d.limit ? d.running : d.stalled;
    auto f = finding(
        fmt::format("{} gives {}", d.name, show(Amps{worst.value})),
        fmt::format("With {} {} gives {}; it is good for {}.", during(*worst.point), d.name, show(Amps{worst.value}), show(Amps{d.limit})),
        d.margins[0].subjects);
    f.ways = {{fmt::format("Feed what hangs on {} from a supply of its own that gives {} or more, grounds joined.", d.name,
                           show(Amps{worst.value}))}};
    f.formula = against(Amps{worst.value}, ">", Amps{d.limit});
    f.args = {{"current", Amps{worst.value}}, {"limit", Amps{d.limit}}};
    f.bar = Bar{"current from the rail", Amps{worst.value}, AnyQuantity(Amps{d.running.value}), Amps{d.limit}, "good for"};
    f.sources = sourcesOf({d.source});
    return f;
  });
}

Check check() {
  return {"board-rail-current", "current", "More from a board's rail than it gives", Harm::Damage, judge};
}

}  // namespace bold::checks::board_rail_current
