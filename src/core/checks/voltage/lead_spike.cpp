#include <fmt/core.h>

#include "core/checks/queries.h"
#include "core/checks/voltage/near_capacitor.h"

namespace bold::checks {
// Plugging a live supply into ceramic capacitors through a lead rings to twice the voltage and more.
Findings leadSpike(const SolvedBench& s) {
  Findings out;
  const auto* p = s.point(Action::AllOff, Charge::Full);
  if (!p) return out;
  for (const auto& input : supplyInputs(s.bench, "motor")) {
    const auto absolute = input.facts->absolute.typical();
    if (!input.facts->ceramicOnly || !absolute || !inUse(s, input)) continue;
    if (nearCapacitance(s, input).electrolytic.value > 20e-6) continue;
    const auto* source = sourceAt(s, input.positive, true);
    const auto lead = source ? copperDistance(s, source->positive, input.positive) : std::nullopt;
    const auto v = p->across(input.positive, input.negative);
    if (!lead || *lead <= kNear || !v || 3 * v->value <= *absolute) continue;
    const bool stop = 2 * v->value > *absolute;
    const Volts peak = *v * (stop ? 2 : 3);
    auto f = finding(
        stop ? Severity::Stop : Severity::Caution, fmt::format("{} may see {} when plugged in", s.bench.called(input.positive), show(peak)),
        fmt::format("{} has only ceramic capacitors and {} of lead: plugged in live it rings to {} times {}; it stands {}.",
                    called(s.bench, s.bench.deviceOf(input.positive)), show(*lead), stop ? 2 : 3, show(*v), show(Volts{*absolute})),
        {s.bench.address(input.positive)});
    f.formula = fmt::format("{} x {} = {} > {}", stop ? 2 : 3, show(*v), show(peak), show(Volts{*absolute}));
    f.args = {{"peak", peak}, {"absolute", Volts{*absolute}}};
    f.bar = Bar{"ringing at plug-in", peak, AnyQuantity(*v), Volts{*absolute}, "absolute maximum"};
    f.sources = sourcesOf({&input.facts->absolute});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
