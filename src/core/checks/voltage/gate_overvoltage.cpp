#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::gate_overvoltage {
namespace {

constexpr double kReverseBase = 5.0;  // V: base-emitter junctions break down at 5 to 6 V backwards

struct Control {
  Margin margin;
  int device;
  const Figure* vgs;  // nullptr: a base
  Extreme worst;
};

bool everyPoint(const OperatingPoint& p) {
  return p.solved() && bench::expected(p.corner()) && p.command().moment != Moment::JustOpened;
}

Control controlOf(const SolvedBench& s, int device, TerminalIndex t, std::string quantity, Limit limit, const Figure* vgs,
                  const std::function<double(const OperatingPoint&)>& volts) {
  const auto worst = largest(s, everyPoint, volts);
  return {{.quantity = std::move(quantity),
           .subjects = {s.bench.address(t)},
           .unit = Unit::Volt,
           .value = worst.known(),
           .limits = rising(std::move(limit)),
           .at = worst.point},
          device,
          vgs,
          worst};
}

// Gate against source, base against emitter, over every command.
std::vector<Control> measure(const SolvedBench& s) {
  std::vector<Control> out;
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    const auto g = at(s.bench, d, t.gate);
    const auto source = at(s.bench, d, t.source);
    if (g < 0 || source < 0 || !s.bench.connected(g)) return;
    // Gates that share a terminal: the first speaks for all that stand alike.
    if (std::ranges::any_of(out, [&](const Control& c) { return c.margin.subjects.front() == s.bench.address(g); })) return;
    out.push_back(controlOf(s, d, g, "gate voltage",
                            atMost(LimitKind::Absolute, Severity::Stop, t.vgs.typical(), "absolute maximum", t.vgs.source), &t.vgs,
                            [&](const OperatingPoint& p) {
                              const auto v = p.across(g, source);
                              return v ? std::abs(v->value) : 0;
                            }));
  });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    const auto b = at(s.bench, d, t.base);
    const auto e = at(s.bench, d, t.emitter);
    if (b < 0 || e < 0 || !s.bench.connected(b)) return;
    out.push_back(controlOf(s, d, b, "base voltage backwards",
                            atMost(LimitKind::Absolute, Severity::Stop, kReverseBase, "break-down of the junction"), nullptr,
                            [&](const OperatingPoint& p) {
                              const auto v = t.pnp ? p.across(b, e) : p.across(e, b);
                              return v ? v->value : 0;
                            }));
  });
  return out;
}

}  // namespace

Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Control& m) {
    const Volts v{m.worst.value};
    const auto& name = called(s.bench, m.device);
    if (!m.vgs) {
      auto f = finding(fmt::format("The base of {} is {} backwards", name, show(v)),
                       fmt::format("With {} the base of {} is {} the wrong side of its emitter; the junction breaks down from 5 V.",
                                   during(*m.worst.point), name, show(v)),
                       m.margin.subjects);
      f.ways = {{fmt::format("Put a diode or a divider before the base of {}.", name)}};
      f.formula = fmt::format("{} > 5 V", show(v));
      f.args = {{"voltage", v}};
      return f;
    }
    const Volts most{*m.margin.passed()->most};
    auto f = finding(
        fmt::format("The gate of {} gets {}", name, show(v)),
        fmt::format("With {} there are {} between gate and source of {}; it stands {}.", during(*m.worst.point), show(v), name, show(most)),
        m.margin.subjects);
    f.ways = {{fmt::format("Put a divider or a zener diode at the gate of {} that leaves less than {}.", name, show(most))}};
    f.formula = against(v, ">", most);
    f.args = {{"voltage", v}, {"limit", most}};
    f.bar = barOf(m.margin, most.value, "absolute maximum");
    f.sources = sourcesOf({m.vgs});
    return f;
  });
}

Check check() {
  return {"gate-overvoltage", "voltage", "A gate or base beyond its limit", Harm::Damage, judge};
}

}  // namespace bold::checks::gate_overvoltage
