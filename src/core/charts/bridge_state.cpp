#include "core/charts/bridge_state.h"

#include <cmath>

#include "core/bench/doing_words.h"
#include "core/bench/queries.h"

namespace bold::charts {
namespace {

using bench::OperatingPoint;
using bench::SolvedBench;

// A transistor counts as on when it carries current without standing at its supply.
bool conducts(const OperatingPoint& p, int device, int element) {
  return std::abs(p.element(device, element).value) > 1e-3;
}

Leg legOf(const SolvedBench& s, const OperatingPoint& p, bench::ChannelRef ref, const std::string& out) {
  Leg leg;
  leg.output = out;
  const auto t = s.bench.terminal(ref.device, out);
  leg.current = bench::leaving(s, p, t);
  const auto& channel = bench::channelOf(s.bench, ref);
  if (!channel.returnTerminal.empty()) leg.voltage = p.across(t, s.bench.terminal(ref.device, channel.returnTerminal));
  const auto& device = s.bench.devices[ref.device];
  for (std::size_t e = 0; e < device.part->elements.size(); ++e) {
    const auto& element = device.part->elements[e];
    const int index = static_cast<int>(e);
    if (!device.has(element)) continue;
    if (const auto* sw = std::get_if<parts::Switch>(&element.body)) {
      if (sw->b == out) {
        leg.hasHigh = true;
        leg.high = p.on(ref.device, index);
      }
      if (sw->a == out) {
        leg.hasLow = true;
        leg.low = p.on(ref.device, index);
      }
    } else {
      const auto* b = std::get_if<parts::Bipolar>(&element.body);
      const auto* m = std::get_if<parts::Mosfet>(&element.body);
      if (!(b && b->collector == out) && !(m && m->drain == out)) continue;
      leg.hasLow = true;
      leg.low = conducts(p, ref.device, index);
    }
  }
  return leg;
}

}  // namespace

std::optional<BridgeState> bridgeState(const SolvedBench& s, int motor, const OperatingPoint& p) {
  const auto& m = s.motors[motor];
  if (m.reached.empty() || m.windings.empty()) return std::nullopt;
  const auto ref = m.meant.device >= 0 ? m.meant : m.reached.front();
  BridgeState b;
  b.stage = bench::called(s.bench, ref);
  b.motor = bench::called(s, m);
  b.does = bench::doingWords(p, motor);
  const auto add = [&](bench::ChannelRef at, const std::string& out) {
    b.legs.push_back(legOf(s, p, at, out));
    b.shootThrough = b.shootThrough || (b.legs.back().high == true && b.legs.back().low == true);
  };
  const auto& outs = bench::channelOf(s.bench, ref).out;
  if (m.half) {
    add(ref, outs[m.half->output]);
    b.toReturn = m.half->high;
  } else if (m.kind == bench::MotorKind::UnipolarStepper && !m.further.empty()) {
    b.stage = "";
    for (const auto& c : bench::meantChannels(s.bench, m)) {
      add(c.ref, bench::channelOf(s.bench, c.ref).out.front());
      const auto& name = bench::called(s.bench, c.ref.device);
      if (!b.stage.ends_with(name)) b.stage += (b.stage.empty() ? "" : ", ") + name;
    }
  } else {
    for (const auto& out : outs) add(ref, out);
  }
  bool switches = false;
  for (const auto& leg : b.legs) switches = switches || leg.hasHigh || leg.hasLow;
  if (!switches) return std::nullopt;
  b.motorCurrent = b.legs.front().current;
  return b;
}

}  // namespace bold::charts
