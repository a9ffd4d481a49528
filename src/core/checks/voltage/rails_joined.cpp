#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::rails_joined {
namespace {

// A supply terminal of another part on the plus of a source that it has no way back to.
struct Joint {
  Margin margin;
  const bench::Nets::Pole* pole;
  TerminalIndex supply, back;
};

// What a terminal stands against which ground: of a supply, of an input, of a pin what its rail stands.
std::pair<const Figure*, TerminalIndex> limitOf(const SolvedBench& s, TerminalIndex t) {
  const auto& facts = s.bench.facts(t);
  const int d = s.bench.deviceOf(t);
  if (facts.supply) return {&facts.supply->absolute, s.bench.terminal(d, facts.supply->back)};
  if (facts.input) return {&facts.input->absolute, s.bench.terminal(d, facts.input->ground)};
  if (facts.limit && facts.limit->absolute.known()) return {&facts.limit->absolute, s.bench.terminal(d, facts.limit->ground)};
  if (const auto group = pinGroup(s.bench, t); group && group->rail >= 0)
    if (const auto& rail = s.bench.facts(group->rail).supply) return {&rail->absolute, group->ground};
  return {nullptr, -1};
}

// The one wire between the two parts, if there is just one.
std::optional<int> theWire(const SolvedBench& s, TerminalIndex supply) {
  std::optional<int> found;
  for (const auto& l : s.bench.links) {
    if (l.a != supply && l.b != supply) continue;
    if (found) return std::nullopt;
    found = l.connection;
  }
  return found;
}

std::vector<Joint> measure(const SolvedBench& s) {
  std::vector<Joint> out;
  for (const auto& pole : s.nets.sources()) {
    const auto full = fullVoltage(s.bench, pole);
    if (pole.positive < 0 || pole.negative < 0 || !full) continue;
    for (const auto t : s.nets.members(s.nets.of(pole.positive))) {
      const auto limit = limitOf(s, t);
      const auto* absolute = limit.first;
      const auto back = limit.second;
      if (!absolute || s.bench.deviceOf(t) == pole.device || !absolute->known()) continue;
      // With a way back through copper the voltage is there now, and others speak of it.
      if (back < 0 || s.nets.same(back, pole.negative)) continue;
      const bool fed = std::ranges::any_of(s.nets.sources(), [&](const auto& o) { return s.nets.same(o.negative, back); });
      if (!fed) continue;  // its ground is missing altogether: that is what there is to say
      out.push_back(
          {{.quantity = "voltage once the grounds are joined",
            .subjects = {s.bench.address(t), idOf(s.bench, pole.device)},
            .unit = Unit::Volt,
            .value = full->value,
            .limits = rising(atMost(LimitKind::Absolute, Severity::Stop, absolute->greatest(), "absolute maximum", absolute->source))},
           &pole,
           t,
           back});
    }
  }
  return out;
}

// Outputs of two regulators of one part on one net, though they give different voltages.
Findings withinParts(const SolvedBench& s) {
  struct Rail {
    int device;
    TerminalIndex out;
    const Figure* set;
  };
  std::vector<Rail> rails;
  eachElement<parts::Regulator>(s.bench, [&](int d, int, const parts::Regulator& r) {
    if (const auto out = at(s.bench, d, r.out); out >= 0 && r.set.typical() && !r.charges) rails.push_back({d, out, &r.set});
  });
  Findings out;
  for (const auto& a : rails)
    for (const auto& b : rails) {
      if (a.device != b.device || *a.set->least() <= *b.set->greatest() || !s.nets.same(a.out, b.out)) continue;
      const Volts high{*a.set->typical()}, low{*b.set->typical()};
      auto f = finding(Severity::Stop, fmt::format("{} and {} of {} are joined", show(high), show(low), called(s.bench, a.device)),
                       fmt::format("Copper joins {} and {}: what is meant for {} gets {}.", s.bench.called(a.out), s.bench.called(b.out),
                                   show(low), show(high)),
                       {s.bench.address(a.out), s.bench.address(b.out)});
      f.ways = {{fmt::format("Take the wire away that joins {} and {}.", s.bench.called(a.out), s.bench.called(b.out))}};
      f.formula = fmt::format("{} and {} are one net", s.bench.called(a.out), s.bench.called(b.out));
      f.sources = sourcesOf({a.set, b.set});
      out.push_back(std::move(f));
    }
  return out;
}

}  // namespace

// A supply joined to the plus of a higher one at one wire: nothing flows as drawn, and the second ground closes the loop.
Said judge(const SolvedBench& s) {
  auto out = say(measure(s), [&](const Joint& m) {
    const Volts full{*m.margin.value};
    const Volts most{*m.margin.passed()->most};
    const auto name = s.bench.called(m.supply);
    auto f = finding(
        fmt::format("{} is on the {} of {}", name, show(full), called(s.bench, m.pole->device)),
        fmt::format("{} is joined to the plus of {}, {}, and stands {}. As drawn no current flows; the moment {} and {} are joined, "
                    "by a wire, a cable or a shared supply, it is destroyed.",
                    name, called(s.bench, m.pole->device), show(full), show(most), s.bench.called(m.back),
                    s.bench.called(m.pole->negative)),
        m.margin.subjects);
    f.formula = against(full, ">", most);
    f.args = {{"voltage", full}, {"limit", most}};
    f.bar = barOf(m.margin, most.value, "absolute maximum");
    f.sources = sourcesOf({limitOf(s, m.supply).first});
    if (const auto wire = theWire(s, m.supply); wire && s.bench.connections[*wire].kind == harness::ConnectionKind::Wire)
      f.repair =
          RepairDraft(s.bench).remove(*wire).repair(fmt::format("Take away the wire {} at {}.", s.bench.connections[*wire].id, name));
    return f;
  });
  for (auto& f : withinParts(s)) out.findings.push_back(std::move(f));
  return out;
}

Check check() {
  return {"rails-joined", "voltage", "Two supplies joined at one wire", Harm::Damage, judge};
}

}  // namespace bold::checks::rails_joined
