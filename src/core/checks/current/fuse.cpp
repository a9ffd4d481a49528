#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/wire_size.h"
#include "core/checks/check.h"
#include "core/checks/current/supply_path.h"
#include "core/checks/queries.h"

namespace bold::checks::fuse {
namespace {

constexpr double kLasts = 0.75;    // of its rating, for long
constexpr double kAbove = 1.02;    // above what a fuse just lasts with
constexpr double kMostOf = 0.8;    // of a motor's current: the way it takes
constexpr double kWireGoes = 2.5;  // times what a wire carries

struct FuseElement {
  int device, element;
  const parts::Resistor* body;
  TerminalIndex a, b;
};

std::vector<FuseElement> fuses(const SolvedBench& s) {
  std::vector<FuseElement> out;
  eachElement<parts::Resistor>(s.bench, [&](int d, int e, const parts::Resistor& r) {
    if (r.fuse && !r.resettable) out.push_back({d, e, &r, at(s.bench, d, r.a), at(s.bench, d, r.b)});
  });
  return out;
}

bool looseCapacitor(const Bench& bench, TerminalIndex t) {
  const auto& elements = bench.devices[bench.deviceOf(t)].part->elements;
  return elements.size() == 1 && std::holds_alternative<parts::Capacitor>(elements.front().body);
}

// A motor's own leads, where all its current comes through the fuse and no stage limits it below what a wire stands.
std::vector<int> motorLeads(const SolvedBench& s, const FuseElement& fu) {
  std::vector<int> out;
  for (const auto& m : s.motors) {
    if (m.windings.size() != 1 || std::ranges::any_of(m.reached, [&](ChannelRef r) {
          return bench::channelOf(s.bench, r).protection == parts::Protection::CurrentLimit;
        }))
      continue;
    const auto* p = s.running(indexOf(s, m), Corner::Full);
    const double amps = p ? std::abs(p->element(m.device, m.windings[0]).value) : 0;
    if (amps < 1e-3 || std::abs(p->element(fu.device, fu.element).value) < kMostOf * amps) continue;
    for (std::size_t l = 0; l < s.bench.links.size(); ++l)
      if (s.bench.connections[s.bench.links[l].connection].kind == harness::ConnectionKind::Wire &&
          std::abs(p->link(static_cast<int>(l)).value) > kMostOf * amps)
        out.push_back(static_cast<int>(l));
  }
  return out;
}

std::optional<double> thinnest(const SolvedBench& s, const FuseElement& fu, const bench::Nets::Pole& pole) {
  std::optional<double> least;
  auto all = supplyWires(s, pole);
  for (const int l : motorLeads(s, fu)) all.push_back(l);
  for (const int l : all) {
    const auto& link = s.bench.links[l];
    if (looseCapacitor(s.bench, link.a) || looseCapacitor(s.bench, link.b)) continue;  // its leads carry no supply current
    const auto size = bench::sizeOf(s.bench, link);
    const auto it = s.bench.gauges.find(size.awg);
    // A wire whose gauge nobody gave is no ground for an accusation.
    if (!size.gaugeGiven || it == s.bench.gauges.end() || !it->second.freeAir.typical()) continue;
    if (!least || *it->second.freeAir.typical() < *least) least = *it->second.freeAir.typical();
  }
  return least;
}

// One thing that a fuse has to fit.
struct Fit {
  Margin margin;
  Finding finding;  // what is said where it does not
};

Fit fit(const SolvedBench& s, Margin margin, int fuse, int source, std::string headline, std::string text, std::string formula, Way way) {
  margin.subjects = {idOf(s.bench, fuse), idOf(s.bench, source)};
  auto f = finding(std::move(headline), std::move(text), margin.subjects);
  f.formula = std::move(formula);
  f.ways = {std::move(way)};
  return {std::move(margin), std::move(f)};
}

// The voltage that its arc has to go out at.
std::optional<Fit> voltage(const SolvedBench& s, const FuseElement& fu, const bench::Nets::Pole& pole) {
  const auto full = sourceBody(s.bench, pole).full.typical();
  const auto most = fu.body->volts.typical();
  if (!full) return std::nullopt;
  Margin m{.quantity = "fuse voltage",
           .unit = Unit::Volt,
           .value = full,
           .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, most, "rated voltage", fu.body->volts.source))};
  const auto& name = called(s.bench, fu.device);
  const Volts v{*full};
  const Volts rated{most.value_or(0)};
  return fit(
      s, std::move(m), fu.device, pole.device, fmt::format("{} is for {}", name, show(rated)),
      fmt::format("{} breaks {} at most; {} gives {}: its arc does not go out.", name, show(rated), called(s.bench, pole.device), show(v)),
      against(v, ">", rated), {fmt::format("Take a fuse for {} or more of direct voltage.", show(v))});
}

// The short circuit that it has to break.
std::optional<Fit> shortCircuit(const SolvedBench& s, const FuseElement& fu, const bench::Nets::Pole& pole) {
  const auto& body = sourceBody(s.bench, pole);
  const auto amps = shortCurrent(body);
  const auto breaking = fu.body->breaking.typical();
  if (!amps || body.limit.known()) return std::nullopt;
  Margin m{.quantity = "short circuit through the fuse",
           .unit = Unit::Amp,
           .value = amps->value,
           .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, breaking, "breaking capacity", fu.body->breaking.source))};
  const auto& name = called(s.bench, fu.device);
  const Amps most{breaking.value_or(0)};
  return fit(s, std::move(m), fu.device, pole.device, fmt::format("{} cannot break {}", name, show(*amps)),
             fmt::format("{} breaks {} at most; {} gives {} into a short: it bursts instead of melting.", name, show(most),
                         called(s.bench, pole.device), show(*amps)),
             against(*amps, ">", most),
             {fmt::format("Take a fuse that breaks {} or more: blade fuses do, small glass ones do not.", show(*amps))});
}

// The running current that it has to last with.
std::optional<Fit> lasting(const SolvedBench& s, const FuseElement& fu, const bench::Nets::Pole& pole) {
  const auto rating = fu.body->rating.typical();
  if (!rating) return std::nullopt;
  const auto running = largest(s, steady, [&](const OperatingPoint& p) { return std::abs(p.element(fu.device, fu.element).value); });
  Margin m{.quantity = "fuse current",
           .unit = Unit::Amp,
           .value = running.known(),
           .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kLasts * *rating, "0.75 x rating", fu.body->rating.source)),
           .at = running.point};
  const auto& name = called(s.bench, fu.device);
  const Amps amps{running.value};
  return fit(s, std::move(m), fu.device, pole.device, fmt::format("{} carries {} of its {}", name, show(amps), show(Amps{*rating})),
             fmt::format("With {} {} carries {}; more than three quarters of its {} melt it sooner or later.",
                         running.point ? during(*running.point) : "", name, show(amps), show(Amps{*rating})),
             fmt::format("{} > 0.75 x {}", show(amps), show(Amps{*rating})),
             {fmt::format("Take a fuse of {} or more, as far as the wires behind it allow.", show(amps / kLasts)),
              figureOf(s.bench, fu.device, "rating"), fmt::format("{:.4g} A", amps.value / kLasts * kAbove)});
}

// The thinnest wire that it has to melt before.
std::optional<Fit> wires(const SolvedBench& s, const FuseElement& fu, const bench::Nets::Pole& pole) {
  const auto rating = fu.body->rating.typical();
  const auto wire = thinnest(s, fu, pole);
  if (!rating || !wire) return std::nullopt;
  Margin m{.quantity = "fuse rating against its wires",
           .unit = Unit::Amp,
           .value = rating,
           .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, wire, "thinnest wire"))};
  if (strong(sourceBody(s.bench, pole)))
    m.limits.push_back(atMost(LimitKind::Recommended, Severity::Stop, kWireGoes * *wire, "2.5 x thinnest wire"));
  const auto& name = called(s.bench, fu.device);
  const bool stop = m.stops();
  return fit(s, std::move(m), fu.device, pole.device, fmt::format("{} is larger than its wires", name),
             fmt::format("{} melts above {}; the thinnest wire behind it carries {}: the wire goes first.", name, show(Amps{*rating}),
                         show(Amps{*wire})),
             fmt::format("{} > {}{}", show(Amps{*rating}), stop ? "2.5 x " : "", show(Amps{*wire})),
             {fmt::format("Take a fuse of {} at most, or thicker wires.", show(Amps{*wire})), figureOf(s.bench, fu.device, "rating"),
              fmt::format("{:.4g} A", *wire)});
}

Finding noFuse(const SolvedBench& s, const bench::Nets::Pole& pole) {
  const auto amps = shortCurrent(sourceBody(s.bench, pole));
  const auto& name = called(s.bench, pole.device);
  auto f = finding(Severity::Caution, fmt::format("{} has no fuse", name),
                   fmt::format("Nothing melts between {} and what it feeds{}: a stray wire glows before anything else gives way.", name,
                               amps ? fmt::format("; it gives about {} into a short", show(*amps)) : ""),
                   {idOf(s.bench, pole.device)});
  f.ways = {{fmt::format("Put a fuse into the wire at the + of {}, for what the thinnest wire carries.", name)}};
  f.formula = amps ? fmt::format("{} into a short", show(*amps)) : "lithium";
  return f;
}

}  // namespace

// A strong source needs a fuse; a fuse has to fit the wire, the running current, the voltage and the short circuit.
Said judge(const SolvedBench& s) {
  Said out;
  const auto all = fuses(s);
  for (const auto& pole : s.nets.sources()) {
    if (sourceBody(s.bench, pole).lithium && reachesLoad(s, beforeFuse(s, pole), pole.device)) out.findings.push_back(noFuse(s, pole));
    std::vector<Fit> fits;
    for (const auto& fu : all) {
      if (fu.a < 0 || !s.nets.same(fu.a, pole.positive)) continue;
      for (const auto& one : {voltage, shortCircuit, lasting, wires})
        if (auto f = one(s, fu, pole)) fits.push_back(std::move(*f));
    }
    out = std::move(out) + say(std::move(fits), [](const Fit& f) { return f.finding; });
  }
  return out;
}

Check check() {
  return {"fuse", "current", "Fuses", Harm::Danger, judge};
}

}  // namespace bold::checks::fuse
