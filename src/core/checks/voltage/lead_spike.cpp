#include <fmt/core.h>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/voltage/near_capacitor.h"

namespace bold::checks::lead_spike {
namespace {

constexpr double kUsual = 2;      // times the supply that a lead into ceramic capacitors rings to
constexpr double kBad = 3;        // where they lose capacitance as they charge
constexpr double kDamps = 20e-6;  // F of electrolytic that take the ringing away

struct Ringing {
  Margins margins;  // twice, three times
  SupplyInput input;
  Metres lead;
  Volts supply, absolute;
};

std::vector<Ringing> measure(const SolvedBench& s) {
  std::vector<Ringing> out;
  const auto* p = s.point(Action::AllOff, Corner::Full);
  if (!p) return out;
  for (const auto& input : supplyInputs(s.bench, parts::SupplyFor::Motor)) {
    const auto absolute = input.facts->absolute.typical();
    if (!input.facts->ceramicOnly || !inUse(s, input)) continue;
    if (nearCapacitance(s, input).electrolytic.value > kDamps) continue;
    const auto* source = sourceAt(s, input.positive, true);
    const auto lead = source ? copperDistance(s.bench, s.nets, source->positive, input.positive) : std::nullopt;
    const auto v = p->across(input.positive, input.negative);
    if (!lead || *lead <= kNear || !v) continue;
    Ringing m{{}, input, *lead, *v, Volts{absolute.value_or(0)}};
    for (const auto& [times, severity] : {std::pair{kUsual, Severity::Stop}, {kBad, Severity::Caution}})
      m.margins.push_back(
          {.quantity = fmt::format("ringing at plug-in, {:g} x the supply", times),
           .subjects = {s.bench.address(input.positive)},
           .unit = Unit::Volt,
           .value = times * v->value,
           .limits = rising(atMost(LimitKind::Absolute, severity, absolute, "absolute maximum", input.facts->absolute.source)),
           .at = p,
           .assumed = {"plugged in live"}});
    out.push_back(std::move(m));
  }
  return out;
}

}  // namespace

// Plugging a live supply into ceramic capacitors through a lead rings to twice the voltage and more.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Ringing& m) {
    const bool stop = m.margins[0].passed();
    const auto& margin = m.margins[stop ? 0 : 1];
    const double times = stop ? kUsual : kBad;
    const Volts peak{*margin.value};
    auto f =
        finding(fmt::format("{} may see {} when plugged in", s.bench.called(m.input.positive), show(peak)),
                fmt::format("{} has only ceramic capacitors and {} of lead: plugged in live it rings to {:g} times {}; it stands {}.",
                            called(s.bench, s.bench.deviceOf(m.input.positive)), show(m.lead), times, show(m.supply), show(m.absolute)),
                margin.subjects);
    f.ways = {
        {fmt::format("Fit 100 µF, an electrolytic, at {}, or plug it in while the supply is off.", s.bench.called(m.input.positive))}};
    f.formula = fmt::format("{:g} x {} = {} > {}", times, show(m.supply), show(peak), show(m.absolute));
    f.args = {{"peak", peak}, {"absolute", m.absolute}};
    f.bar = Bar{"ringing at plug-in", peak, AnyQuantity(m.supply), m.absolute, "absolute maximum"};
    f.sources = sourcesOf({&m.input.facts->absolute});
    return f;
  });
}

Check check() {
  return {"lead-spike", "voltage", "A supply plugged in live rings", Harm::Damage, judge};
}

}  // namespace bold::checks::lead_spike
