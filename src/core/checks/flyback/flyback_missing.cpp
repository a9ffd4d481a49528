#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/stand_ins.h"
#include "core/checks/check.h"
#include "core/checks/flyback/clamp.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::flyback_missing {
namespace {

constexpr double kArc = 0.05;  // share of the current that finds no path but an arc

// The diode that carries the motor's current at this supply.
std::string diodeFor(Amps run) {
  return run.value <= 1.0 ? "diode-1n5819" : "diode-1n5822";
}

// The switches of the coils that were on.
void addSwitches(const SolvedBench& s, const Motor& m, const OperatingPoint& p, std::vector<std::string>& subjects) {
  for (std::size_t k = 0; k < m.windings.size(); ++k) {
    if (std::abs(p.element(m.device, m.windings[k]).value) < 1e-3) continue;
    const auto& w = bench::windingOf(s.bench, m, k);
    for (const auto& ref : m.reached)
      for (const auto& out : bench::channelOf(s.bench, ref).out) {
        const auto t = s.bench.terminal(ref.device, out);
        const bool here = s.nets.same(t, s.bench.terminal(m.device, w.a)) || s.nets.same(t, s.bench.terminal(m.device, w.b));
        if (here && std::ranges::count(subjects, idOf(s.bench, ref.device)) == 0) subjects.push_back(idOf(s.bench, ref.device));
      }
  }
}

constexpr double kTaken = 0.05;  // share of the current from which it is the capacitors' matter
constexpr double kRunaway = 5;   // times the highest supply: a leak through some resistor is no path

// What goes into the capacitors at the stage because no supply takes it: sqrt(V0^2 + L I^2 / C) + I ESR.
struct Pulse {
  Margin margin;
  Volts before;
  double joules;  // L I^2
  Farads farads;
  std::string unknown;  // what of it is not known
};

// The winding's own voltage far above every supply: what carries the current is a bleeder or a leak.
bool leaks(const SolvedBench& s, const Motor& m, const OperatingPoint& p) {
  double highest = 5;
  for (const auto& pole : s.nets.sources()) highest = std::max(highest, fullVoltage(s.bench, pole).value_or(Volts{0}).value);
  for (std::size_t k = 0; k < m.windings.size(); ++k) {
    const auto& w = bench::windingOf(s.bench, m, k);
    const auto v = p.across(s.bench.terminal(m.device, w.a), s.bench.terminal(m.device, w.b));
    if (v && std::abs(v->value) > kRunaway * highest) return true;
  }
  return false;
}

std::optional<Pulse> intoCapacitors(const SolvedBench& s, const Motor& m, const OperatingPoint& p) {
  double amps = 0;
  for (const int w : m.windings) amps += std::abs(p.element(m.device, w).value);
  double into = 0;
  Pulse pulse{{.quantity = "supply when the motor is switched off", .subjects = {idOf(s.bench, m.device)}, .unit = Unit::Volt, .at = &p},
              Volts{0},
              0,
              Farads{0},
              {}};
  double esr = 1e9;
  std::optional<double> lowest;
  std::string source;
  const auto limit = [&](const Figure& figure) {
    const auto v = figure.typical();
    if (!v || (lowest && *lowest <= *v)) return;
    lowest = v;
    source = figure.source;
  };
  for (const auto& [d, e] : m.buffers) {
    const auto& c = std::get<parts::Capacitor>(s.bench.devices[d].part->elements[e].body);
    const auto plus = s.bench.terminal(d, c.a);
    const auto v = p.across(plus, s.bench.terminal(d, c.b));
    if (!c.capacitance.typical() || !v) continue;
    // With a supply on the same copper its output, or the battery, takes what the capacitor does not.
    if (sourceAt(s, plus, true) || sourceAt(s, s.bench.terminal(d, c.b), true)) return std::nullopt;
    const double here = p.element(d, e).value;
    const double r = bench::valueOf(c.esr.typical(), c.ceramic ? bench::kCeramicEsr : bench::kElectrolyticEsr);
    into += std::abs(here);
    pulse.farads.value += *c.capacitance.typical();
    pulse.before = std::max(pulse.before, Volts{std::abs(v->value) - std::abs(here) * r});
    esr = std::min(esr, r);
    limit(c.rated);
    for (const auto t : s.nets.members(s.nets.of(plus)))
      if (s.bench.facts(t).supply) limit(s.bench.facts(t).supply->absolute);
  }
  if (into < kTaken * amps || pulse.farads.value <= 0) return std::nullopt;
  for (std::size_t k = 0; k < m.windings.size(); ++k) {
    const auto henries = bench::windingOf(s.bench, m, k).inductance.typical();
    if (!henries) pulse.unknown = "inductance of its winding";
    pulse.joules += henries.value_or(0) * std::pow(p.element(m.device, m.windings[k]).value, 2);
  }
  pulse.margin.limits = {atMost(LimitKind::Absolute, Severity::Stop, lowest, "lowest absolute maximum on it", source)};
  pulse.margin.assumed = {"0.3 Ω in an electrolytic capacitor that does not say, 0.02 Ω in a ceramic one"};
  if (pulse.unknown.empty())
    pulse.margin.value = std::sqrt(pulse.before.value * pulse.before.value + pulse.joules / pulse.farads.value) + into * esr;
  return pulse;
}

// Electronics inside keep what their own coils give back: what a switch opens is little more than the leads.
bool withElectronics(const SolvedBench& s, const Motor& motor) {
  return std::ranges::any_of(motor.windings, [&](int e) {
    const auto& w = std::get<parts::Winding>(s.bench.devices[motor.device].part->elements[e].body);
    return w.directional && !w.still;  // a light has none, only a right way round
  });
}

struct Opened {
  Margins margins;  // share without a path; the peak that capacitors alone take up
  const Motor* motor;
  const OperatingPoint* point;
  std::size_t winding;  // the one that carries most
  Amps current;
  std::optional<Pulse> pulse;
  std::optional<Severity> besides;  // the pulse's height is not known
};

// What opens is a relay's contact: it arcs, and wears, where a transistor would break down.
bool byContact(const SolvedBench& s, const Motor& motor) {
  return !motor.reached.empty() && std::ranges::all_of(motor.reached, [&](ChannelRef r) { return bench::isContact(s.bench, r); });
}

std::vector<Opened> measure(const SolvedBench& s) {
  std::vector<Opened> out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    const auto* p = worstOpened(s, static_cast<int>(m));
    if (!p) continue;
    auto share = p->arcShare(static_cast<int>(m));
    if (leaks(s, motor, *p)) share = 1;
    const auto most = std::ranges::max_element(motor.windings, {}, [&](int e) { return std::abs(p->element(motor.device, e).value); });
    const bool milder = byContact(s, motor) || withElectronics(s, motor);
    Margins margins{
        {.quantity = "share of the current without a path",
         .subjects = {idOf(s.bench, motor.device)},
         .value = share,
         .limits = rising(atMost(LimitKind::Absolute, milder ? Severity::Caution : Severity::Stop, kArc, "what finds no path but an arc")),
         .at = p}};
    const auto pulse = share <= kArc ? intoCapacitors(s, motor, *p) : std::nullopt;
    if (pulse) margins.push_back(pulse->margin);
    out.push_back({std::move(margins), &motor, p, static_cast<std::size_t>(most - motor.windings.begin()),
                   Amps{std::abs(p->element(motor.device, *most).value)}, pulse,
                   pulse && !pulse->margin.value ? std::optional(Severity::Caution) : std::nullopt});
  }
  return out;
}

std::optional<Repair> fitDiode(const SolvedBench& s, const Opened& m) {
  const auto& motor = *m.motor;
  const auto lead = supplyLead(s, motor);
  if (lead < 0 || motor.kind != MotorKind::TwoLead) return std::nullopt;
  const auto& w = bench::windingOf(s.bench, motor, m.winding);
  const auto a = s.bench.terminal(motor.device, w.a);
  const auto other = lead == a ? s.bench.terminal(motor.device, w.b) : a;
  RepairDraft draft(s.bench);
  const auto part = diodeFor(m.current);
  const auto diode = draft.device(part, "d", s.bench.devices[motor.device].doc.group);
  draft.wire({diode, "K"}, s.bench.place(lead), "RD").wire({diode, "A"}, s.bench.place(other), "BK");
  return draft.repair(fmt::format("Fit a {} across {}: band to {}, anode to {}.", part == "diode-1n5819" ? "1N5819" : "1N5822",
                                  called(s, motor), s.bench.called(lead), s.bench.called(other)));
}

Finding lifted(const SolvedBench& s, const Opened& m) {
  const auto& pulse = *m.pulse;
  const auto& name = called(s, *m.motor);
  if (!pulse.margin.value) {
    auto f =
        finding(fmt::format("How far {} lifts its supply is not known", name),
                fmt::format("Switched off, the {} through {} go into {} at its stage, since no supply takes them; the {} is not known.",
                            show(m.current), name, show(pulse.farads), pulse.unknown),
                pulse.margin.subjects);
    f.ways = {{fmt::format("Fit a suppressor or more capacitance at the stage of {}, or enter the inductance of its winding.", name)}};
    f.formula = "sqrt(V² + L x I² / C) with L unknown";
    return f;
  }
  const Volts peak{*pulse.margin.value};
  const Volts most{*pulse.margin.passed()->most};
  auto f =
      finding(fmt::format("{} lifts its supply to {}", name, show(peak)),
              fmt::format("Switched off, the {} through {} go into {} at its stage, since no supply takes them: it rises to {}, and what "
                          "is on it stands {}.",
                          show(m.current), name, show(pulse.farads), show(peak), show(most)),
              pulse.margin.subjects);
  f.ways = {{fmt::format("Take {:.2g} times the capacitance at that stage, or a suppressor for less than {}.",
                         std::pow(std::max(peak.value - pulse.before.value, 0.1) / std::max(most.value - pulse.before.value, 0.1), 2),
                         show(most))}};
  f.formula = fmt::format("sqrt({}² + {:.2g} J / {}) = {}", show(pulse.before), pulse.joules, show(pulse.farads), show(peak));
  f.args = {{"peak", peak}, {"limit", most}};
  f.bar = barOf(pulse.margin, most.value, "absolute maximum");
  return f;
}

}  // namespace

// The moment a switch opens: the winding's current must find a clamped path.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Opened& m) {
    const auto& motor = *m.motor;
    if (!m.margins[0].passed()) return lifted(s, m);
    auto subjects = m.margins[0].subjects;
    std::string stage = "its switch";
    if (motor.reached.size() == 1) {
      stage = bench::called(s.bench, motor.reached.front());
      subjects.push_back(idOf(s.bench, motor.reached.front().device));
    } else if (motor.kind == MotorKind::UnipolarStepper) {
      addSwitches(s, motor, *m.point, subjects);
    }
    auto f = finding(
        fmt::format("{} has no flyback path", called(s, motor)),
        fmt::format("When {} opens, the {} through {} have {}.", stage, show(m.current), called(s, motor),
                    byContact(s, motor) ? "nowhere to go: they arc over its contact, which wears, and disturb what stands near"
                    : withElectronics(s, motor)
                        ? "no way round: its electronics keep what their own coils give back, but nobody promises that for the leads"
                        : "nowhere to go: the voltage rises until something breaks down"),
        subjects);
    f.ways = {{fmt::format("Put a fast diode across {}, its band to the end that is at the supply.", called(s, motor))}};
    f.formula = fmt::format("{:.0f} % of {} find no path", 100 * *m.margins[0].value, show(m.current));
    f.args = {{"current", m.current}};
    f.sources = sourcesOf({&bench::windingOf(s.bench, motor, m.winding).run});
    f.repair = fitDiode(s, m);
    return f;
  });
}

Check check() {
  return {"flyback-missing", "flyback", "No path for the winding's current", Harm::Damage, judge};
}

}  // namespace bold::checks::flyback_missing
