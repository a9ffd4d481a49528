#include <fmt/core.h>

#include <map>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr Volts kThin{0.2};  // margin below which it is worth a note

struct Reading {
  Volts volts, low, high;
  std::string levels;
};

std::optional<Reading> reading(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  const auto& facts = s.bench.facts(t);
  const int d = s.bench.deviceOf(t);
  const auto& part = *s.bench.devices[static_cast<std::size_t>(d)].part;
  const auto set = facts.input ? part.levels.find(facts.input->levels) : part.levels.end();
  if (set == part.levels.end()) return std::nullopt;
  const auto ground = s.bench.terminal(d, facts.input->ground);
  const auto v = p.across(t, ground);
  if (!v) return std::nullopt;
  const auto& l = set->second;
  if (l.rail.empty()) return Reading{*v, Volts{*l.low.typical()}, Volts{*l.high.typical()}, show(Volts{*l.high.typical()})};
  const auto rail = p.across(s.bench.terminal(d, l.rail), ground);
  if (!rail || rail->value < 1) return std::nullopt;  // no logic supply: that check speaks
  return Reading{*v, *rail * l.lowShare, *rail * l.highShare, fmt::format("{:g} x {}", l.highShare, show(*rail))};
}

}  // namespace

// What a pin written high really gives at the stage's input, against that stage's own ground.
Findings levelHigh(const SolvedBench& s) {
  struct Worst {
    Reading reading;
    TerminalIndex pin;
  };
  std::map<TerminalIndex, Worst> worst;
  for (const auto& p : s.points) {
    if (!p->solved() || !expected(p->charge()) || p->command().supply >= 0) continue;
    for (const auto& [pin, state] : p->command().pins) {
      if (state != circuit::PinState::High) continue;
      for (const auto t : signalReach(s, pin)) {
        if (!s.bench.facts(t).input) continue;
        const auto r = reading(s, *p, t);
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
    f.formula = fmt::format("{} against {} = {}", show(r.volts), r.levels, show(r.high));
    f.args = {{"voltage", r.volts}, {"high", r.high}, {"low", r.low}};
    f.bar = Bar{"high level", r.volts, {}, r.high, "least for high", true};
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
