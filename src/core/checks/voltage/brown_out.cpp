#include <fmt/core.h>

#include "core/checks/queries.h"

namespace bold::checks {
// The largest start against what the controller needs to go on running.
Findings brownOut(const SolvedBench& s) {
  Findings out;
  const auto* off = s.point(Action::AllOff, Charge::Nominal);
  if (!off) return out;
  eachElement<parts::Sink>(s.bench, [&](int d, int, const parts::Sink& sink) {
    if (sink.start.known() || !sink.voltage.min) return;
    const auto a = at(s.bench, d, sink.positive);
    const auto b = at(s.bench, d, sink.negative);
    if (a < 0 || b < 0) return;
    const double least = *sink.voltage.min;
    const auto rest = off->across(a, b);
    if (!rest || rest->value < least) return;  // without a motor it is too low already: other checks speak
    const auto lowest = [&](Charge c) {
      std::pair<std::optional<Volts>, const OperatingPoint*> low;
      for (const auto& p : s.points) {
        if (!p->solved() || p->charge() != c || p->command().supply >= 0 || p->command().moment != Moment::Stalled) continue;
        const auto v = p->across(a, b);
        if (v && (!low.first || *v < *low.first)) low = {v, p.get()};
      }
      return low;
    };
    const auto [nominal, start] = lowest(Charge::Nominal);
    const auto [empty, emptyStart] = lowest(Charge::Empty);
    const bool stop = nominal && nominal->value < least;
    // An empty supply that is below the limit by itself says nothing about the motor.
    const auto* quiet = s.point(Action::AllOff, Charge::Empty);
    const auto emptyRest = quiet ? quiet->across(a, b) : std::nullopt;
    const bool caution = empty && empty->value < least && (!emptyRest || emptyRest->value >= least);
    if (!stop && !caution) return;
    const Volts v = stop ? *nominal : *empty;
    const auto* p = stop ? start : emptyStart;
    auto f = finding(stop ? Severity::Stop : Severity::Caution, fmt::format("{} sags to {}", called(s.bench, d), show(v)),
                     fmt::format("With {} the supply of {} sags to {}{}; it needs {} and starts anew.", during(*p), called(s.bench, d),
                                 show(v), stop ? "" : " once the supply is nearly empty", show(Volts{least})),
                     {idOf(s.bench, d), idOf(s.bench, s.motors[static_cast<std::size_t>(p->command().motor)].device)});
    f.formula = fmt::format("{} < {}", show(v), show(Volts{least}));
    f.args = {{"voltage", v}, {"least", Volts{least}}};
    f.bar = Bar{"supply at the start", v, AnyQuantity(*rest), Volts{least}, "least", true};
    f.sources = sourcesOf({&sink.voltage});
    out.push_back(std::move(f));
  });
  return out;
}

}  // namespace bold::checks
