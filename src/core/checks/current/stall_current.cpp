#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"

namespace bold::checks::stall_current {
namespace {

struct Stall {
  Margins margins;  // as solved; with a winding at the far end of its class, one level milder
  const Motor* motor;
  ChannelRef ref;
  ShortLoad load;
  double spread;  // A
  std::optional<Volts> winding;
};

std::optional<Stall> measure(const SolvedBench& s, const Motor& motor, ChannelRef ref, const OperatingPoint& p, const OperatingPoint* far,
                             const OperatingPoint& run) {
  const auto load = shortLoad(s.bench, ref, outputCurrent(s, p, ref), outputCurrent(s, run, ref));
  if (!load || bench::chopperOf(s.bench, ref)) return std::nullopt;
  const auto& w = bench::windingOf(s.bench, motor, 0);
  const auto v = p.across(s.bench.terminal(motor.device, w.a), s.bench.terminal(motor.device, w.b));
  // The far end of the class through the same solve, this motor alone: the others are taken for typical.
  Stall m{{}, &motor, ref, *load, far ? std::max(load->amps, outputCurrent(s, *far, ref).value) : load->amps, v};
  const std::vector<std::string> subjects{idOf(s.bench, motor.device),
                                          s.bench.address(s.bench.terminal(ref.device, bench::channelOf(s.bench, ref).out.front()))};
  m.margins.push_back(shortMargin(*load, "stall current", subjects, &p));
  auto spread = *load;
  spread.amps = m.spread;
  auto end = shortMargin(spread, "stall current, winding at the low end of its class", subjects, far);
  end.limits = lowered(std::move(end.limits));
  if (m.spread > load->amps && !end.limits.empty()) m.margins.push_back(std::move(end));
  return m;
}

std::vector<Stall> measure(const SolvedBench& s) {
  std::vector<Stall> out;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.kind != MotorKind::TwoLead) continue;
    const auto* p = s.point(static_cast<int>(m), Action::Forward, Moment::Stalled, Corner::Full);
    const auto* run = s.running(static_cast<int>(m), Corner::Full);
    if (!p || !run) continue;
    const auto* far = s.point(static_cast<int>(m), Action::Forward, Moment::StalledAtMost, Corner::Full);
    for (const auto& ref : motor.reached)
      if (auto stall = measure(s, motor, ref, *p, far, *run)) out.push_back(std::move(*stall));
  }
  return out;
}

// Whether it is the far end of the winding's class that makes it as grave as it is.
bool fromSpread(const Stall& m) {
  if (m.margins.size() < 2 || !m.margins[1].passed()) return false;
  const auto* typical = m.margins[0].passed();
  return !typical || detail::rank(m.margins[1].passed()->consequence) < detail::rank(typical->consequence);
}

}  // namespace

// Stalled at full charge with a cold winding, the others running, against continuous and peak by the stage's protection.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Stall& m) {
    const auto& w = bench::windingOf(s.bench, *m.motor, 0);
    const auto stage = bench::called(s.bench, m.ref);
    const Amps continuous{m.load.continuous};
    const Amps peak{m.load.peak};
    const Amps running{m.load.running};
    const bool spread = fromSpread(m);
    const auto& margin = m.margins[spread ? 1 : 0];
    const Amps shown{*margin.value};
    const bool toContinuous = peak >= continuous && shown <= peak && margin.passed()->consequence == Severity::Note;
    auto f = finding(fmt::format("{} stalls at {}{} on {}", called(s, *m.motor), spread ? "up to " : "", show(shown), stage),
                     fmt::format("Stalled, {} draws {}{}; {} stands {} for long and {} for a moment, and has {}.", called(s, *m.motor),
                                 show(shown), spread ? " if its winding is at the low end of its class" : "", stage, show(continuous),
                                 show(peak), word(m.load.protection)),
                     margin.subjects);
    if (spread) f.text += " Measure the winding at three rotor positions and enter the lowest.";
    if (spread)
      f.ways.push_back(
          {"Measure the winding at three positions of the shaft and enter the lowest.", figureOf(s.bench, m.motor->device, "winding")});
    f.ways.push_back({fmt::format("Take a stage that stands {} for a moment and {} for long.", show(shown), show(running))});
    if (!spread)
      f.ways.push_back({fmt::format("Or enter the winding of {} as measured, if its figure is only recalled.", called(s, *m.motor)),
                        figureOf(s.bench, m.motor->device, "winding")});
    f.formula =
        fmt::format("{} at {} on the winding ({}) against {} continuous, {} peak", show(Amps{m.load.amps}),
                    m.winding ? show(Volts{std::abs(m.winding->value)}) : "?", displayText(w.resistance), show(continuous), show(peak));
    f.args = {{"stall", shown}, {"running", running}, {"continuous", continuous}, {"peak", peak}};
    f.bar = Bar{"stall current", shown, AnyQuantity(running), toContinuous ? continuous : peak,
                toContinuous && peak != continuous ? "continuous" : "peak"};
    f.sources = sourcesOf({&w.resistance, &continuousOf(s.bench, m.ref), &bench::channelOf(s.bench, m.ref).peak});
    return f;
  });
}

Check check() {
  return {"stall-current", "current", "More stall current than the stage stands", Harm::Damage, judge};
}

}  // namespace bold::checks::stall_current
