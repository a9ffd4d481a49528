#include "core/bench/steering.h"

#include <algorithm>

#include "core/bench/queries.h"
#include "core/bench/signal_nets.h"

namespace bold::bench {
namespace {

// Rails, resistors and contacts get to a control, and nothing that a program or a chip sets.
bool tied(const Bench& bench, const Nets& nets, TerminalIndex control) {
  bool rail = false;
  for (const int net : signalNets(bench, nets, control, Along::TransistorsBack)) {
    rail = rail || nets.rail(net);
    for (const auto t : nets.members(net))
      if (pinGroup(bench, t) || (bench.facts(t).output && bench.deviceOf(t) != bench.deviceOf(control))) return false;
  }
  return rail || nets.rail(nets.of(control));
}

// Gates and bases of loose transistors with an end on one of its leads, but for a supply's.
void controlsAt(const Bench& bench, const Nets& nets, const Motor& m, std::vector<TerminalIndex>& out) {
  const auto onLead = [&](int d, const parts::Node& n) {
    const auto t = at(bench, d, n);
    if (t < 0 || nets.rail(nets.of(t))) return false;
    for (std::size_t i = 0; i < m.windings.size(); ++i)
      for (const auto& end : {windingOf(bench, m, i).a, windingOf(bench, m, i).b})
        if (const auto lead = bench.terminal(m.device, end); lead >= 0 && nets.same(lead, t)) return true;
    return false;
  };
  eachElement<parts::Mosfet>(bench, [&](int d, int, const parts::Mosfet& t) {
    if (onLead(d, t.drain) || onLead(d, t.source)) out.push_back(at(bench, d, t.gate));
  });
  eachElement<parts::Bipolar>(bench, [&](int d, int, const parts::Bipolar& t) {
    if (onLead(d, t.collector) || onLead(d, t.emitter)) out.push_back(at(bench, d, t.base));
  });
}

}  // namespace

Steering steeringOf(const Bench& bench, const Nets& nets, const Motor& m) {
  if (m.coil >= 0 || m.kind == MotorKind::Servo || (m.intent && !m.intent->signals.empty())) return Steering::Pins;
  std::vector<TerminalIndex> controls;
  for (const auto& ref : m.reached) {
    const auto& signals = channelOf(bench, ref).signals;
    if (signals.empty() && isContact(bench, ref)) return Steering::Pins;  // of a relay whose coil is elsewhere
    for (const auto& [role, id] : signals) controls.push_back(bench.terminal(ref.device, id));
  }
  controlsAt(bench, nets, m, controls);
  if (controls.empty()) {
    const bool wired = std::ranges::any_of(m.windings, [&](int) {
      for (std::size_t i = 0; i < m.windings.size(); ++i)
        for (const auto& end : {windingOf(bench, m, i).a, windingOf(bench, m, i).b})
          if (const auto lead = bench.terminal(m.device, end); lead >= 0 && !bench.connected(lead)) return false;
      return true;
    });
    return wired && m.kind == MotorKind::TwoLead ? Steering::AlwaysOn : Steering::Pins;
  }
  return std::ranges::all_of(controls, [&](TerminalIndex t) { return t >= 0 && bench.connected(t) && tied(bench, nets, t); })
             ? Steering::ByHand
             : Steering::Pins;
}

}  // namespace bold::bench
