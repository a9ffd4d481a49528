#include <fmt/core.h>

#include <algorithm>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::capacitor_on_output {
namespace {

constexpr double kFilters = 10e-9;  // F that a pin charges in a fraction of a microsecond
constexpr double kSwallows = 1e-6;  // F that the switches of an output charge at every change

// A capacitor on a pin or an output that changes.
struct Hanging {
  Margin margin;
  Finding finding;                  // where it is too large
  std::optional<Severity> besides;  // an electrolytic, whatever its size
};

Hanging hanging(const parts::Capacitor& c, Finding f, double most, Severity electrolytic) {
  const auto farads = c.capacitance.typical();
  f.formula = farads ? against(Farads{*farads}, ">", Farads{most}) : "an electrolytic";
  f.sources = sourcesOf({&c.capacitance});
  f.ways = {{fmt::format("Take it away there, or a ceramic one of {} at most.", show(Farads{most}))}};
  Margin m{.quantity = "capacitance on an output",
           .subjects = f.subjects,
           .unit = Unit::Farad,
           .value = farads,
           .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, most, "what hardly matters"))};
  return {std::move(m), std::move(f), c.polarised ? std::optional(electrolytic) : std::nullopt};
}

// A capacitor on a pin that gives pulses swallows them, and the pin carries its charging current at every edge.
std::optional<Hanging> onSignal(const SolvedBench& s, int d, const parts::Capacitor& c) {
  for (const auto& m : s.motors) {
    if (!m.intent) continue;
    for (const auto& signal : m.intent->signals) {
      const bool pulses = signal.role == "step" || signal.role == "pulse" || m.intent->speedControl;
      const auto pin = s.bench.terminal(signal.pin);
      if (!pulses || pin < 0) continue;
      for (const auto& n : {c.a, c.b}) {
        const auto t = at(s.bench, d, n);
        // A signal that stands on a rail is what is wrong there.
        if (t < 0 || !s.nets.same(t, pin) || s.nets.rail(s.nets.of(t))) continue;
        return hanging(
            c,
            finding(
                fmt::format("{} hangs on a signal", called(s.bench, d)),
                fmt::format("{} is on the {} signal of {} from {}: it rounds the pulses off, and the pin has to charge it at every edge.",
                            called(s.bench, d), signal.role, called(s, m), s.bench.called(pin)),
                {idOf(s.bench, d), s.bench.address(t), s.bench.address(pin)}),
            kFilters, Severity::Caution);
      }
    }
  }
  return std::nullopt;
}

// Across an output that is chopped or turned round.
std::optional<Hanging> onOutput(const SolvedBench& s, int d, const parts::Capacitor& c) {
  const auto a = at(s.bench, d, c.a);
  const auto b = at(s.bench, d, c.b);
  for (const auto& m : s.motors)
    for (const auto& ref : m.reached) {
      const auto& channel = bench::channelOf(s.bench, ref);
      const bool chopped = bench::chopperOf(s.bench, ref) || (m.intent && m.intent->speedControl);
      const bool reversible = channel.out.size() > 1 && !channel.lowSide;
      const bool on = std::ranges::any_of(channel.out, [&](const std::string& o) {
        const auto t = s.bench.terminal(ref.device, o);
        return s.nets.same(t, a) || s.nets.same(t, b);
      });
      if (!on || (!chopped && !reversible)) continue;
      return hanging(
          c,
          finding(
              fmt::format("{} hangs on an output of {}", called(s.bench, d), called(s.bench, ref.device)),
              c.polarised
                  ? fmt::format("{} is an electrolytic on an output that is {}: it is charged and discharged at every change and reversed.",
                                called(s.bench, d), reversible ? "turned round" : "chopped")
                  : fmt::format("{} on an output that is chopped or turned round makes the switches carry its charging current.",
                                called(s.bench, d)),
              {idOf(s.bench, d), s.bench.address(s.bench.terminal(ref.device, channel.out.front()))}),
          kSwallows, Severity::Stop);
    }
  return std::nullopt;
}

std::vector<Hanging> measure(const SolvedBench& s) {
  std::vector<Hanging> out;
  eachElement<parts::Capacitor>(s.bench, [&](int d, int, const parts::Capacitor& c) {
    const auto a = at(s.bench, d, c.a);
    const auto b = at(s.bench, d, c.b);
    if (a < 0 || b < 0 || s.nets.same(a, b)) return;
    if (auto h = onSignal(s, d, c)) out.push_back(std::move(*h));
    if (auto h = onOutput(s, d, c)) out.push_back(std::move(*h));
  });
  return out;
}

}  // namespace

// A capacitor across an output that is chopped or turned round.
Said judge(const SolvedBench& s) {
  return say(measure(s), [](const Hanging& h) { return h.finding; });
}

Check check() {
  return {"capacitor-on-output", "voltage", "A capacitor on an output", Harm::Damage, judge};
}

}  // namespace bold::checks::capacitor_on_output
