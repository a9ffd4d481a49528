#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/check.h"
#include "core/checks/program/coil_group.h"

namespace bold::checks::program_step_timing {
namespace {

// What the pin functions of framework C++ and of MicroPython take by themselves: pulses without a wait last that long at least.
constexpr double kCallTakes = 3e-6;      // s
constexpr double kStartStop = 500;       // full steps/s that a small stepper starts from standstill at most
constexpr double kFollowsAtMost = 1500;  // full steps/s that small steppers reach with a ramp on usual supplies

struct Stepping {
  const UsedPin* used;
  const WiredRole* role;
  std::optional<double> pulse, rate;  // s, 1/s
};

std::vector<Stepping> steppings(const SolvedBench& s, const ProgramOnBench& p) {
  std::vector<Stepping> out;
  for (const auto& r : p.roles()) {
    if (r.role != "step") continue;
    const auto* u = p.at(r.pin);
    if (!u) continue;
    Stepping x{u, &r, {}, {}};
    if (u->use->pulse) x.pulse = std::max(u->use->pulse->value, kCallTakes);
    if (u->use->rate) x.rate = u->use->rate->value;
    for (const auto& g : u->source->groups)
      if (g.kind == "step" && g.rate && std::ranges::count(g.words, u->use->word) > 0) x.rate = std::max(x.rate.value_or(0), g.rate->value);
    out.push_back(x);
  }
  (void)s;
  return out;
}

// Pulses that make one full step: as the steps of a turn are stated, else by the mode inputs; nothing where neither tells.
std::optional<int> microsteps(const SolvedBench& s, const Motor& m, int motor) {
  const auto* steps = s.bench.devices[m.device].part->figure("steps");
  if (m.intent && m.intent->stepsPerTurn && steps && steps->figure.typical())
    return std::max(1, static_cast<int>(std::lround(*m.intent->stepsPerTurn / *steps->figure.typical())));
  if (m.meant.device < 0) return 1;
  const auto& table = s.bench.devices[m.meant.device].part->microsteps;
  const auto* p = s.running(motor, Corner::Nominal);
  if (table.rows.empty()) return bench::chopperOf(s.bench, m.meant) ? std::nullopt : std::optional(1);
  if (!p) return std::nullopt;
  std::string levels;
  for (const auto& in : table.inputs) levels += p->level(s.bench.terminal(m.meant.device, in)) == parts::Level::High ? '1' : '0';
  for (const auto& [row, pulses] : table.rows)
    if (row == levels) return pulses;
  return std::nullopt;
}

// Coils that the program switches by itself, state after state.
void coilTables(const SolvedBench& s, const ProgramOnBench& program, Findings& out) {
  for (const auto& c : coilGroups(program)) {
    if (!c.group->rate || c.group->states.empty()) continue;
    const double full = c.group->rate->value / (c.group->states.size() >= 8 ? 2 : 1);
    if (full <= kFollowsAtMost) continue;
    const auto& motor = called(s, s.motors[c.motor]);
    auto f =
        programFinding(Severity::Caution, fmt::format("{} is stepped at {:.0f} full steps/s", motor, full),
                       fmt::format("The program goes on to the next state of {} every {}, {:.0f} full steps a second: more than a small "
                                   "stepper reaches. It hums and does not turn.",
                                   motor, show(Seconds{1 / c.group->rate->value}), full),
                       {idOf(s.bench, s.motors[c.motor].device)}, *c.any->use);
    if (c.group->place.line > 0) f.spots = {c.group->place};
    f.formula = fmt::format("{:.0f} > {:.0f} full steps/s", full, kFollowsAtMost);
    f.ways = {{fmt::format("Wait {} or longer between two states.", show(Seconds{(c.group->states.size() >= 8 ? 0.5 : 1) / kStartStop}))}};
    out.push_back(std::move(f));
  }
}

}  // namespace

// The step pulses that the program makes, against the stage and the motor.
Findings judge(const ProgramOnBench& program) {
  const auto& s = program.solved();
  Findings out;
  coilTables(s, program, out);
  for (const auto& x : steppings(s, program)) {
    const auto& m = s.motors[x.role->motor];
    const auto& motor = called(s, m);
    const int d = s.bench.deviceOf(x.role->input);
    const parts::Chopper* c = m.meant.device >= 0 ? bench::chopperOf(s.bench, m.meant) : nullptr;
    const auto high = c ? c->stepHigh.greatest() : std::nullopt;
    const auto low = c ? c->stepLow.greatest() : std::nullopt;
    const std::vector subjects{s.bench.address(x.role->pin), idOf(s.bench, m.device)};
    if (high && x.pulse && *x.pulse < *high) {
      auto f = programFinding(Severity::Stop, fmt::format("The step pulse of {} is too short", motor),
                              fmt::format("The program holds {} high for {}; {} needs {}: it will miss some.", said(*x.used->use),
                                          show(Seconds{*x.pulse}), called(s.bench, d), show(Seconds{*high})),
                              subjects, *x.used->use);
      f.formula = against(Seconds{*x.pulse}, "<", Seconds{*high});
      f.ways = {{fmt::format("Hold it high for {} or longer.", show(Seconds{*high}))}};
      f.sources = sourcesOf({&c->stepHigh});
      out.push_back(std::move(f));
      continue;
    }
    if (!x.rate) continue;
    if (high && low && *x.rate > 1 / (*high + *low)) {
      auto f = programFinding(Severity::Stop, fmt::format("{} cannot follow {}", called(s.bench, d), show(Hertz{*x.rate})),
                              fmt::format("The program makes {} step pulses a second; {} follows {} at most.", show(Hertz{*x.rate}),
                                          called(s.bench, d), show(Hertz{1 / (*high + *low)})),
                              subjects, *x.used->use);
      f.formula = against(Hertz{*x.rate}, ">", Hertz{1 / (*high + *low)});
      f.ways = {{fmt::format("Step at {} or slower.", show(Hertz{1 / (*high + *low)}))}};
      out.push_back(std::move(f));
      continue;
    }
    const auto micro = microsteps(s, m, x.role->motor);
    if (!micro || m.kind == MotorKind::TwoLead) continue;
    const double full = *x.rate / *micro;
    const bool far = full > kFollowsAtMost;
    // A stepper library may speed up by itself; pulses that are written out do so at once.
    if (full <= kStartStop || (!far && !x.used->use->rate)) continue;
    auto f = programFinding(far ? Severity::Caution : Severity::Note, fmt::format("{} is stepped at {:.0f} full steps/s", motor, full),
                            fmt::format("The program makes {} pulses a second, {:.0f} full steps of {}: more than a small stepper {}.",
                                        show(Hertz{*x.rate}), full, motor, far ? "reaches" : "starts from standstill without a ramp"),
                            subjects, *x.used->use);
    f.formula =
        fmt::format("{} / {} = {:.0f} > {:.0f} full steps/s", show(Hertz{*x.rate}), *micro, full, far ? kFollowsAtMost : kStartStop);
    f.ways = {{fmt::format("Begin below {:.0f} full steps/s and speed up, or step slower.", kStartStop)}};
    out.push_back(std::move(f));
  }
  return out;
}

Check check() {
  return {"program-step-timing", "program", "Step pulses of the program too short or too fast", Harm::WillNotWork, judge};
}

}  // namespace bold::checks::program_step_timing
