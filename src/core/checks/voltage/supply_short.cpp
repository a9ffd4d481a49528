#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"
#include "core/parts/roles.h"

namespace bold::checks::supply_short {
namespace {

constexpr double kWorthNaming = 0.2;  // A
constexpr double kCollapse = 0.5;     // share of the open voltage below which a resting bench shorts its supply

constexpr std::size_t kLongestChain = 60;  // of connections: in a longer one nobody can say which is wrong

// Connections that lead from one pole to the other, the fewest there are.
std::vector<int> shortestWay(const bench::Bench& bench, const bench::Nets::Pole& pole) {
  bench::Bench bare = bench;
  bare.links.clear();
  const bench::Nets inside(bare);  // what parts join by themselves
  std::vector<std::vector<int>> at(static_cast<std::size_t>(inside.count()));
  for (std::size_t l = 0; l < bench.links.size(); ++l)
    for (const auto t : {bench.links[l].a, bench.links[l].b}) at[inside.of(t)].push_back(static_cast<int>(l));
  std::vector<int> by(at.size(), -1);  // the link by which a net was reached
  std::vector<int> open{inside.of(pole.negative)};
  const int goal = inside.of(pole.positive);
  for (std::size_t k = 0; k < open.size() && by[goal] < 0; ++k)
    for (const int l : at[open[k]])
      for (const auto t : {bench.links[l].a, bench.links[l].b}) {
        const int net = inside.of(t);
        if (net == open.front() || by[net] >= 0) continue;
        by[net] = l;
        open.push_back(net);
      }
  std::vector<int> out;
  for (int net = goal; net != open.front() && by[net] >= 0;) {
    const auto& link = bench.links[by[net]];
    out.push_back(link.connection);
    net = inside.of(inside.of(link.a) == net ? link.b : link.a);
  }
  return out;
}

// The connections without any one of which the poles are no longer joined: all of them lie on every way.
std::vector<int> culprits(const SolvedBench& s, const bench::Nets::Pole& pole) {
  std::vector<int> out;
  auto way = shortestWay(s.bench, pole);
  std::ranges::sort(way);
  way.erase(std::unique(way.begin(), way.end()), way.end());
  if (way.size() > kLongestChain) return out;
  for (const int c : way) {
    bench::Bench without = s.bench;
    std::erase_if(without.links, [&](const bench::Link& l) { return l.connection == c; });
    if (!bench::Nets(without).same(pole.positive, pole.negative)) out.push_back(c);
  }
  return out;
}

std::string named(const harness::Connection& c) {
  return fmt::format("{} ({} to {})", c.id, c.a.text(), c.b.text());
}

// The loose part that carries most of a resting bench's current.
int heaviest(const SolvedBench& s, const OperatingPoint& p, int source) {
  int device = -1;
  double most = 0;
  for (std::size_t d = 0; d < s.bench.devices.size(); ++d) {
    if (static_cast<int>(d) == source) continue;
    for (std::size_t e = 0; e < s.bench.devices[d].part->elements.size(); ++e) {
      if (std::holds_alternative<parts::Source>(s.bench.devices[d].part->elements[e].body)) continue;
      const double i = std::abs(p.element(static_cast<int>(d), static_cast<int>(e)).value);
      if (i > most) {
        most = i;
        device = static_cast<int>(d);
      }
    }
  }
  return device;
}

Finding byCopper(const SolvedBench& s, const bench::Nets::Pole& pole) {
  const auto& name = called(s.bench, pole.device);
  const auto suspects = culprits(s, pole);
  auto f = finding(Severity::Stop, fmt::format("{} is shorted", name), fmt::format("Copper joins the plus and the minus of {}.", name),
                   {idOf(s.bench, pole.device)});
  f.ways = {{fmt::format("Follow the copper from {} to {}, and take the wire away that joins them.", s.bench.called(pole.positive),
                         s.bench.called(pole.negative))}};
  f.formula = fmt::format("{} and {} are one net", s.bench.called(pole.positive), s.bench.called(pole.negative));
  std::string names;
  for (const int c : suspects) {
    const auto& connection = s.bench.connections[c];
    f.subjects.push_back(connection.id);
    names += (names.empty() ? "" : " or ") + named(connection);
  }
  if (!names.empty()) f.text += fmt::format(" Without {} they would be apart.", names);
  // In a chain of wires nobody can say which one is wrong.
  if (suspects.size() == 1) f.repair = RepairDraft(s.bench).remove(suspects.front()).repair(fmt::format("Take away {}.", names));
  return f;
}

struct AtRest {
  Margin margin;
  const bench::Nets::Pole* pole;
  const OperatingPoint* off;
  Volts left, open;
  Amps current;
};

std::vector<AtRest> atRest(const SolvedBench& s, const bench::Nets::Pole& pole) {
  const auto* off = s.point(Action::AllOff, Corner::Full);
  const auto& full = sourceBody(s.bench, pole).full;
  const auto v = off ? off->across(pole.positive, pole.negative) : std::nullopt;
  if (!v || !full.typical()) return {};
  const auto i = off->element(pole.device, pole.element);
  Margin m{
      .quantity = "voltage left with everything off",
      .subjects = {idOf(s.bench, pole.device)},
      .unit = Unit::Volt,
      .value = v->value,
      .limits = rising(atLeast(LimitKind::Promised, Severity::Stop, kCollapse * *full.typical(), "half its open voltage", full.source)),
      .from = full.typical(),
      .at = off};
  if (i.value < kWorthNaming) m.limits.clear();  // nothing is drawn: it is no short
  return {{std::move(m), &pole, off, *v, Volts{*full.typical()}, i}};
}

Finding throughPart(const SolvedBench& s, const AtRest& m) {
  const auto& name = called(s.bench, m.pole->device);
  const int through = heaviest(s, *m.off, m.pole->device);
  auto f = finding(fmt::format("{} is shorted through a part", name),
                   fmt::format("With everything off {} already gives {} and sinks to {}{}.", name, show(m.current), show(m.left),
                               through >= 0 ? ", most of it through " + called(s.bench, through) : ""),
                   m.margin.subjects);
  if (through >= 0) f.subjects.push_back(idOf(s.bench, through));
  f.ways = {{through >= 0 ? fmt::format("Take {} off, and see how it is wired and turned.", called(s.bench, through))
                          : fmt::format("Take off what hangs on {}, one after the other.", name)}};
  f.formula = fmt::format("{} of {} left at {}", show(m.left), show(m.open), show(m.current));
  f.args = {{"current", m.current}, {"voltage", m.left}};
  return f;
}

// A button or switch that joins the poles while it is moved.
void whileMoved(const SolvedBench& s, const bench::Nets::Pole& pole, Findings& out) {
  const auto* before = s.point(Action::AllRunning, Corner::Nominal);
  if (!before) before = s.motors.empty() ? s.point(Action::AllOff, Corner::Nominal) : s.running(0, Corner::Nominal);
  const auto open = before ? before->across(pole.positive, pole.negative) : std::nullopt;
  if (!open || *open <= Volts{0}) return;
  for (const auto& p : s.points) {
    if (!p->solved() || p->corner() != Corner::Nominal || p->command().action != Action::Pressed || p->command().moved.empty()) continue;
    const auto left = p->across(pole.positive, pole.negative);
    const auto i = p->element(pole.device, pole.element);
    if (!left || *left >= *open * kCollapse || i.value < kWorthNaming) continue;
    const int mover = p->command().moved.front().first;
    const auto& name = called(s.bench, pole.device);
    auto f =
        finding(Severity::Stop, fmt::format("{} shorts {}", called(s.bench, mover), name),
                fmt::format("With {} {} gives {} and sinks from {} to {}.", p->command().title, name, show(i), show(*open), show(*left)),
                {idOf(s.bench, pole.device), idOf(s.bench, mover)});
    const bool steers = parts::isPeripheral(*s.bench.devices[mover].part);
    f.ways = {{steers ? fmt::format("Let {} join a pin to one level, and keep its other end off {}.", called(s.bench, mover),
                                    s.bench.called(pole.positive))
                      : fmt::format("The contact of {} belongs in one lead of a load, not between {} and {}.", called(s.bench, mover),
                                    s.bench.called(pole.positive), s.bench.called(pole.negative))}};
    f.formula = fmt::format("{} of {} left at {}", show(*left), show(*open), show(i));
    f.args = {{"current", i}, {"voltage", *left}};
    out.push_back(std::move(f));
    return;
  }
}

}  // namespace

// By copper from pole to pole, or through a part: then the source sinks while nothing runs, or as soon as a button is pressed.
Said judge(const SolvedBench& s) {
  Said out;
  for (const auto& pole : s.nets.sources())
    if (s.nets.same(pole.positive, pole.negative))
      out.findings.push_back(byCopper(s, pole));
    else {
      out = std::move(out) + say(atRest(s, pole), [&](const AtRest& m) { return throughPart(s, m); });
      whileMoved(s, pole, out.findings);
    }
  return out;
}

Check check() {
  return {"supply-short", "voltage", "A supply is shorted", Harm::Danger, judge};
}

}  // namespace bold::checks::supply_short
