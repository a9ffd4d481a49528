#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/base/e_series.h"
#include "core/base/interpolate.h"
#include "core/checks/check.h"
#include "core/checks/queries.h"

namespace bold::checks::base_drive {
namespace {

constexpr double kEnough = 2.0;            // overdrive from which saturation is not in doubt
constexpr double kForcedPlain = 20;        // IC / IB that data sheets saturate plain transistors with
constexpr double kForcedDarlington = 500;  // up to 1 A
constexpr double kLostShare = 0.3;         // of the supply left in a starved transistor: it will not work and gets hot

struct Drive {
  Margin margin;
  const parts::Bipolar* transistor;
  int device;
  const Motor* motor;
  Amps base, collector;  // collector: what the motor wants while running
  Volts left;            // across the switch as solved
  double gain;
};

// How much more than the least base current there is. Where data sheets saturate the type with such a share of its collector
// current, that share is what counts.
Margin overdriveOf(const SolvedBench& s, const Drive& d, const OperatingPoint& p) {
  Margin m{.subjects = {idOf(s.bench, d.device)}, .at = &p};
  const double forced = d.collector / d.base;
  const bool promised = d.transistor->darlington ? forced <= kForcedDarlington && d.collector.value <= 1 : forced <= kForcedPlain;
  if (promised) {
    m.quantity = "collector over base current";
    m.value = forced;
    m.limits = rising(atMost(LimitKind::Promised, Severity::Caution, d.transistor->darlington ? kForcedDarlington : kForcedPlain,
                             "as such types are saturated"));
    return m;
  }
  m.quantity = "overdrive of the base";
  m.value = d.base.value * d.gain / d.collector.value;
  m.assumed = {"the least current gain"};
  m.limits = rising(atLeast(LimitKind::Recommended, Severity::Caution, kEnough, "sure saturation"));
  const auto& w = bench::windingOf(s.bench, *d.motor, 0);
  const auto across = p.across(s.bench.terminal(d.motor->device, w.a), s.bench.terminal(d.motor->device, w.b));
  const double motorVolts = across ? std::abs(across->value) : 0;
  if (d.left.value > kLostShare * (d.left.value + motorVolts))
    m.limits.push_back(atLeast(LimitKind::Promised, Severity::Stop, 1, "saturation"));
  return m;
}

// What a load takes where it gets what it is made for, however little this transistor lets through.
std::optional<Amps> wantedBy(const parts::Winding& w) {
  const auto volts = w.nominal.typical();
  const auto ohms = w.resistance.typical();
  if (w.still && volts && ohms && *ohms > 0) return Amps{*volts / *ohms};
  const auto run = w.run.typical();
  return run ? std::optional(Amps{*run}) : std::nullopt;
}

std::vector<Drive> measure(const SolvedBench& s) {
  std::vector<Drive> out;
  eachElement<parts::Bipolar>(s.bench, [&](int d, int e, const parts::Bipolar& b) {
    if (!b.inputFor.empty() || b.base.starts_with('~') || b.hfeMin.empty()) return;  // arrays: darlington-input's business
    for (const auto& m : s.motors) {
      if (std::ranges::none_of(m.reached, [&](ChannelRef r) { return r.device == d; })) continue;
      const auto* p = s.running(indexOf(s, m), Corner::Nominal);
      if (!p || m.windings.empty()) continue;
      const auto& w = bench::windingOf(s.bench, m, 0);
      const Amps solved{std::abs(p->element(d, e).value)};
      const Amps wanted = std::max(wantedBy(w).value_or(solved), solved);
      const Amps base{std::abs(p->base(d, e).value)};
      if (base.value < 1e-6 || wanted.value < 1e-3) continue;  // not driven at all: command-outcome
      const auto vce = p->across(s.bench.terminal(d, b.collector), s.bench.terminal(d, b.emitter));
      Drive drive{{}, &b, d, &m, base, wanted, vce ? Volts{std::abs(vce->value)} : Volts{0}, interpolate(b.hfeMin, wanted.value)};
      drive.margin = overdriveOf(s, drive, *p);
      out.push_back(std::move(drive));
    }
  });
  return out;
}

// The resistor that the base current comes through; nullptr where there is none, or more than one.
const parts::Resistor* seriesResistor(const SolvedBench& s, const Drive& d, int& device) {
  const auto base = s.bench.terminal(d.device, d.transistor->base);
  const parts::Resistor* found = nullptr;
  int n = 0;
  eachElement<parts::Resistor>(s.bench, [&](int k, int, const parts::Resistor& r) {
    const auto a = at(s.bench, k, r.a);
    const auto b = at(s.bench, k, r.b);
    if (a < 0 || b < 0 || r.conductor) return;
    const auto other = s.nets.same(a, base) ? b : s.nets.same(b, base) ? a : -1;
    if (other < 0 || drivenBy(s, other) < 0) return;
    found = &r;
    device = k;
    ++n;
  });
  return n == 1 ? found : nullptr;
}

// A smaller resistor as far as the pin stands what it lets through; a MOSFET; another transistor.
std::vector<Way> waysOf(const SolvedBench& s, const Drive& d) {
  std::vector<Way> out;
  const Amps wanted{d.collector.value / (d.transistor->darlington ? kForcedDarlington : kForcedPlain)};
  int device = -1;
  const auto* r = seriesResistor(s, d, device);
  const auto ohms = r ? r->resistance.typical() : std::nullopt;
  const auto pin = drivenBy(s, s.bench.terminal(d.device, d.transistor->base));
  const auto group = pin >= 0 ? pinGroup(s.bench, pin) : std::nullopt;
  const auto most = group ? group->pins->recommended.typical() : std::nullopt;
  const auto fitted = ohms && wanted > d.base ? std::optional(e12(Ohms{*ohms * d.base.value / wanted.value})) : std::nullopt;
  const Amps then{fitted ? *ohms * d.base.value / fitted->value : 0};  // of the row's value, which lets through more than is wanted
  if (fitted && (!most || then.value <= *most))
    out.push_back({fmt::format("Put {} in the place of {} ({}): the base then gets about {}.", show(*fitted), called(s.bench, device),
                               show(Ohms{*ohms}), show(then)),
                   figureOf(s.bench, device, "resistance"), fmt::format("{:.4g} ohm", fitted->value)});
  else if (most && wanted.value > *most)
    out.push_back({fmt::format("The base of {} would need {}, more than {} gives ({}): a smaller resistor does not help.",
                               called(s.bench, d.device), show(wanted), s.bench.called(pin), show(Amps{*most}))});
  out.push_back({fmt::format("Or take a logic-level MOSFET in the place of {}: it needs no current.", called(s.bench, d.device))});
  return out;
}

}  // namespace

// Base current x least gain against the collector current the motor wants. No typical gain is promised, so the least
// is used throughout.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Drive& d) {
    auto f = finding(
        fmt::format("{} gets {} of base current", called(s.bench, d.device), show(d.base)),
        fmt::format("{} gets {} into its base; with a gain of only {:.0f} promised that carries {}, and {} wants {}. {} stay across it.",
                    called(s.bench, d.device), show(d.base), d.gain, show(d.base * d.gain), called(s, *d.motor), show(d.collector),
                    show(d.left)),
        d.margin.subjects);
    f.ways = waysOf(s, d);
    f.formula = fmt::format("{} x {:.0f} / {} = {:.2g} (2 or more wanted)", show(d.base), d.gain, show(d.collector), *d.margin.value);
    f.args = {{"base", d.base}, {"collector", d.collector}, {"overdrive", AnyQuantity{*d.margin.value, Unit::One}}};
    f.bar = Bar{"current it can promise", d.base * d.gain, {}, d.collector, "wanted", true};
    f.sources = sourcesOf({&d.transistor->vbe, &bench::windingOf(s.bench, *d.motor, 0).run});
    return f;
  });
}

Check check() {
  return {"base-drive", "current", "Too little base current", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::base_drive
