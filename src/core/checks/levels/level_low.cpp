#include <fmt/core.h>

#include <map>

#include "core/checks/levels/reading.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr Volts kThin{0.2};  // margin below which it is worth a note
}

// What a pin written low really leaves at the stage's input, against that stage's own ground.
Findings levelLow(const SolvedBench& s) {
  struct Worst {
    Reading reading;
    TerminalIndex pin;
    const OperatingPoint* point;
  };
  std::map<TerminalIndex, Worst> worst;
  InputsOfPins inputs(s);
  for (const auto& p : s.points) {
    if (!everyday(*p)) continue;
    for (const auto& [pin, state] : p->command().pins) {
      if (state != circuit::PinState::Low) continue;
      for (const auto t : inputs.of(pin)) {
        const auto r = readingAt(s, *p, t);
        if (!r) continue;
        const auto it = worst.find(t);
        if (it == worst.end() || r->volts - r->low > it->second.reading.volts - it->second.reading.low) worst[t] = {*r, pin, p.get()};
      }
    }
  }
  Findings out;
  for (const auto& [t, w] : worst) {
    const auto& r = w.reading;
    const bool stop = r.volts > (r.low + r.high) / 2;
    const bool above = r.volts > r.low;
    if (!above && r.low - r.volts >= kThin) continue;
    auto f = finding(stop    ? Severity::Stop
                     : above ? Severity::Caution
                             : Severity::Note,
                     fmt::format("{} sees {} for low", s.bench.called(t), show(r.volts)),
                     fmt::format("With {} {} written low leaves {} at {}; low is promised up to {}{}.", during(*w.point),
                                 s.bench.called(w.pin), show(r.volts), s.bench.called(t), show(r.low),
                                 stop    ? ", and this will be read as high"
                                 : above ? ": it will often work, but nobody promises it"
                                         : ", so little is left"),
                     {s.bench.address(t), s.bench.address(w.pin)});
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.lowLevels(), show(r.low));
    f.args = {{"voltage", r.volts}, {"low", r.low}, {"high", r.high}};
    f.bar = Bar{"low level", r.volts, {}, r.low, "most for low"};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
