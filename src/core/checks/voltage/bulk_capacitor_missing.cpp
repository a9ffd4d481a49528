#include <fmt/core.h>

#include <algorithm>
#include <array>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/checks/voltage/near_capacitor.h"

namespace bold::checks::bulk_capacitor_missing {
namespace {
constexpr std::array kRated{Volts{35}, Volts{50}, Volts{63}};  // of electrolytics; live plugging rings to twice the supply
constexpr double kMargin = 1.2;
constexpr double kTolerance = 0.45;  // of what is asked for: capacitors are made with wide tolerance

struct Bulk {
  Margin margin;
  SupplyInput input;
  Farads has, asked;
};

std::vector<Bulk> measure(const SolvedBench& s) {
  std::vector<Bulk> out;
  for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor)) {
    const auto asked = input.facts->bulk.typical();
    if (!asked || !inUse(s, input)) continue;
    const auto has = nearCapacitance(s, input).electrolytic;
    out.push_back({{.quantity = "capacitance near the supply",
                    .subjects = {s.bench.address(input.positive)},
                    .unit = Unit::Farad,
                    .value = has.value,
                    .limits = rising(atLeast(LimitKind::Recommended, Severity::Caution, kTolerance * *asked,
                                             "asked for, less its tolerance", input.facts->bulk.source))},
                   input,
                   has,
                   Farads{*asked}});
  }
  return out;
}

// The capacitor that is asked for, of the first rating that stands the supply.
std::optional<Repair> fitOne(const SolvedBench& s, const Bulk& m) {
  const auto& input = m.input;
  const auto* p = s.point(Action::AllOff, Corner::Full);
  const auto v = p ? p->across(input.positive, input.negative) : std::nullopt;
  const auto rated = v ? std::ranges::find_if(kRated, [&](Volts r) { return v->value * kMargin < r.value; }) : kRated.end();
  if (rated == kRated.end() || returnAstray(s, s.bench.deviceOf(input.positive))) return std::nullopt;
  RepairDraft draft(s.bench);
  const auto size = show(m.asked);
  const auto id = draft.device("capacitor-electrolytic", "c", {}, {{"capacitance", size}, {"rated", show(*rated)}});
  draft.wire({id, "P"}, s.bench.place(input.positive), "RD", 22, Metres{0.05})
      .wire({id, "N"}, s.bench.place(input.negative), "BK", 22, Metres{0.05});
  return draft.repair(fmt::format("Fit {} {} at {}, + to it and - to {}, with leads of 5 cm.", size, show(*rated),
                                  s.bench.called(input.positive), s.bench.facts(input.negative).label));
}

// A capacitor on the same two nets that only counts as far away because nobody said how long its wires are.
std::optional<Way> lengthOf(const SolvedBench& s, const SupplyInput& input) {
  std::optional<Way> out;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (out || c.ceramic || a < 0 || b < 0) return;
    const auto on = [&](TerminalIndex x, TerminalIndex y) { return s.nets.same(x, input.positive) && s.nets.same(y, input.negative); };
    if (!on(a, b) && !on(b, a)) return;
    for (const auto& connection : s.bench.connections)
      if (connection.kind == harness::ConnectionKind::Wire && !connection.length &&
          (connection.a.device == idOf(s.bench, d) || connection.b.device == idOf(s.bench, d))) {
        out = Way{fmt::format("Enter how long the wires of {} are: they are taken as longer than {}.", called(s.bench, d), show(kNear)),
                  {connection.id, "length"}};
        return;
      }
  });
  return out;
}

}  // namespace

// A stage that asks for a capacitor close to its motor supply and has none.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Bulk& m) {
    auto f = finding(fmt::format("{} has no capacitor near it", s.bench.called(m.input.positive)),
                     fmt::format("{} asks for {} within {} of wire and has {}: its chopped current pulls the supply about.",
                                 called(s.bench, s.bench.deviceOf(m.input.positive)), show(m.asked), show(kNear),
                                 m.has.value > 0 ? show(m.has) : "none"),
                     m.margin.subjects);
    f.formula = against(m.has, "<", m.asked);
    f.args = {{"capacitance", m.has}, {"asked", m.asked}};
    f.sources = sourcesOf({&m.input.facts->bulk});
    if (auto length = lengthOf(s, m.input))
      f.ways = {std::move(*length)};
    else
      f.repair = fitOne(s, m);
    if (!f.repair)
      f.ways.push_back({fmt::format("Or fit {} or more at {}, with leads of 5 cm.", show(m.asked), s.bench.called(m.input.positive))});
    return f;
  });
}

Check check() {
  return {"bulk-capacitor-missing", "voltage", "No capacitor near the stage", Harm::Damage, judge};
}

}  // namespace bold::checks::bulk_capacitor_missing
