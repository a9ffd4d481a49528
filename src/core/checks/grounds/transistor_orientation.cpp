#include <fmt/core.h>

#include <cmath>

#include "core/checks/plan.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {
constexpr double kBackwards = 0.3;  // V against the direction the part is made for
}

// A transistor in whose body diode, or backwards through which, the current flows.
Findings transistorOrientation(const SolvedBench& s) {
  Findings out;
  const auto judge = [&](int d, TerminalIndex in, TerminalIndex outT, const char* nameIn, const char* nameOut) {
    if (in < 0 || outT < 0 || !s.bench.connected(in) || !s.bench.connected(outT)) return;
    const auto worst = largest(s, steady, [&](const OperatingPoint& p) {
      const auto v = p.across(outT, in);
      return v ? v->value : 0;
    });
    const auto right = largest(s, steady, [&](const OperatingPoint& p) {
      const auto v = p.across(in, outT);
      return v ? v->value : 0;
    });
    if (worst.value < kBackwards || right.value > kBackwards) return;
    auto f = finding(
        Severity::Stop, fmt::format("{} and {} of {} are exchanged", nameIn, nameOut, called(s.bench, d)),
        fmt::format("With {} {} of {} stands {} above its {}: current flows the wrong way through it, and it cannot be switched off.",
                    during(*worst.point), nameOut, called(s.bench, d), show(Volts{worst.value}), nameIn),
        {s.bench.address(in), s.bench.address(outT)});
    f.formula = fmt::format("{} backwards", show(Volts{worst.value}));
    f.args = {{"voltage", Volts{worst.value}}};
    f.repair =
        Plan(s.bench).exchange(in, outT).repair(fmt::format("Exchange the wires at {} and {}.", found(s.bench, in), found(s.bench, outT)));
    out.push_back(std::move(f));
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    const auto drain = at(s.bench, d, t.drain);
    const auto source = at(s.bench, d, t.source);
    if (t.pChannel)
      judge(d, source, drain, "Source", "drain");
    else
      judge(d, drain, source, "Drain", "source");
  });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    const auto c = at(s.bench, d, t.collector);
    const auto e = at(s.bench, d, t.emitter);
    if (t.pnp)
      judge(d, e, c, "Emitter", "collector");
    else
      judge(d, c, e, "Collector", "emitter");
  });
  return out;
}

}  // namespace bold::checks
