#include "core/choose/motor_gets.h"

#include <algorithm>
#include <cmath>

#include "core/bench/queries.h"

namespace bold::choose {

MotorGets motorGets(const bench::SolvedBench& s, const std::string& motor) {
  MotorGets out;
  const int device = s.bench.deviceIndex(motor);
  const auto it = std::ranges::find(s.motors, device, &bench::Motor::device);
  if (device < 0 || it == s.motors.end() || it->windings.empty()) return out;
  const auto& m = *it;
  if (m.meant.device >= 0 && bench::chopperOf(s.bench, m.meant)) return out;
  const auto& w = bench::windingOf(s.bench, m, 0);
  const int index = static_cast<int>(it - s.motors.begin());
  const auto across = [&](const bench::OperatingPoint* p) {
    const auto v = p ? p->across(s.bench.terminal(device, w.a), s.bench.terminal(device, w.b)) : std::nullopt;
    return v ? std::optional(Volts{std::abs(v->value)}) : std::nullopt;
  };
  const auto* running = s.running(index, bench::Corner::Nominal);
  out.most = across(s.running(index, bench::Corner::Full));
  out.running = across(running);
  out.stalled = across(s.point(index, bench::Action::Forward, bench::Moment::Stalled, bench::Corner::Nominal));
  const auto r = w.resistance.typical();
  if (!running || !out.running || !r || !w.brushed) return out;
  // Its own voltage goes with its speed: behind the stage, and on the largest supply of the bench that could feed it.
  const double amps = std::abs(running->element(device, m.windings[0]).value);
  double supply = 0;
  for (const auto& pole : s.nets.sources()) {
    const auto* source = std::get_if<parts::Source>(&s.bench.devices[pole.device].part->elements[pole.element].body);
    const bool feeds = std::ranges::any_of(s.nets.members(s.nets.of(pole.positive)), [&](bench::TerminalIndex t) {
      const int d = s.bench.deviceOf(t);
      return d == device || (d == m.meant.device && s.bench.facts(t).supply && s.bench.facts(t).supply->purpose == parts::SupplyFor::Motor);
    });
    if (source && feeds) supply = std::max(supply, source->nominal.typical().value_or(0));
  }
  const double alone = supply - amps * *r;
  if (alone > 0) out.speed = std::clamp((out.running->value - amps * *r) / alone, 0.0, 1.0);
  return out;
}

}  // namespace bold::choose
