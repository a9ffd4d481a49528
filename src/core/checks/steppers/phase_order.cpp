#include <fmt/core.h>

#include "core/bench/coil_order.h"
#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::phase_order {
namespace {

// Which way round each coil of a bipolar motor is wired: its current from its + lead against its stage's first output.
std::optional<int> coilSign(const SolvedBench& s, const Motor& m, const bench::Coil& coil) {
  for (const auto& ref : m.reached) {
    const auto& out = bench::channelOf(s.bench, ref).out;
    for (std::size_t k = 0; k + 1 < out.size(); k += 2) {
      const auto x = s.bench.terminal(ref.device, out[k]);
      const auto y = s.bench.terminal(ref.device, out[k + 1]);
      if (s.nets.same(coil.a, x) && s.nets.same(coil.b, y)) return 1;
      if (s.nets.same(coil.a, y) && s.nets.same(coil.b, x)) return -1;
    }
  }
  return std::nullopt;
}

// One coil the wrong way round turns the field backwards; both turn it the right way again.
void bipolarOrder(const SolvedBench& s, const Motor& m, Findings& out) {
  const auto coils = bench::coilsOf(s.bench, m);
  if (coils.size() != 2) return;
  const auto first = coilSign(s, m, coils[0]);
  const auto second = coilSign(s, m, coils[1]);
  if (!first || !second || *first == *second) return;
  const auto& turned = coils[*first < 0 ? 0 : 1];
  auto f = finding(
      Severity::Caution, fmt::format("{} turns the other way", called(s, m)),
      fmt::format("Coil {} of {} is wired the other way round than its labels say: the motor turns backwards.", turned.name, called(s, m)),
      {s.bench.address(turned.a), idOf(s.bench, m.device)});
  for (const auto& id : connectorsOf(s, m)) f.subjects.push_back(id);
  f.ways = {{fmt::format("Exchange the two leads of one coil of {}, or turn the direction round in the program.", called(s, m))}};
  f.formula = fmt::format("coil A {}, coil B {}", *first > 0 ? "as labelled" : "exchanged", *second > 0 ? "as labelled" : "exchanged");
  out.push_back(std::move(f));
}

}  // namespace

// The field over the four steps of the sequence, as wired: it has to turn by a quarter a step, and the right way.
Findings judge(const SolvedBench& s) {
  Findings out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind == MotorKind::BipolarStepper) bipolarOrder(s, m, out);
    if (!hasSignals(m)) continue;  // which coil is meant to come when only the intent says
    const auto order = bench::coilOrder(s, static_cast<int>(k));
    if (!order || (order->turns && !order->backwards)) continue;
    std::string rows;
    bool any = false;
    for (const auto& row : order->wired) {
      std::string on;
      for (std::size_t i = 0; i < row.size(); ++i)
        if (row[i] != 0) on += order->coils[i];
      any = any || !on.empty();
      rows += (rows.empty() ? "" : ", ") + (on.empty() ? std::string("none") : on);
    }
    if (!any) continue;  // no field at all: other checks speak
    const bool round = order->backwards;
    auto f = finding(
        round ? Severity::Caution : Severity::Stop,
        round ? fmt::format("{} turns the other way", called(s, m)) : fmt::format("The coils of {} are out of order", called(s, m)),
        round ? fmt::format("Over the steps of the plan the field of {} turns backwards: it runs the other way than the sequence says.",
                            called(s, m))
              : fmt::format(
                    "Over the four steps of the plan the field of {} jumps to and fro instead of going round: it will shake and not turn.",
                    called(s, m)),
        {idOf(s.bench, m.device)});
    f.ways = {
        {fmt::format("Put the leads of {} on in the order of the sequence, or write the pins in the order of the wires.", called(s, m)),
         fieldOf(s, m, "signals")}};
    // On switches of their own it may as well be the pins that are exchanged.
    if (!m.further.empty() && m.intent)
      for (const auto& signal : m.intent->signals)
        if (const auto t = s.bench.terminal(signal.pin); t >= 0) f.subjects.push_back(s.bench.address(t));
    f.formula = "coils on, step by step: " + rows;
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"phase-order", "steppers", "Coils out of order", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::phase_order
