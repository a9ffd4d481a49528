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

// On a contact of a relay whose coil is switched elsewhere.
bool onBareRelay(const Bench& bench, const Motor& m) {
  return std::ranges::any_of(m.reached, [&](ChannelRef r) { return channelOf(bench, r).signals.empty() && isContact(bench, r); });
}

bool bothLeadsWired(const Bench& bench, const Motor& m) {
  for (std::size_t i = 0; i < m.windings.size(); ++i)
    for (const auto& end : {windingOf(bench, m, i).a, windingOf(bench, m, i).b})
      if (const auto lead = bench.terminal(m.device, end); lead >= 0 && !bench.connected(lead)) return false;
  return !m.windings.empty();
}

}  // namespace

std::vector<TerminalIndex> controlsOf(const Bench& bench, const Nets& nets, const Motor& m) {
  std::vector<TerminalIndex> out;
  for (const auto& ref : m.reached)
    for (const auto& [role, id] : channelOf(bench, ref).signals) out.push_back(bench.terminal(ref.device, id));
  for (const auto& contact : m.poles) out.push_back(contact.input);
  controlsAt(bench, nets, m, out);
  std::erase(out, -1);
  return out;
}

Steering wiredSteering(const Bench& bench, const Nets& nets, const Motor& m) {
  if (m.coil >= 0 || m.kind == MotorKind::Servo || (m.intent && !m.intent->signals.empty())) return Steering::Pins;
  if (onBareRelay(bench, m)) return Steering::Pins;
  const auto controls = controlsOf(bench, nets, m);
  if (controls.empty()) return bothLeadsWired(bench, m) && m.kind == MotorKind::TwoLead ? Steering::AlwaysOn : Steering::Pins;
  return std::ranges::all_of(controls, [&](TerminalIndex t) { return bench.connected(t) && tied(bench, nets, t); }) ? Steering::ByHand
                                                                                                                    : Steering::Pins;
}

Steering steeringOf(const Bench& bench, const Nets& nets, const Motor& m) {
  using harness::Switched;
  const auto wired = wiredSteering(bench, nets, m);
  if (!m.intent || !m.intent->signals.empty()) return wired;
  if (m.intent->switched == Switched::ByProgram) return Steering::Pins;
  if (m.intent->switched == Switched::AlwaysOn) return Steering::AlwaysOn;
  if (m.intent->switched != Switched::ByHand || m.coil >= 0) return wired;
  const bool pins = std::ranges::any_of(controlsOf(bench, nets, m), [&](TerminalIndex t) { return !programPins(bench, nets, t).empty(); });
  return pins ? wired : Steering::ByHand;
}

}  // namespace bold::bench
