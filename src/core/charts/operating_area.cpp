#include "core/charts/operating_area.h"

#include <algorithm>
#include <cmath>

#include "core/bench/queries.h"

namespace bold::charts {
namespace {

using bench::SolvedBench;

const bench::Motor* motorOf(const SolvedBench& s, const std::string& motor) {
  const int device = s.bench.deviceIndex(motor);
  const auto it = std::ranges::find(s.motors, device, &bench::Motor::device);
  return device < 0 || it == s.motors.end() ? nullptr : &*it;
}

// The motor supply of a stage, else what a low-side switch may keep off: its greatest voltage.
void window(const parts::Part& part, OperatingArea& out) {
  for (const auto& t : part.terminals)
    if (t.supply && t.supply->purpose == parts::SupplyFor::Motor) {
      out.least = t.supply->recommended.min;
      out.most = t.supply->recommended.max ? t.supply->recommended.max : t.supply->recommended.typ;
      out.absolute = t.supply->absolute.greatest();
      return;
    }
  for (const auto& e : part.elements) {
    if (const auto* m = std::get_if<parts::Mosfet>(&e.body)) out.absolute = m->vds.typical();
    if (const auto* b = std::get_if<parts::Bipolar>(&e.body)) out.absolute = b->vce.typical();
  }
  out.least = 0;
}

// The source whose plus the stage or the motor lies on.
const parts::Source* feeding(const SolvedBench& s, const bench::Motor& m) {
  for (const auto& pole : s.nets.sources())
    for (const auto t : s.nets.members(s.nets.of(pole.positive))) {
      const int d = s.bench.deviceOf(t);
      const auto& facts = s.bench.facts(t);
      if (d == m.device || (d == m.meant.device && facts.supply && facts.supply->purpose == parts::SupplyFor::Motor))
        return std::get_if<parts::Source>(&s.bench.devices[pole.device].part->elements[pole.element].body);
    }
  return nullptr;
}

}  // namespace

std::optional<OperatingArea> operatingArea(const SolvedBench& s, const std::string& motor) {
  const auto* m = motorOf(s, motor);
  if (!m || m->meant.device < 0) return std::nullopt;
  const auto& part = *s.bench.devices[m->meant.device].part;
  const auto& channel = bench::channelOf(s.bench, m->meant);
  OperatingArea out;
  out.name = part.name;
  window(part, out);
  out.continuous = channel.continuous.typical();
  out.withSink = channel.continuousSink.typical();
  out.peak = channel.peak.typical();
  if (!out.peak) out.peak = channel.trip.typical();
  return out;
}

std::vector<Whisker> whiskers(const SolvedBench& s, const std::string& motor) {
  const auto* m = motorOf(s, motor);
  const auto* source = m ? feeding(s, *m) : nullptr;
  std::vector<Whisker> out;
  if (!source || m->windings.empty()) return out;
  const int index = static_cast<int>(m - s.motors.data());
  const auto amps = [&](const bench::OperatingPoint* p) -> std::optional<double> {
    if (!p || !p->solved()) return std::nullopt;
    double most = 0;
    for (const int w : m->windings) most = std::max(most, std::abs(p->element(m->device, w).value));
    return most;
  };
  const auto add = [&](const char* name, bench::Corner corner, std::optional<double> volts) {
    Whisker w{name, volts.value_or(0), amps(s.running(index, corner)),
              amps(s.point(index, bench::Action::Forward, bench::Moment::Stalled, corner))};
    if (volts && (w.run || w.stall)) out.push_back(w);
  };
  add("full", bench::Corner::Full, source->full.greatest() ? source->full.greatest() : source->nominal.greatest());
  add("nearly empty", bench::Corner::Empty, source->empty.least() ? source->empty.least() : source->nominal.least());
  return out;
}

}  // namespace bold::charts
