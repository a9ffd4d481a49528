#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "core/checks/queries.h"

namespace bold::checks {
namespace {

// Current of a source, with motors that the plan chops counted by their duty.
double meanCurrent(const SolvedBench& s, const OperatingPoint& p, const circuit::Nets::Pole& pole) {
  double sum = p.element(pole.device, pole.element).value;
  for (std::size_t m = 0; m < s.motors.size(); ++m) {
    const auto& motor = s.motors[m];
    if (motor.kind != MotorKind::Brushed || !p.command().turning[m] || dutyOf(motor) >= 1) continue;
    const auto& w = circuit::windingOf(s.bench, motor, 0);
    const bool mine = sourceAt(s, s.bench.terminal(motor.device, w.a), true) == &pole || s.nets.sources().size() == 1 ||
                      std::ranges::any_of(motor.reached, [&](ChannelRef r) {
                        const auto& terminals = s.bench.devices[static_cast<std::size_t>(r.device)].part->terminals;
                        return std::ranges::any_of(terminals, [&](const parts::Terminal& t) {
                          return t.supply && t.supply->purpose == "motor" && s.nets.same(s.bench.terminal(r.device, t.id), pole.positive);
                        });
                      });
    if (mine) sum -= (1 - dutyOf(motor)) * std::abs(p.element(motor.device, motor.windings[0]).value);
  }
  return sum;
}

}  // namespace

// Every source: what runs for long against its rating, and a start against its limit.
Findings supplyCurrent(const SolvedBench& s) {
  Findings out;
  for (const auto& pole : s.nets.sources()) {
    const auto& body = sourceBody(s.bench, pole);
    const auto continuous = body.continuous.typical();
    if (!continuous) continue;
    const auto running = largest(s, steady, [&](const OperatingPoint& p) { return meanCurrent(s, p, pole); });
    const auto start = largest(
        s, [](const OperatingPoint& p) { return everyday(p) && p.command().moment == Moment::Stalled; },
        [&](const OperatingPoint& p) { return p.element(pole.device, pole.element).value; });
    const auto limit = body.limit.typical();
    const bool over = running.value > *continuous;
    const bool held = limit && start.value > 0.97 * *limit;
    const bool startOver = !limit && start.value > 4 * *continuous;
    if (!over && !held && !startOver) continue;
    const bool stop = over && limit.has_value();
    // What a battery is comfortable with is no limit: it sags.
    const bool mild = !limit && over && running.value <= 1.5 * *continuous && start.value <= 4 * *continuous;
    const auto& worst = over ? running : start;
    const Amps rating{over ? *continuous : held ? *limit : *continuous};
    auto f = finding(stop   ? Severity::Stop
                     : mild ? Severity::Note
                            : Severity::Caution,
                     over   ? fmt::format("{} gives {}", called(s.bench, pole.device), show(Amps{worst.value}))
                     : held ? fmt::format("{} goes into its limit at a start", called(s.bench, pole.device))
                            : fmt::format("{} gives {} at a start", called(s.bench, pole.device), show(Amps{worst.value})),
                     over   ? fmt::format("With {} {} gives {}; it is rated for {}.", during(*worst.point), called(s.bench, pole.device),
                                          show(Amps{worst.value}), show(rating))
                     : held ? fmt::format("With {} {} is held at {}: the motor may not start, and the supply may switch off and try again.",
                                          during(*worst.point), called(s.bench, pole.device), show(rating))
                            : fmt::format("With {} {} gives {}; it is rated for {}, so it sags and ages fast.", during(*worst.point),
                                          called(s.bench, pole.device), show(Amps{worst.value}), show(rating)),
                     {idOf(s.bench, pole.device)});
    f.formula = fmt::format("{} {} {}", show(Amps{worst.value}), held && !over ? "at its limit of" : ">", show(rating));
    f.args = {{"current", Amps{worst.value}}, {"rating", rating}};
    f.bar = Bar{over ? "running current" : "start current", Amps{worst.value}, AnyQuantity(Amps{running.value}), rating,
                held && !over ? "current limit" : "rated"};
    f.sources = sourcesOf({&body.continuous, &body.limit});
    out.push_back(std::move(f));
  }
  return out;
}

}  // namespace bold::checks
