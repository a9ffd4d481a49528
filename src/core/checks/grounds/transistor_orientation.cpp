#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::transistor_orientation {
namespace {
constexpr double kBackwards = 0.3;  // V against the direction the part is made for

// Whether another transistor switches the same lead of a motor.
bool inLeg(const SolvedBench& s, int device, TerminalIndex t) {
  if (s.nets.rail(s.nets.of(t)) || std::ranges::none_of(s.motors, [&](const Motor& m) { return onLead(s, m, t); })) return false;
  bool other = false;
  const auto look = [&](int d, const parts::Node& a, const parts::Node& b) {
    other = other || (d != device && (s.nets.same(t, at(s.bench, d, a)) || s.nets.same(t, at(s.bench, d, b))));
  };
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& m) { look(d, m.drain, m.source); });
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& b) { look(d, b.collector, b.emitter); });
  return other;
}
}  // namespace

// A transistor in whose body diode, or backwards through which, the current flows.
Findings judge(const SolvedBench& s) {
  Findings out;
  const auto judge = [&](int d, TerminalIndex in, TerminalIndex outT, const char* nameIn, const char* nameOut) {
    // On a board with supplies of its own nobody turns it round.
    const auto& terminals = s.bench.devices[d].part->terminals;
    if (std::ranges::any_of(terminals, [](const parts::Terminal& t) { return t.supply.has_value(); })) return;
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
    f.ways = {{fmt::format("Turn {} round, or exchange the wires at its {} and {}.", called(s.bench, d), nameIn, nameOut)}};
    f.formula = fmt::format("{} backwards", show(Volts{worst.value}));
    f.args = {{"voltage", Volts{worst.value}}};
    // In the leg of a bridge it may as well be a wire on the wrong rail: exchanged, that would short the other transistor.
    if (!inLeg(s, d, in) && !inLeg(s, d, outT))
      f.repair = RepairDraft(s.bench).exchange(in, outT).repair(
          fmt::format("Exchange the wires at {} and {}{}.", found(s.bench, in), found(s.bench, outT), slipped(s.bench, in, outT)));
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

Check check() {
  return {"transistor-orientation", "grounds", "A transistor the wrong way round", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::transistor_orientation
