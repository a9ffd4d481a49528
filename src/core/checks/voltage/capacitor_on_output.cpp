#include <fmt/core.h>

#include <algorithm>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kFilters = 10e-9;  // F that a pin charges in a fraction of a microsecond

// A capacitor on a pin that gives pulses swallows them, and the pin carries its charging current at every edge.
void onSignals(const SolvedBench& s, int d, const parts::Capacitor& c, Findings& out) {
  const auto farads = c.capacitance.typical();
  if (!c.polarised && !(farads && *farads > kFilters)) return;
  for (const auto& m : s.motors) {
    if (!m.intent) continue;
    for (const auto& signal : m.intent->signals) {
      const bool pulses = signal.role == "step" || signal.role == "pulse" || m.intent->speedControl;
      const auto pin = s.bench.terminal(signal.pin);
      if (!pulses || pin < 0) continue;
      for (const auto& n : {c.a, c.b}) {
        const auto t = at(s.bench, d, n);
        if (t < 0 || !s.nets.same(t, pin)) continue;
        auto f = finding(
            Severity::Caution, fmt::format("{} hangs on a signal", called(s.bench, d)),
            fmt::format("{} is on the {} signal of {} from {}: it rounds the pulses off, and the pin has to charge it at every edge.",
                        called(s.bench, d), signal.role, called(s, m), s.bench.called(pin)),
            {idOf(s.bench, d), s.bench.address(t), s.bench.address(pin)});
        f.formula = farads ? show(Farads{*farads}) + " > 10 nF" : "an electrolytic";
        f.sources = sourcesOf({&c.capacitance});
        out.push_back(std::move(f));
        return;
      }
    }
  }
}

}  // namespace

// A capacitor across an output that is chopped or turned round.
Findings capacitorOnOutput(const SolvedBench& s) {
  Findings out;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (a < 0 || b < 0 || s.nets.same(a, b)) return;
    onSignals(s, d, c, out);
    for (const auto& m : s.motors) {
      for (const auto& ref : m.reached) {
        const auto& channel = circuit::channelOf(s.bench, ref);
        const bool chopped = circuit::chopperOf(s.bench, ref) || (m.intent && m.intent->speedControl);
        const bool reversible = channel.out.size() > 1 && !channel.lowSide;
        if (!chopped && !reversible) continue;
        const bool on = std::ranges::any_of(channel.out, [&](const std::string& o) {
          const auto t = s.bench.terminal(ref.device, o);
          return s.nets.same(t, a) || s.nets.same(t, b);
        });
        if (!on) continue;
        const auto farads = c.capacitance.typical();
        const bool stop = c.polarised;
        if (!stop && !(farads && *farads > 1e-6)) continue;
        auto f = finding(
            stop ? Severity::Stop : Severity::Caution,
            fmt::format("{} hangs on an output of {}", called(s.bench, d), called(s.bench, ref.device)),
            stop ? fmt::format("{} is an electrolytic on an output that is {}: it is charged and discharged at every change and reversed.",
                               called(s.bench, d), reversible ? "turned round" : "chopped")
                 : fmt::format("{} on an output that is chopped or turned round makes the switches carry its charging current.",
                               called(s.bench, d)),
            {idOf(s.bench, d), s.bench.address(s.bench.terminal(ref.device, channel.out.front()))});
        f.formula = farads ? show(Farads{*farads}) + " > 1 µF" : "an electrolytic";
        f.sources = sourcesOf({&c.capacitance});
        out.push_back(std::move(f));
        return;
      }
    }
  });
  return out;
}

}  // namespace bold::checks
