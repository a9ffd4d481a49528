#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/interpolate.h"
#include "core/checks/queries.h"

namespace bold::checks {
namespace {

constexpr double kEnough = 2.0;            // overdrive from which saturation is not in doubt
constexpr double kForcedPlain = 20;        // IC / IB that data sheets saturate plain transistors with
constexpr double kForcedDarlington = 500;  // up to 1 A
constexpr double kLostShare = 0.3;         // of the supply left in a starved transistor: it will not work and gets hot

struct Drive {
  const parts::Bipolar* transistor;
  int device, element;
  const Motor* motor;
  Amps base, collector;  // collector: what the motor wants while running
  Volts left;            // across the switch as solved
};

std::vector<Drive> drives(const SolvedBench& s) {
  std::vector<Drive> out;
  eachElement<parts::Bipolar>(s.bench, [&](int d, int e, const parts::Bipolar& b) {
    if (!b.inputFor.empty() || b.base.starts_with('~')) return;  // arrays: darlington-input's business
    for (const auto& m : s.motors) {
      if (std::ranges::none_of(m.reached, [&](ChannelRef r) { return r.device == d; })) continue;
      const auto* p = s.running(indexOf(s, m), Charge::Nominal);
      if (!p || m.windings.empty()) continue;
      const auto& w = circuit::windingOf(s.bench, m, 0);
      const Amps solved{std::abs(p->element(d, e).value)};
      const Amps wanted{std::max(w.run.typical().value_or(solved.value), solved.value)};
      const auto vce = p->across(s.bench.terminal(d, b.collector), s.bench.terminal(d, b.emitter));
      out.push_back({&b, d, e, &m, Amps{std::abs(p->base(d, e).value)}, wanted, vce ? Volts{std::abs(vce->value)} : Volts{0}});
    }
  });
  return out;
}

}  // namespace

// Base current x least gain against the collector current the motor wants. No typical gain is promised, so the least
// is used throughout.
Findings baseDrive(const SolvedBench& s) {
  Findings out;
  for (const auto& d : drives(s)) {
    if (d.base.value < 1e-6 || d.collector.value < 1e-3 || d.transistor->hfeMin.empty()) continue;  // not driven at all: command-outcome
    const double gain = interpolate(d.transistor->hfeMin, d.collector.value);
    const double overdrive = d.base.value * gain / d.collector.value;
    const double forced = d.collector / d.base;
    const bool promised = d.transistor->darlington ? forced <= kForcedDarlington && d.collector.value <= 1 : forced <= kForcedPlain;
    if (overdrive >= kEnough || promised) continue;
    const auto* p = s.running(indexOf(s, *d.motor), Charge::Nominal);
    const auto& w = circuit::windingOf(s.bench, *d.motor, 0);
    const auto across = p->across(s.bench.terminal(d.motor->device, w.a), s.bench.terminal(d.motor->device, w.b));
    const double motorVolts = across ? std::abs(across->value) : 0;
    const bool stop = overdrive < 1 && d.left.value > kLostShare * (d.left.value + motorVolts);
    auto f = finding(
        stop ? Severity::Stop : Severity::Caution, fmt::format("{} gets {} of base current", called(s.bench, d.device), show(d.base)),
        fmt::format("{} gets {} into its base; with a gain of only {:.0f} promised that carries {}, and {} wants {}. {} stay across it.",
                    called(s.bench, d.device), show(d.base), gain, show(d.base * gain), called(s, *d.motor), show(d.collector),
                    show(d.left)),
        {idOf(s.bench, d.device)});
    f.formula = fmt::format("{} x {:.0f} / {} = {:.2g} (2 or more wanted)", show(d.base), gain, show(d.collector), overdrive);
    f.args = {{"base", d.base}, {"collector", d.collector}, {"overdrive", AnyQuantity{overdrive, Unit::One}}};
    f.bar = Bar{"current it can promise", d.base * gain, {}, d.collector, "wanted", true};
    f.sources = sourcesOf({&d.transistor->vbe, &w.run});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
