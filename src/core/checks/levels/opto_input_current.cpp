#include <fmt/core.h>

#include <algorithm>

#include "core/checks/levels/opto_inputs.h"
#include "core/checks/queries.h"

namespace bold::checks {
// The LED current of isolated inputs against the window that the box promises.
Findings optoInputCurrent(const SolvedBench& s) {
  Findings out;
  for (const auto& o : optoInputs(s)) {
    const auto promised = o.led->promised.typical();
    const auto most = o.led->most.typical();
    double reverse = 0;
    for (const auto& p : s.points)
      if (everyday(*p))
        if (const auto v = p->across(o.minus, o.plus)) reverse = std::max(reverse, v->value);
    const auto back = o.led->reverseVoltage.typical();
    const bool reversed = back && reverse > *back + 0.3;
    const bool over = most && o.most > 1.25 * *most;
    const bool weak = promised && o.most > kOptoOff.value && o.most < *promised;
    const bool dark = promised && o.switched && o.most <= kOptoOff.value;
    if (!reversed && !over && !weak && !dark) continue;
    const bool stop = reversed || over || o.most < 0.6 * *promised;
    const Amps limit{over ? *most : promised.value_or(0)};
    auto f = finding(stop ? Severity::Stop : Severity::Caution,
                     reversed ? fmt::format("{} is {} the wrong way round", s.bench.called(o.plus), show(Volts{reverse}))
                              : fmt::format("{} gets {}", s.bench.called(o.plus), show(Amps{o.most})),
                     reversed ? fmt::format("The LED at {} is fed {} backwards; it stands {}.", s.bench.called(o.plus),
                                            show(Volts{reverse}), displayText(o.led->reverseVoltage))
                     : over   ? fmt::format("The LED at {} gets {} and stands {}: a resistor is missing.", s.bench.called(o.plus),
                                            show(Amps{o.most}), show(limit))
                     : dark   ? fmt::format("The LED at {} never lights: whatever its pin does, it gets {}; on is promised from {}.",
                                            s.bench.called(o.plus), show(Amps{std::max(o.most, 0.0)}), show(limit))
                              : fmt::format("The LED at {} gets {}; on is promised from {}{}.", s.bench.called(o.plus), show(Amps{o.most}),
                                            show(limit), stop ? ", and this is far below" : ": it will often work, but nobody promises it"),
                     {s.bench.address(o.plus), s.bench.address(o.minus)});
    f.formula =
        reversed ? fmt::format("{} backwards", show(Volts{reverse})) : fmt::format("{} against {}", show(Amps{o.most}), show(limit));
    f.args = {{"current", Amps{o.most}}};
    if (!reversed) f.bar = Bar{"LED current", Amps{o.most}, {}, limit, over ? "absolute maximum" : "promised on", !over};
    f.sources = sourcesOf({&o.led->promised, &o.led->most});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
