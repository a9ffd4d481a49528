#include <fmt/core.h>

#include <algorithm>
#include <map>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::input_overvoltage {
namespace {

constexpr double kInjected = 1e-3;   // A into a protection diode that no pin promises to stand
constexpr double kNoticed = 0.1e-3;  // A: below this no clamp conducts
constexpr double kClamp = 0.5;       // V across a clamp that conducts
constexpr double kHardly = 1;        // A: nothing between it and what drives it
constexpr double kPushed = 0.2;      // V above its rail from which a pin takes current in

enum class Against { Absolute, Supply, Below, Tolerated, Rail, Lifted };

struct Input {
  Margin margin;
  Against against;
  TerminalIndex terminal;
  Extreme worst;
  const Figure* source;        // nullptr: no part says it
  std::optional<Volts> volts;  // of a pin that is pushed above its rail
};

Extreme highest(const SolvedBench& s, TerminalIndex t, TerminalIndex ground) {
  return largest(s, everyday, [&](const OperatingPoint& p) {
    const auto v = p.across(t, ground);
    return v ? v->value : 0;
  });
}

Margin marginOf(const SolvedBench& s, TerminalIndex t, std::string quantity, Unit unit, const Extreme& worst, std::vector<Limit> limits) {
  return {.quantity = std::move(quantity),
          .subjects = {s.bench.address(t)},
          .unit = unit,
          .value = worst.known(),
          .limits = std::move(limits),
          .at = worst.point};
}

// Fed by a supply or a pin, not through a resistor.
bool hard(const SolvedBench& s, TerminalIndex t) {
  return sourceAt(s, t, true) || std::ranges::any_of(s.nets.members(s.nets.of(t)),
                                                     [&](TerminalIndex o) { return s.bench.facts(o).supply || s.bench.facts(o).pin; });
}

Input absolute(const SolvedBench& s, TerminalIndex t, const Figure& most, const parts::Node& ground) {
  const auto worst = highest(s, t, s.bench.terminal(s.bench.deviceOf(t), ground));
  return {marginOf(s, t, "input voltage", Unit::Volt, worst,
                   {atMost(LimitKind::Absolute, hard(s, t) ? Severity::Stop : Severity::Caution, most.typical(), "absolute maximum",
                           most.source)}),
          Against::Absolute,
          t,
          worst,
          &most,
          {}};
}

TerminalIndex groundOf(const SolvedBench& s, TerminalIndex t) {
  const auto& facts = s.bench.facts(t);
  if (const auto group = pinGroup(s.bench, t)) return group->ground;
  return s.bench.terminal(s.bench.deviceOf(t), facts.input ? facts.input->ground : facts.limit->ground);
}

// What would flow in through a protection diode: the terminal is solved as if it had none.
double intoClamp(const OperatingPoint& p, TerminalIndex t, TerminalIndex rail, double above) {
  const auto ohms = p.resistance(t, rail);
  return ohms && *ohms > Ohms{1} ? above / ohms->value : kHardly;
}

// A part limits it by its own supply: past that by so much its protection diode conducts.
Input aboveSupply(const SolvedBench& s, TerminalIndex t, const parts::LimitFacts& limit) {
  const auto of = s.bench.terminal(s.bench.deviceOf(t), limit.of);
  auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
    const auto v = p.across(t, of);
    return v ? v->value : 0;
  });
  const auto above = limit.above.typical().value_or(0);
  // Behind a resistor the diode holds it, and what flows is what counts.
  const bool held = worst.point && worst.value > above && !hard(s, t) && intoClamp(*worst.point, t, of, worst.value - above) < kInjected;
  auto m = marginOf(s, t, "input voltage above its supply", Unit::Volt, worst,
                    {atMost(LimitKind::Absolute, Severity::Stop, limit.above.typical(), "above its supply", limit.above.source)});
  if (held) m.limits.clear();
  return {std::move(m), Against::Supply, t, worst, &limit.above, {}};
}

// Below its ground the other protection diode conducts.
Input belowGround(const SolvedBench& s, TerminalIndex t, TerminalIndex ground) {
  const auto& said = s.bench.facts(t).limit;
  const double most = said ? said->below.typical().value_or(kClamp) : kClamp;
  auto worst = largest(s, everyday, [&](const OperatingPoint& p) {
    const auto v = p.across(ground, t);
    return v ? v->value : 0;
  });
  const bool held = worst.point && worst.value > most && !hard(s, t) && !sourceAt(s, t, false) &&
                    intoClamp(*worst.point, t, ground, worst.value - most) < kInjected;
  auto m = marginOf(s, t, "input voltage below ground", Unit::Volt, worst,
                    {atMost(LimitKind::Absolute, Severity::Stop, most, "what its protection diode begins at")});
  if (held) m.limits.clear();
  return {std::move(m), Against::Below, t, worst, nullptr, {}};
}

// A pin without a clamp stands more than its rail, but not everything.
Input tolerated(const SolvedBench& s, TerminalIndex t, const PinGroup& group) {
  const auto& most = group.pins->tolerated;
  const auto worst = highest(s, t, group.ground);
  return {marginOf(s, t, "pin voltage", Unit::Volt, worst,
                   {atMost(LimitKind::Absolute, Severity::Stop, most.greatest(), "tolerated", most.source)}),
          Against::Tolerated,
          t,
          worst,
          &most,
          {}};
}

Input aboveRail(const SolvedBench& s, TerminalIndex t, const PinGroup& group) {
  const auto pushed = largest(s, everyday, [&](const OperatingPoint& p) {
    const auto it = p.command().pins.find(t);
    if (it != p.command().pins.end() && it->second == bench::PinState::Low) return 0.0;
    const auto above = p.across(t, group.rail);
    return above && above->value > kPushed ? -p.pin(t).value : 0.0;
  });
  return {marginOf(s, t, "current pushed into the pin", Unit::Amp, pushed,
                   {atMost(LimitKind::Recommended, Severity::Caution, kNoticed, "no clamp conducts"),
                    atMost(LimitKind::Absolute, Severity::Stop, kInjected, "what a protection diode stands")}),
          Against::Rail,
          t,
          pushed,
          nullptr,
          pushed.point ? pushed.point->across(t, group.ground) : std::nullopt};
}

// Whether the part says what its own rail draws: where it does not, it may be next to nothing.
bool loadKnown(const SolvedBench& s, const PinGroup& group) {
  bool known = false;
  eachElement<parts::Sink>(s.bench, [&](int d, int, const parts::Sink& sink) {
    known = known || (d == group.device && sink.current.known() && s.bench.terminal(d, sink.positive) == group.rail);
  });
  return known;
}

// What stands behind a pin that is pushed: the far end of a resistor at it, the rail of another pin on its wire, or the wire itself.
Volts behindPin(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t, TerminalIndex ground) {
  Volts most = p.across(t, ground).value_or(Volts{0});
  const auto look = [&](TerminalIndex u) {
    if (const auto v = u < 0 ? std::nullopt : p.across(u, ground)) most = std::max(most, *v);
  };
  eachElement<parts::Resistor>(s.bench, [&](int d, int, const parts::Resistor& r) {
    const auto a = at(s.bench, d, r.a);
    const auto b = at(s.bench, d, r.b);
    if (s.nets.same(a, t)) look(b);
    if (s.nets.same(b, t)) look(a);
  });
  for (const auto u : s.nets.members(s.nets.of(t)))
    if (const auto other = pinGroup(s.bench, u); other && u != t) look(other->rail);
  return most;
}

// A rail of unknown load is solved as held; with nothing on it, what is pushed in lifts it to a junction below what pushes.
Input lifted(const SolvedBench& s, const Input& pushed, const PinGroup& group) {
  const auto& supply = s.bench.facts(group.rail).supply;
  const Figure* most = supply ? &supply->absolute : nullptr;
  const Volts rail{behindPin(s, *pushed.worst.point, pushed.terminal, group.ground).value - kClamp};
  auto worst = pushed.worst;
  worst.value = rail.value;
  auto m = marginOf(s, group.rail, "rail where nothing else loads it", Unit::Volt, worst,
                    {atMost(LimitKind::Absolute, Severity::Caution, most ? most->greatest() : std::nullopt, "absolute maximum",
                            most ? most->source : std::string())});
  return {std::move(m), Against::Lifted, pushed.terminal, worst, most, rail};
}

// A wire ends on it, or on another terminal that its part joins to it.
bool reached(const SolvedBench& s, TerminalIndex t) {
  return std::ranges::any_of(s.nets.members(s.nets.of(t)), [&](TerminalIndex u) { return s.bench.connected(u); });
}

std::vector<Input> measure(const SolvedBench& s) {
  std::vector<Input> out;
  std::map<TerminalIndex, Input> rails;
  for (TerminalIndex t = 0; t < static_cast<int>(s.bench.terminalCount()); ++t) {
    const auto& facts = s.bench.facts(t);
    if (!reached(s, t)) continue;
    if (facts.input && facts.input->absolute.typical()) out.push_back(absolute(s, t, facts.input->absolute, facts.input->ground));
    // How near a USB plug or a reset comes to what it stands says nothing of a bench, as long as it stays below.
    if (facts.limit && facts.limit->absolute.typical())
      if (auto at = absolute(s, t, facts.limit->absolute, facts.limit->ground); at.worst.value > *facts.limit->absolute.typical())
        out.push_back(std::move(at));
    if (facts.limit && !facts.limit->of.empty()) out.push_back(aboveSupply(s, t, *facts.limit));
    const auto group = pinGroup(s.bench, t);
    if (facts.input || facts.limit || (group && !group->pins->behind)) {
      auto below = belowGround(s, t, groundOf(s, t));
      if (below.worst.value > kClamp) out.push_back(std::move(below));
    }
    if (!group || group->pins->behind) continue;
    const bool clampless = std::ranges::count(group->pins->tolerant, facts.id) > 0;
    out.push_back(clampless ? tolerated(s, t, *group) : aboveRail(s, t, *group));
    if (clampless || out.back().worst.value < kNoticed || loadKnown(s, *group)) continue;
    auto up = lifted(s, out.back(), *group);
    const auto [it, fresh] = rails.try_emplace(group->rail, up);
    if (!fresh && up.worst.value > it->second.worst.value) it->second = std::move(up);
  }
  for (auto& [rail, up] : rails) out.push_back(std::move(up));
  return out;
}

Finding pushedIn(const SolvedBench& s, const Input& m) {
  const Amps amps{m.worst.value};
  const auto name = s.bench.called(m.terminal);
  auto f = finding(
      fmt::format("{} is pushed above its rail", name),
      fmt::format("With {} {} flow into {}, which stands at {}, above its own rail: a pin of {} does not stand that.",
                  during(*m.worst.point), show(amps), name, m.volts ? show(*m.volts) : "?", called(s.bench, s.bench.deviceOf(m.terminal))),
      m.margin.subjects);
  f.ways = {{fmt::format("Put a level shifter before {}, or a resistor that keeps the current below 1 mA.", name)}};
  f.formula = fmt::format("{} into the pin", show(amps));
  f.args = {{"current", amps}};
  return f;
}

Finding liftedTo(const SolvedBench& s, const Input& m) {
  const Volts most{*m.margin.passed()->most};
  const auto rail = s.bench.called(pinGroup(s.bench, m.terminal)->rail);
  auto f = finding(fmt::format("{} may be lifted to {}", rail, show(*m.volts)),
                   fmt::format("What {} draws itself is not known. If it is little, what flows in through {} lifts it to {}; it stands {}.",
                               rail, s.bench.called(m.terminal), show(*m.volts), show(most)),
                   m.margin.subjects);
  f.ways = {{fmt::format("Put a level shifter or a divider before {}.", s.bench.called(m.terminal))}};
  f.formula = against(*m.volts, ">", most);
  f.args = {{"voltage", *m.volts}, {"limit", most}};
  f.bar = barOf(m.margin, most.value, "absolute maximum");
  f.sources = sourcesOf({m.source});
  return f;
}

Finding outside(const SolvedBench& s, const Input& m) {
  const bool above = m.against == Against::Supply;
  const Volts v{m.worst.value};
  const Volts most{*m.margin.passed()->most};
  const auto name = s.bench.called(m.terminal);
  const auto& limit = s.bench.facts(m.terminal).limit;
  const auto against = s.bench.called(above ? s.bench.terminal(s.bench.deviceOf(m.terminal), limit->of) : groundOf(s, m.terminal));
  auto f = finding(fmt::format("{} gets {} {} {}", name, show(v), above ? "more than" : "less than", against),
                   fmt::format("With {} {} stands {} {} {}; {} is the most before its protection diode conducts.", during(*m.worst.point),
                               name, show(v), above ? "above" : "below", against, show(most)),
                   m.margin.subjects);
  f.ways = {{above ? fmt::format("Feed {} from the supply of what drives {}, or put a level shifter before it.", against, name)
                   : fmt::format("Keep {} between its ground and its supply.", name)}};
  // The same of every input of that part: one wire, its supply's, is what is wrong.
  f.formula = fmt::format("more than {} {} {}", show(most), above ? "above" : "below", against);
  f.args = {{"voltage", v}, {"limit", most}};
  f.bar = barOf(m.margin, most.value, std::string(m.margin.passed()->name));
  if (m.source) f.sources = sourcesOf({m.source});
  return f;
}

}  // namespace

// Inputs above their absolute maximum, and controller pins pushed above their own rail.
Said judge(const SolvedBench& s) {
  return asOne(say(measure(s), [&](const Input& m) {
    if (m.against == Against::Rail) return pushedIn(s, m);
    if (m.against == Against::Lifted) return liftedTo(s, m);
    if (m.against == Against::Supply || m.against == Against::Below) return outside(s, m);
    const bool pin = m.against == Against::Tolerated;
    const Volts v{m.worst.value};
    const auto& limit = *m.margin.passed();
    const Volts most{*limit.most};
    const auto name = s.bench.called(m.terminal);
    auto f = finding(fmt::format("{} gets {}", name, show(v)),
                     fmt::format("With {} the {} {} gets {}; it {} {}.", during(*m.worst.point), pin ? "pin" : "input", name, show(v),
                                 pin ? "tolerates" : "stands", show(most)),
                     m.margin.subjects);
    f.ways = {{fmt::format("Put a level shifter or a divider before {} that brings {} down to less than {}.", name, show(v), show(most))},
              {"Or pull it up to the lower rail instead."}};
    f.formula = against(v, ">", most);
    f.args = {{"voltage", v}, {"limit", most}};
    f.bar = barOf(m.margin, most.value, std::string(limit.name));
    f.sources = sourcesOf({m.source});
    return f;
  }));
}

Check check() {
  return {"input-overvoltage", "levels", "An input above what it stands", Harm::Damage, judge};
}

}  // namespace bold::checks::input_overvoltage
