#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kCollapse = 0.5;  // share of the open voltage below which a resting bench shorts its supply

// The connection without which the poles are no longer joined, if there is exactly one kind of culprit.
int culprit(const SolvedBench& s, const circuit::Nets::Pole& pole) {
  for (std::size_t c = 0; c < s.bench.connections.size(); ++c) {
    circuit::Bench without = s.bench;
    std::erase_if(without.links, [&](const circuit::Link& l) { return l.connection == static_cast<int>(c); });
    const circuit::Nets nets(without);
    if (!nets.same(pole.positive, pole.negative)) return static_cast<int>(c);
  }
  return -1;
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

}  // namespace

Findings supplyShort(const SolvedBench& s) {
  Findings out;
  const auto* off = s.point(Action::AllOff, Charge::Full);
  for (const auto& pole : s.nets.sources()) {
    const auto& name = called(s.bench, pole.device);
    if (s.nets.same(pole.positive, pole.negative)) {
      const int c = culprit(s, pole);
      auto f = finding(Severity::Stop, fmt::format("{} is shorted", name), fmt::format("Copper joins the plus and the minus of {}.", name),
                       {idOf(s.bench, pole.device)});
      f.formula = fmt::format("{} and {} are one net", s.bench.called(pole.positive), s.bench.called(pole.negative));
      if (c >= 0) {
        const auto& connection = s.bench.connections[static_cast<std::size_t>(c)];
        f.subjects.push_back(connection.id);
        f.text += fmt::format(" Without {} ({} to {}) they would be apart.", connection.id, connection.a.text(), connection.b.text());
        f.repair = Plan(s.bench).remove(c).repair(
            fmt::format("Take away {} ({} to {}).", connection.id, connection.a.text(), connection.b.text()));
      }
      out.push_back(std::move(f));
      continue;
    }
    const auto& source = std::get<parts::Source>(
        s.bench.devices[static_cast<std::size_t>(pole.device)].part->elements[static_cast<std::size_t>(pole.element)].body);
    const auto open = source.full.typical();
    if (!off || !open) continue;
    const auto v = off->across(pole.positive, pole.negative);
    const auto i = off->element(pole.device, pole.element);
    if (!v || v->value > kCollapse * *open || i.value < 0.2) continue;
    const int through = heaviest(s, *off, pole.device);
    auto f = finding(Severity::Stop, fmt::format("{} is shorted through a part", name),
                     fmt::format("With everything off {} already gives {} and sinks to {}{}.", name, show(i), show(*v),
                                 through >= 0 ? ", most of it through " + called(s.bench, through) : ""),
                     {idOf(s.bench, pole.device)});
    if (through >= 0) f.subjects.push_back(idOf(s.bench, through));
    f.formula = fmt::format("{} of {} left at {}", show(*v), show(Volts{*open}), show(i));
    f.args = {{"current", i}, {"voltage", *v}};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
