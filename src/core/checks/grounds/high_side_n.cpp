#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::high_side_n {
namespace {

constexpr double kLost = 0.6;     // V above the motor from which the transistor follows its control
constexpr double kOfRated = 0.6;  // of the motor's voltage: less and nobody promises that it turns

struct Follower {
  Margins margins;  // what the motor gets, what the transistor keeps
  int device;
  const Motor* motor;
  const char* what;
  Volts gets, lost;
};

void measure(const SolvedBench& s, int d, TerminalIndex top, TerminalIndex bottom, const char* what, std::vector<Follower>& out) {
  if (top < 0 || bottom < 0 || !sourceAt(s, top, true)) return;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.windings.size() != 1) continue;
    const auto& w = bench::windingOf(s.bench, m, 0);
    const auto a = s.bench.terminal(m.device, w.a);
    const auto b = s.bench.terminal(m.device, w.b);
    if (!s.nets.same(bottom, a) && !s.nets.same(bottom, b)) continue;
    const auto* p = s.running(static_cast<int>(k), Corner::Nominal);
    const auto v = p ? p->across(a, b) : std::nullopt;
    const auto lost = p ? p->across(top, bottom) : std::nullopt;
    if (!v || !lost) continue;
    const double need = m.still ? w.nominal.least().value_or(0) : w.run.typical().value_or(0) * w.resistance.typical().value_or(0);
    const double rated = kOfRated * w.nominal.typical().value_or(0);
    const std::vector subjects{idOf(s.bench, d), idOf(s.bench, m.device)};
    Follower f{{{.quantity = "voltage kept by the transistor above the motor",
                 .subjects = subjects,
                 .unit = Unit::Volt,
                 .value = lost->value,
                 .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, kLost, "fully on")),
                 .at = p}},
               d,
               &m,
               what,
               Volts{std::abs(v->value)},
               *lost};
    // What the motor gets is this transistor's business only where it keeps some.
    if (lost->value >= kLost)
      f.margins.push_back(
          {.quantity = "voltage below the transistor",
           .subjects = subjects,
           .unit = Unit::Volt,
           .value = std::abs(v->value),
           .limits = rising(atLeast(LimitKind::Recommended, Severity::Stop, std::max(need, rated), "to turn", w.nominal.source)),
           .at = p});
    out.push_back(std::move(f));
  }
}

std::vector<Follower> measure(const SolvedBench& s) {
  std::vector<Follower> out;
  eachElement<parts::Bipolar>(s.bench, [&](int d, int, const parts::Bipolar& t) {
    if (!t.pnp) measure(s, d, at(s.bench, d, t.collector), at(s.bench, d, t.emitter), "an NPN transistor", out);
  });
  eachElement<parts::Mosfet>(s.bench, [&](int d, int, const parts::Mosfet& t) {
    if (!t.pChannel) measure(s, d, at(s.bench, d, t.drain), at(s.bench, d, t.source), "an N-channel MOSFET", out);
  });
  return out;
}

}  // namespace

// An NPN or N-channel transistor between the supply's + and the motor: the motor gets the pin's voltage less a junction.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Follower& m) {
    const auto& motor = called(s, *m.motor);
    const auto& name = called(s.bench, m.device);
    auto f = finding(
        fmt::format("{} sits above {}", name, motor),
        fmt::format(
            "{} is {} on the supply's side: {} gets its control voltage less a junction, {}, and {} stay in the transistor as heat.", name,
            m.what, motor, show(m.gets), show(m.lost)),
        m.margins[0].subjects);
    f.ways = {{fmt::format("Put {} between {} and ground instead.", name, motor)},
              {"Or take a P-channel or PNP transistor, or a driver for high sides."}};
    f.formula = fmt::format("{} at the motor, {} lost", show(m.gets), show(m.lost));
    f.args = {{"voltage", m.gets}, {"lost", m.lost}};
    return f;
  });
}

Check check() {
  return {"high-side-n", "grounds", "An N-type transistor above the motor", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::high_side_n
