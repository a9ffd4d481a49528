#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/bench/coils.h"
#include "core/checks/check.h"
#include "core/checks/current/stall_table.h"
#include "core/checks/queries.h"
#include "core/checks/repair_draft.h"

namespace bold::checks::phase_current_unlimited {
namespace {

constexpr double kBurns = 1.5;  // times that: the winding burns, and the stage with it
constexpr double kMore = 1.1;   // times what a coil is made for

struct Coil {
  Margin margin;
  const Motor* motor;
  Amps amps, rated;
};

// More than the stage stands is worse than more than the motor likes: the first of its limits that is a stop.
std::optional<Limit> stopOfStage(const SolvedBench& s, const Motor& m, double amps) {
  std::optional<Limit> least;
  for (const auto& ref : m.reached)
    if (const auto load = shortLoad(s.bench, ref, Amps{amps}, Amps{amps}))
      for (const auto& l : shortLimits(*load))
        if (l.consequence == Severity::Stop && (!least || *l.most < *least->most)) least = l;
  return least;
}

std::vector<Coil> measure(const SolvedBench& s) {
  std::vector<Coil> out;
  for (std::size_t k = 0; k < s.motors.size(); ++k) {
    const auto& m = s.motors[k];
    if (m.kind != MotorKind::BipolarStepper && m.kind != MotorKind::UnipolarStepper) continue;
    if (std::ranges::any_of(m.reached, [&](ChannelRef r) { return bench::chopperOf(s.bench, r) != nullptr; })) continue;
    const auto* p = s.running(static_cast<int>(k), Corner::Full);
    if (!p) continue;
    const auto rated = bench::ratedCurrent(s.bench, m);
    double amps = 0;
    for (const int e : m.windings) amps = std::max(amps, std::abs(p->element(m.device, e).value));
    Margin margin{.quantity = "coil current",
                  .subjects = {idOf(s.bench, m.device)},
                  .unit = Unit::Amp,
                  .value = amps,
                  .limits = rising(atMost(LimitKind::Recommended, Severity::Caution, rated ? std::optional(kMore * *rated) : std::nullopt,
                                          "1.1 x rated", bench::windingOf(s.bench, m, 0).phase.source)),
                  .at = p};
    if (rated)
      margin.limits.push_back(
          atMost(LimitKind::Absolute, Severity::Stop, kBurns * *rated, "1.5 x rated", bench::windingOf(s.bench, m, 0).phase.source));
    // What the stage does not stand counts once it is more than the motor is made for.
    if (auto stop = stopOfStage(s, m, amps); stop && rated) {
      stop->most = std::max(*stop->most, kMore * *rated);
      stop->name = "what the stage stands";
      margin.limits.push_back(*stop);
      std::ranges::stable_sort(margin.limits, {}, [](const Limit& l) { return l.most.value_or(0); });
    }
    out.push_back({std::move(margin), &m, Amps{amps}, Amps{rated.value_or(0)}});
  }
  return out;
}

}  // namespace

// A stepper on plain switches: its coils take supply over resistance.
Said judge(const SolvedBench& s) {
  return say(measure(s), [&](const Coil& c) {
    auto f = finding(
        fmt::format("A coil of {} takes {}", called(s, *c.motor), show(c.amps)),
        fmt::format("Nothing limits the current of {}: a coil takes {} where it is made for {}{}.", called(s, *c.motor), show(c.amps),
                    show(c.rated), c.margin.passed()->name == "what the stage stands" ? ", and that is more than the stage stands" : ""),
        c.margin.subjects);
    f.ways = {{fmt::format("Take a stage that regulates the coil current, for {} a coil.", show(c.rated))},
              {fmt::format("Or a supply of {:.2g} times this one's voltage.", c.rated.value / c.amps.value)}};
    f.formula = fmt::format("V / R = {} > 1.1 x {}", show(c.amps), show(c.rated));
    // With a winding that took its rated current all that follows would be gone; the stage that limits it has to be chosen.
    const auto& winding = bench::windingOf(s.bench, *c.motor, 0);
    if (const auto ohms = winding.resistance.typical(); ohms && c.rated.value > 0)
      f.supposing = RepairDraft(s.bench).figure(c.motor->device, "winding", Ohms{*ohms * 1.3 * c.amps.value / c.rated.value}).edit();
    f.args = {{"current", c.amps}, {"rated", c.rated}};
    f.bar = barOf(c.margin, c.rated.value, "rated");
    const auto& w = bench::windingOf(s.bench, *c.motor, 0);
    f.sources = sourcesOf({&w.phase, &w.resistance});
    return f;
  });
}

Check check() {
  return {"phase-current-unlimited", "current", "Nothing limits the coil current", Harm::Damage, judge};
}

}  // namespace bold::checks::phase_current_unlimited
