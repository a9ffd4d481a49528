#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"
#include "core/parts/truth_table.h"

namespace bold::checks::logic_supply_out_of_range {
namespace {

constexpr double kInAWire = 0.99;     // of the least: what a wire takes is no other supply
constexpr double kRounding = 1.0001;  // what a solved voltage may be above what it stands at

// Where 5 V or 3.3 V is to be had for this stage: the rail of the first powered controller that fits its window and
// shares its ground. A stage that makes its own gets none: feeding it from outside as well is another fault.
TerminalIndex fittingRail(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const auto& supply = *s.bench.facts(t).supply;
  const int stage = s.bench.deviceOf(t);
  const auto back = s.bench.terminal(stage, supply.back);
  bool own = false;
  eachElement<parts::Regulator>(
      s.bench, [&](int d, int, const parts::Regulator& r) { own = own || (d == stage && s.bench.terminal(d, r.out) == t); });
  TerminalIndex found = -1;
  if (own) return found;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    const auto rail = s.bench.terminal(d, pins.rail);
    const auto v = p.across(rail, s.bench.terminal(d, pins.ground));
    const bool fits = v && s.nets.same(back, s.bench.terminal(d, pins.ground)) &&
                      (!supply.recommended.min || v->value >= *supply.recommended.min) &&
                      (!supply.recommended.max || v->value <= *supply.recommended.max);
    if (fits && found < 0) found = rail;
  });
  return found;
}

// The ground of the controller whose rail, or whose feed, this terminal hangs on; -1: none.
TerminalIndex groundBeside(const SolvedBench& s, TerminalIndex t) {
  TerminalIndex ground = -1;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) {
    if (ground < 0 && !pins.bus && s.nets.same(s.bench.terminal(d, pins.rail), t)) ground = s.bench.terminal(d, pins.ground);
  });
  return ground;
}

bool used(const SolvedBench& s, int device) {
  // A sensor, a register, a level shifter with any of its signals wired.
  const auto& part = *s.bench.devices[device].part;
  const bool plain = part.channels.empty() && !parts::isMotor(part) && !parts::isSource(part);
  for (const auto& t : part.terminals)
    if (plain && !t.supply && !t.ground && s.bench.connected(s.bench.terminal(device, t.id))) return true;
  for (const auto& m : s.motors)
    for (const auto& r : m.reached)
      if (r.device == device) return true;
  return false;
}

// The rail of a controller's pins: when that is dead, controller-unpowered says so.
bool railOfPins(const SolvedBench& s, int device) {
  bool has = false;
  eachElement<parts::Pins>(s.bench, [&](int d, int, const parts::Pins& pins) { has = has || (d == device && !pins.bus); });
  return has;
}

// A board that is fed past this terminal, at a rail further in: what then comes out here feeds nothing.
bool fedElsewhere(const SolvedBench& s, const OperatingPoint& p, int device) {
  const auto& terminals = s.bench.devices[device].part->terminals;
  return std::ranges::any_of(terminals, [&](const parts::Terminal& facts) {
    const auto t = s.bench.terminal(device, facts.id);
    return facts.supply && s.bench.connected(t) && leaving(s, p, t).value < -1e-3;
  });
}

// An input that has to be low for the outputs to drive lies on that rail: the wire that is missing here may be the one there.
bool besideIt(const SolvedBench& s, int device, TerminalIndex rail) {
  const auto& part = *s.bench.devices[device].part;
  return std::ranges::any_of(part.terminals, [&](const parts::Terminal& t) {
    return t.input && s.nets.same(s.bench.terminal(device, t.id), rail) && parts::enablingLevel(part, t.id) == parts::Level::Low;
  });
}

struct Logic {
  Margins margins;  // the highest, the lowest
  TerminalIndex terminal;
  int device;
  const parts::SupplyFacts* supply;
  Volts high, low;
  bool absent;
};

std::optional<Logic> measure(const SolvedBench& s, const OperatingPoint& nominal, TerminalIndex t) {
  const auto& supply = s.bench.facts(t).supply;
  if (!supply || supply->purpose != parts::SupplyFor::Logic) return std::nullopt;
  const int d = s.bench.deviceOf(t);
  const auto back = s.bench.terminal(d, supply->back);
  const auto volts = [&](const OperatingPoint& p) { return p.across(t, back).value_or(Volts{0}); };
  Logic m{{}, t, d, &*supply, Volts{0}, Volts{1e9}, false};
  const OperatingPoint* highest = nullptr;
  const OperatingPoint* lowest = nullptr;
  for (const auto& p : s.points) {
    if (!everyday(*p) || !steady(*p)) continue;
    const auto here = volts(*p);
    if (here > m.high) m.high = here, highest = p.get();
    if (p->corner() == Corner::Nominal && here < m.low) m.low = here, lowest = p.get();
  }
  const auto& window = supply->recommended;
  m.absent = window.min && m.low.value < *window.min / 2;
  const bool controller = railOfPins(s, d);
  if (m.absent && (controller || !used(s, d))) return std::nullopt;
  if (controller && !s.bench.connected(t) && fedElsewhere(s, nominal, d)) return std::nullopt;
  const auto times = [](std::optional<double> v, double k) { return v ? std::optional(*v * k) : std::nullopt; };
  auto meant = within(LimitKind::Recommended, Severity::Caution, times(window.min, kInAWire), times(window.max, kRounding), "recommended",
                      window.source);
  const auto most = supply->absolute.greatest();
  if (meant.most && most) meant.most = std::min(*meant.most, *most);
  const std::vector subjects{s.bench.address(t)};
  m.margins = {
      {.quantity = "logic supply",
       .subjects = subjects,
       .unit = Unit::Volt,
       .value = m.high.value,
       .limits = rising(meant, atMost(LimitKind::Absolute, Severity::Stop, most, "absolute maximum", supply->absolute.source)),
       .at = highest},
      {.quantity = "logic supply at its lowest",
       .subjects = subjects,
       .unit = Unit::Volt,
       .value = lowest ? std::optional(m.low.value) : std::nullopt,
       .limits = rising(meant, atLeast(LimitKind::Promised, Severity::Stop, times(window.min, 0.5), "half its least", window.source)),
       .at = lowest}};
  return m;
}

std::vector<Logic> measure(const SolvedBench& s) {
  std::vector<Logic> out;
  if (const auto* nominal = s.point(Action::AllOff, Corner::Nominal))
    for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t)
      if (auto m = measure(s, *nominal, t)) out.push_back(std::move(*m));
  return out;
}

Finding words(const SolvedBench& s, const Logic& m) {
  const auto name = s.bench.called(m.terminal);
  const auto& window = m.supply->recommended;
  const auto& subjects = m.margins[0].subjects;
  if (m.margins[0].stops()) {
    const Volts most{*m.supply->absolute.greatest()};
    auto f = finding(fmt::format("{} gets {}", name, show(m.high)),
                     fmt::format("The logic supply {} gets {}; its absolute maximum is {}.", name, show(m.high), show(most)), subjects);
    f.ways = {{fmt::format("Feed {} with less than {}, or find what else lifts it.", name, show(most))}};
    f.bar = Bar{"logic supply", m.high, {}, most, "absolute maximum"};
    return f;
  }
  if (const auto back = s.bench.terminal(m.device, m.supply->back); m.absent && s.bench.connected(m.terminal) && !s.bench.connected(back)) {
    const auto ground = s.bench.called(back);
    auto f = finding(fmt::format("{} has no logic supply", called(s.bench, m.device)),
                     fmt::format("{} is wired and {} is not: without a way back nothing feeds the part.", name, ground),
                     {subjects.front(), s.bench.address(back)});
    f.ways = {{fmt::format("Wire {} to the ground of what feeds {}.", ground, name)}};
    f.bar = Bar{"logic supply", m.low, {}, Volts{*window.min}, "least", true};
    if (const auto other = groundBeside(s, m.terminal); other >= 0)
      f.repair = RepairDraft(s.bench)
                     .wire(back, other, "BK")
                     .repair(fmt::format("Add a black wire from {} to {}.", found(s.bench, back), found(s.bench, other)));
    return f;
  }
  if (m.absent) {
    auto f = finding(fmt::format("{} has no logic supply", called(s.bench, m.device)),
                     fmt::format("Nothing feeds {} ({}): without it the part does nothing.", name, show(m.low)), subjects);
    f.ways = {{fmt::format("Wire {} to a supply of {}.", name, displayText(window))}};
    f.bar = Bar{"logic supply", m.low, {}, Volts{*window.min}, "least", true};
    if (const auto rail = fittingRail(s, *s.point(Action::AllOff, Corner::Nominal), m.terminal);
        rail >= 0 && !s.bench.connected(m.terminal) && !besideIt(s, m.device, rail))
      f.repair = RepairDraft(s.bench)
                     .wire(m.terminal, rail, "RD")
                     .repair(fmt::format("Add a red wire from {} to {}.", found(s.bench, m.terminal), found(s.bench, rail)));
    return f;
  }
  const bool tooHigh = window.max && m.high.value > *window.max * kRounding;
  const Volts shown = tooHigh ? m.high : m.low;
  auto f = finding(fmt::format("{} gets {}", name, show(shown)),
                   fmt::format("The logic supply {} gets {}; it is meant for {}.", name, show(shown), displayText(window)), subjects);
  f.ways = {{fmt::format("Feed {} with {}.", name, displayText(window))}};
  f.bar = Bar{"logic supply", shown, {}, Volts{tooHigh ? *window.max : *window.min}, tooHigh ? "recommended" : "least", !tooHigh};
  return f;
}

}  // namespace

// Judged at rest and while anything runs: a supply that comes through an input or a pull resistor is there only at times.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Logic& m) {
    auto f = words(s, m);
    f.formula = fmt::format("{} against {}", show(f.bar->value), show(f.bar->limit));
    f.args = {{"voltage", f.bar->value}, {"limit", f.bar->limit}};
    f.sources = sourcesOf({&m.supply->recommended, &m.supply->absolute});
    return f;
  });
}

Check check() {
  return {"logic-supply-out-of-range", "voltage", "Logic supply out of range", Harm::Damage, judge};
}

}  // namespace bold::checks::logic_supply_out_of_range
