#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"

namespace bold::checks::regulator_reversed {
namespace {

constexpr double kAbove = 0.3;  // V of its output above its input

// Nothing but a regulator: no stage's or controller's own.
bool loose(const parts::Part& part) {
  return part.channels.empty() && !parts::isController(part) &&
         std::ranges::none_of(part.terminals, [](const parts::Terminal& t) { return t.input.has_value(); });
}

}  // namespace

// A loose regulator whose output is on the supply and whose input is where its output belongs.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Corner::Nominal);
  if (!p) return out;
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
    const auto in = at(s.bench, d, r.in);
    const auto o = at(s.bench, d, r.out);
    if (in < 0 || o < 0 || !loose(*s.bench.devices[d].part)) return;
    if (!s.bench.connected(in) || !s.bench.connected(o) || !sourceAt(s, o, true) || sourceAt(s, in, true) || sourceAt(s, in, false)) return;
    const auto above = p->across(o, in);
    if (!above || above->value < kAbove) return;
    const auto& name = called(s.bench, d);
    auto f =
        finding(Severity::Stop, fmt::format("{} is the wrong way round", name),
                fmt::format("The output of {} is on the plus of {}, and its input feeds the rest: it regulates nothing and is destroyed.",
                            name, called(s.bench, sourceAt(s, o, true)->device)),
                {s.bench.address(in), s.bench.address(o)});
    f.formula = fmt::format("{} at its output above its input", show(*above));
    f.args = {{"voltage", *above}};
    f.repair =
        RepairDraft(s.bench).exchange(in, o).repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, in), found(s.bench, o)));
    out.push_back(std::move(f));
  });
  return out;
}

Check check() {
  return {"regulator-reversed", "voltage", "A regulator the wrong way round", Harm::Damage, judge};
}

}  // namespace bold::checks::regulator_reversed
