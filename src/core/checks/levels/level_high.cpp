#include <fmt/core.h>

#include <map>

#include "core/checks/levels/reading.h"

namespace bold::checks {
namespace {

constexpr Volts kThin{0.2};  // margin below which it is worth a note

}  // namespace

// What a pin written high really gives at the stage's input, against that stage's own ground.
Findings levelHigh(const SolvedBench& s) {
  struct Worst {
    Reading reading;
    TerminalIndex pin;
  };
  std::map<TerminalIndex, Worst> worst;
  InputsOfPins inputs(s);
  for (const auto& p : s.points) {
    if (!everyday(*p)) continue;
    for (const auto& [pin, state] : p->command().pins) {
      if (state != circuit::PinState::High) continue;
      for (const auto t : inputs.of(pin)) {
        const auto r = readingAt(s, *p, t);
        if (!r) continue;
        const auto it = worst.find(t);
        if (it == worst.end() || r->volts - r->high < it->second.reading.volts - it->second.reading.high) worst[t] = {*r, pin};
      }
    }
  }
  Findings out;
  for (const auto& [t, w] : worst) {
    const auto& r = w.reading;
    const Volts middle = (r.low + r.high) / 2;
    const bool stop = r.volts < middle;
    const bool below = r.volts < r.high;
    if (!below && r.volts - r.high >= kThin) continue;
    const auto severity = stop ? Severity::Stop : below ? Severity::Caution : Severity::Note;
    auto f = finding(severity, fmt::format("{} sees {} for high", s.bench.called(t), show(r.volts)),
                     fmt::format("{} written high gives {} at {}; high is promised from {}{}.", s.bench.called(w.pin), show(r.volts),
                                 s.bench.called(t), show(r.high),
                                 stop    ? ", and this will be read as low"
                                 : below ? ": it will often work, but nobody promises it"
                                         : ", so little is left"),
                     {s.bench.address(t), s.bench.address(w.pin)});
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.highLevels(), show(r.high));
    f.args = {{"voltage", r.volts}, {"high", r.high}, {"low", r.low}};
    f.bar = Bar{"high level", r.volts, {}, r.high, "least for high", true};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
