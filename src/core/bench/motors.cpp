#include "core/bench/motors.h"

#include <algorithm>
#include <set>

#include "core/bench/coils.h"
#include "core/bench/copper_distance.h"
#include "core/bench/queries.h"
#include "core/bench/reversing.h"
#include "core/bench/signal_nets.h"

namespace bold::bench {
namespace {

// Of a relay's contact its common end drives a motor as well; on a rail it is only what is switched.
bool fromCommon(const Bench& bench, const Nets& nets, ChannelRef ref, TerminalIndex t) {
  if (!isContact(bench, ref) || nets.rail(nets.of(t))) return false;
  const auto& out = channelOf(bench, ref).out.front();
  return std::ranges::any_of(bench.devices[ref.device].part->elements, [&](const parts::Element& e) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    return sw && sw->contact &&
           ((sw->a == out && bench.terminal(ref.device, sw->b) == t) || (sw->b == out && bench.terminal(ref.device, sw->a) == t));
  });
}

// A relay's contact whose other end leads to something: where one end is on a pole, it is fed there and switches that.
bool feedsOn(const Bench& bench, ChannelRef ref) {
  if (!isContact(bench, ref)) return false;
  const auto& out = channelOf(bench, ref).out.front();
  return std::ranges::any_of(bench.devices[ref.device].part->elements, [&](const parts::Element& e) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    if (!sw || !sw->contact || (sw->a != out && sw->b != out)) return false;
    const auto other = bench.terminal(ref.device, sw->a == out ? sw->b : sw->a);
    return other >= 0 && bench.connected(other);
  });
}

// In bench order.
std::vector<ChannelRef> channelsReached(const Bench& bench, const Nets& nets, const Motor& m) {
  std::set<std::pair<int, int>> found;
  for (std::size_t w = 0; w < m.windings.size(); ++w)
    for (const auto& end : {windingOf(bench, m, w).a, windingOf(bench, m, w).b}) {
      const auto lead = bench.terminal(m.device, end);
      if (lead < 0) continue;
      const bool onPole = std::ranges::any_of(
          nets.sources(), [&](const Nets::Pole& pole) { return nets.same(pole.positive, lead) || nets.same(pole.negative, lead); });
      for (const auto t : nets.members(nets.of(lead))) {
        const int d = bench.deviceOf(t);
        if (d == m.device) continue;  // a relay's contact never works its own coil
        const auto& channels = bench.devices[d].part->channels;
        for (std::size_t c = 0; c < channels.size(); ++c) {
          const ChannelRef ref{d, static_cast<int>(c)};
          if (onPole && feedsOn(bench, ref)) continue;
          const bool out = std::ranges::any_of(channels[c].out, [&](const auto& o) { return bench.terminal(d, o) == t; });
          if (out || fromCommon(bench, nets, ref, t)) found.emplace(d, static_cast<int>(c));
        }
      }
    }
  std::vector<ChannelRef> out;
  for (const auto& [d, c] : found) out.push_back({d, c});
  return out;
}

// A centre tap shared by several windings makes a unipolar motor.
bool sharesTap(const Bench& bench, const Motor& m) {
  for (std::size_t i = 0; i < m.windings.size(); ++i)
    for (std::size_t k = i + 1; k < m.windings.size(); ++k) {
      const auto& x = windingOf(bench, m, i);
      const auto& y = windingOf(bench, m, k);
      if (x.a == y.a || x.b == y.b || x.a == y.b) return true;
    }
  return false;
}

// A bipolar stepper whose coils hang on two bridges is meant for both.
void findBridges(const Bench& bench, Motor& m) {
  std::vector<ChannelRef> bridges;
  for (const auto& r : m.reached)
    if (channelOf(bench, r).out.size() == 2 && !channelOf(bench, r).lowSide) bridges.push_back(r);
  if (bridges.size() != 2 || (m.meant.device >= 0 && std::ranges::count(bridges, m.meant) == 0)) return;
  if (m.intent && !m.intent->channel.empty()) return;
  m.meant = bridges[0];
  m.further = {bridges[1]};
}

std::string coilRole(std::size_t coil) {
  return "in" + std::to_string(coil + 1);
}

// A unipolar stepper whose coils hang on single switches is meant for all of them. A switch is whatever coil of the sequence
// its pin is meant for; those that no pin tells apart follow in bench order.
void findSwitches(const Bench& bench, const Nets& nets, Motor& m) {
  std::vector<ChannelRef> loose;
  for (const auto& r : m.reached)
    if (channelOf(bench, r).out.size() == 1 && channelOf(bench, r).lowSide && channelOf(bench, r).signals.contains("in"))
      loose.push_back(r);
  if (loose.size() < 2 || (m.meant.device >= 0 && std::ranges::count(loose, m.meant) == 0)) return;
  std::vector<ChannelRef> coils(std::max(loose.size(), m.windings.size()));
  if (m.intent)
    for (std::size_t k = 0; k < coils.size(); ++k)
      for (const auto& s : m.intent->signals) {
        const auto pin = bench.terminal(s.pin);
        if (s.role != coilRole(k) || pin < 0) continue;
        const auto reached = signalNets(bench, nets, pin, Along::Copper);
        const auto it = std::ranges::find_if(loose, [&](ChannelRef r) {
          const auto input = bench.terminal(r.device, channelOf(bench, r).signals.at("in"));
          return input >= 0 && reached.contains(nets.of(input));
        });
        if (it == loose.end()) continue;
        coils[k] = *it;
        loose.erase(it);
      }
  for (auto& coil : coils)
    if (coil.device < 0 && !loose.empty()) {
      coil = loose.front();
      loose.erase(loose.begin());
    }
  m.meant = coils.front();
  m.further.assign(coils.begin() + 1, coils.end());
}

// A brushed motor with one lead on one output of its bridge and the other on a rail.
std::optional<HalfBridge> halfBridge(const Bench& bench, const Nets& nets, const Motor& m) {
  if (m.kind != MotorKind::TwoLead || m.meant.device < 0) return std::nullopt;
  const auto& channel = channelOf(bench, m.meant);
  if (channel.lowSide || channel.out.size() != 2) return std::nullopt;
  const auto& w = windingOf(bench, m, 0);
  const TerminalIndex leads[2] = {bench.terminal(m.device, w.a), bench.terminal(m.device, w.b)};
  const auto on = [&](TerminalIndex lead, std::size_t o) { return nets.same(lead, bench.terminal(m.meant.device, channel.out[o])); };
  for (const int i : {0, 1})
    for (const std::size_t o : {0, 1}) {
      const auto other = leads[1 - i];
      if (!on(leads[i], o) || on(leads[i], 1 - o) || on(other, 0) || on(other, 1) || !nets.rail(nets.of(other))) continue;
      return HalfBridge{o, nets.grounded(nets.of(other))};
    }
  return std::nullopt;
}

// Capacitors at the motor supplies of its stages.
std::vector<std::pair<int, int>> buffersOf(const Bench& bench, const Nets& nets, const Motor& m) {
  std::vector<std::pair<TerminalIndex, TerminalIndex>> supplies;
  std::set<int> stages;
  for (const auto& ref : m.reached)
    if (stages.insert(ref.device).second)
      for (const auto& t : bench.devices[ref.device].part->terminals)
        if (t.supply && t.supply->purpose == parts::SupplyFor::Motor)
          supplies.emplace_back(bench.terminal(ref.device, t.id), bench.terminal(ref.device, t.supply->back));
  std::vector<std::pair<int, int>> out;
  if (supplies.empty()) return out;
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    const auto& elements = bench.devices[d].part->elements;
    for (std::size_t e = 0; e < elements.size(); ++e) {
      const auto* c = std::get_if<parts::Capacitor>(&elements[e].body);
      if (!c || !bench.devices[d].has(elements[e]) || c->a.inner() || c->b.inner()) continue;
      const int device = static_cast<int>(d);
      const auto a = bench.terminal(device, c->a);
      const auto b = bench.terminal(device, c->b);
      const auto at = [&](TerminalIndex x, TerminalIndex y) {
        return std::ranges::any_of(supplies, [&](const auto& s) {
          return copperDistance(bench, nets, x, s.first, kNear) && copperDistance(bench, nets, y, s.second, kNear);
        });
      };
      if (at(a, b) || at(b, a)) out.emplace_back(device, static_cast<int>(e));
    }
  }
  return out;
}

std::vector<TerminalIndex> tiedLow(const Bench& bench, const Nets& nets, const Motor& m) {
  std::vector<TerminalIndex> out;
  std::set<int> stages{m.meant.device};
  for (const auto& c : m.further) stages.insert(c.device);
  stages.erase(-1);
  for (const int stage : stages)
    for (const auto& t : bench.devices[stage].part->terminals) {
      const auto at = bench.terminal(stage, t.id);
      if (t.input && std::ranges::any_of(nets.members(nets.of(at)), [&](TerminalIndex other) { return bench.facts(other).ground; }))
        out.push_back(at);
    }
  return out;
}

}  // namespace

std::vector<MeantChannel> meantChannels(const Bench& bench, const Motor& m) {
  std::vector<MeantChannel> out;
  const auto in = [&](ChannelRef r) { return channelOf(bench, r).signals.at("in"); };
  if (m.kind == MotorKind::UnipolarStepper && !m.further.empty()) {
    if (m.meant.device >= 0) out.push_back({m.meant, {{coilRole(0), in(m.meant)}}, 0});
    for (std::size_t k = 0; k < m.further.size(); ++k)
      if (m.further[k].device >= 0) out.push_back({m.further[k], {{coilRole(k + 1), in(m.further[k])}}, static_cast<int>(k) + 1});
    return out;
  }
  if (m.meant.device >= 0) out.push_back({m.meant, channelOf(bench, m.meant).signals});
  for (const auto& ref : m.further) {
    MeantChannel second{ref};
    static const std::map<std::string, std::string> kRoles{{"in1", "in3"}, {"in2", "in4"}, {"speed", "speed2"}, {"dir", "dir2"}};
    for (const auto& [role, input] : channelOf(bench, ref).signals) second.inputs[kRoles.contains(role) ? kRoles.at(role) : role] = input;
    out.push_back(std::move(second));
  }
  return out;
}

std::vector<std::string> rolesOf(const Bench& bench, const Motor& m) {
  if (m.kind == MotorKind::Servo) return {"pulse"};
  if (!m.poles.empty()) return {"forward", "reverse"};
  std::vector<std::string> out;
  for (const auto& c : meantChannels(bench, m))
    for (const auto& [role, input] : c.inputs)
      if (std::ranges::count(out, role) == 0) out.push_back(role);
  if (!out.empty() || m.kind != MotorKind::TwoLead) return out;
  const auto& w = windingOf(bench, m, 0);
  const auto wired = [&](const parts::Node& lead) {
    const auto t = bench.terminal(m.device, lead);
    return t >= 0 && bench.connected(t);
  };
  if (!wired(w.a) || !wired(w.b)) return out;
  if (m.intent && m.intent->bothDirections) return {"forward", "reverse"};
  return {"in"};
}

TerminalIndex inputOf(const Bench& bench, const Motor& m, const std::string& role) {
  if (!m.poles.empty()) return reversingInput(bench, m, role);
  for (const auto& c : meantChannels(bench, m))
    if (const auto it = c.inputs.find(role); it != c.inputs.end()) return bench.terminal(c.ref.device, it->second);
  return -1;
}

std::vector<int> together(const std::vector<Motor>& motors, int motor) {
  const auto& m = motors[motor];
  std::vector<int> out{motor};
  if (m.meant.device < 0 || !m.intent || m.intent->signals.empty()) return out;
  const auto same = [](const harness::Signal& a, const harness::Signal& b) { return a.role == b.role && a.pin == b.pin; };
  for (std::size_t k = 0; k < motors.size(); ++k) {
    const auto& other = motors[k];
    if (&other == &m || !other.intent || other.kind != m.kind || !(other.meant == m.meant) || other.further != m.further) continue;
    if (std::ranges::is_permutation(other.intent->signals, m.intent->signals, same)) out.push_back(static_cast<int>(k));
  }
  return out;
}

std::vector<int> reversingCoils(const Motor& m) {
  std::vector<int> out;
  for (const auto& c : m.poles)
    if (c.coil >= 0 && std::ranges::count(out, c.coil) == 0) out.push_back(c.coil);
  return out;
}

bool stated(const std::vector<Motor>& motors, int motor) {
  const auto said = [](const Motor& m) { return m.intent && !m.intent->signals.empty(); };
  const auto& m = motors[motor];
  const auto coils = reversingCoils(m);
  return said(m) || (m.coil >= 0 && said(motors[m.coil])) ||
         (!coils.empty() && std::ranges::all_of(coils, [&](int k) { return said(motors[k]); })) ||
         std::ranges::any_of(motors, [&](const Motor& other) {
           return said(other) && (other.coil == motor || std::ranges::count(reversingCoils(other), motor) > 0);
         });
}

const parts::Channel& channelOf(const Bench& bench, ChannelRef ref) {
  return bench.devices[ref.device].part->channels[ref.channel];
}

const parts::Winding& windingOf(const Bench& bench, const Motor& motor, std::size_t i) {
  const auto& elements = bench.devices[motor.device].part->elements;
  return std::get<parts::Winding>(elements[motor.windings[i]].body);
}

std::string called(const Bench& bench, ChannelRef ref) {
  const auto& d = bench.devices[ref.device];
  return d.part->channels.size() < 2 ? d.called() : d.called() + " channel " + channelOf(bench, ref).id;
}

const parts::Chopper* chopperOf(const Bench& bench, ChannelRef ref) {
  if (ref.device < 0) return nullptr;
  const auto& device = bench.devices[ref.device];
  for (const auto& e : device.part->elements)
    if (const auto* c = std::get_if<parts::Chopper>(&e.body); c && device.has(e)) return c;
  return nullptr;
}

namespace {

// A contact that is moved by the voltage across a coil, not by an input.
std::optional<bool> closedAtRest(const Bench& bench, ChannelRef ref) {
  if (ref.device < 0 || !isContact(bench, ref)) return std::nullopt;
  const auto& out = channelOf(bench, ref).out.front();
  for (const auto& e : bench.devices[ref.device].part->elements) {
    const auto* sw = std::get_if<parts::Switch>(&e.body);
    if (!sw || !sw->contact || sw->a != out) continue;
    const auto at = [&](double volts) {
      return sw->on.evaluate({[](const parts::Node&) { return parts::Level::Undefined; },
                              [&](const parts::Node&, const parts::Node&) -> std::optional<double> { return volts; }});
    };
    constexpr double kPlenty = 1000;
    const auto rest = at(0);
    if (rest != parts::Level::Undefined && at(kPlenty) == !rest) return rest == parts::Level::High;
  }
  return std::nullopt;
}

// Channels whose outputs are joined, each to one of the first's: nobody has to say which of them is meant.
bool paralleled(const Bench& bench, const Nets& nets, const std::vector<ChannelRef>& all) {
  if (all.empty()) return false;
  std::set<int> first;
  for (const auto& o : channelOf(bench, all.front()).out) first.insert(nets.of(bench.terminal(all.front().device, o)));
  return std::ranges::all_of(all, [&](ChannelRef r) {
    std::set<int> mine;
    for (const auto& o : channelOf(bench, r).out) mine.insert(nets.of(bench.terminal(r.device, o)));
    return mine == first;
  });
}

void findReversing(const Bench& bench, const Nets& nets, std::vector<Motor>& motors) {
  // A plan that names one pin for one contact is judged as it is stated.
  const auto eachWay = [](const harness::Signal& s) { return s.role == "forward" || s.role == "reverse"; };
  for (auto& m : motors)
    if (!m.intent || m.intent->signals.empty() || std::ranges::any_of(m.intent->signals, eachWay))
      m.poles = poleContacts(bench, nets, motors, m);
  for (auto& m : motors)
    if (!m.poles.empty()) m.meant = {};
}

void findCoils(const Bench& bench, std::vector<Motor>& motors) {
  for (auto& m : motors)
    for (std::size_t k = 0; k < motors.size(); ++k) {
      if (!motors[k].still || motors[k].device != m.meant.device) continue;
      if (const auto rest = closedAtRest(bench, m.meant)) {
        m.coil = static_cast<int>(k);
        m.atRest = *rest;
      }
    }
}

}  // namespace

std::vector<Motor> motorsOf(const Bench& bench, const Nets& nets) {
  std::vector<Motor> out;
  for (std::size_t d = 0; d < bench.devices.size(); ++d) {
    Motor m;
    m.device = static_cast<int>(d);
    bool twoLead = false;
    bool servo = false;
    const auto& elements = bench.devices[d].part->elements;
    for (std::size_t e = 0; e < elements.size(); ++e) {
      if (const auto* w = std::get_if<parts::Winding>(&elements[e].body)) {
        m.windings.push_back(static_cast<int>(e));
        twoLead = twoLead || w->brushed || w->still;
        m.still = m.still || w->still;
      }
      if (const auto* s = std::get_if<parts::Sink>(&elements[e].body)) servo = servo || s->start.known();
    }
    if (m.windings.empty() && !servo) continue;
    m.kind = m.windings.empty()    ? MotorKind::Servo
             : twoLead             ? MotorKind::TwoLead
             : sharesTap(bench, m) ? MotorKind::UnipolarStepper
                                   : MotorKind::BipolarStepper;
    for (const auto& i : bench.intents)
      if (i.motor == bench.devices[d].doc.id) m.intent = &i;
    m.reached = channelsReached(bench, nets, m);
    // With its taps open a six-lead motor on bridges is a bipolar one.
    const bool bridges = !m.reached.empty() && std::ranges::none_of(m.reached, [&](ChannelRef r) { return channelOf(bench, r).lowSide; });
    if (m.kind == MotorKind::UnipolarStepper && bridges && tapsOpen(bench, m)) m.kind = MotorKind::BipolarStepper;
    if (m.intent && !m.intent->stage.empty()) {
      const int s = bench.deviceIndex(m.intent->stage);
      if (s >= 0) {
        const auto& channels = bench.devices[s].part->channels;
        const auto& wanted = m.intent->channel;
        const auto reached = std::ranges::find(m.reached, s, &ChannelRef::device);
        if (wanted.empty() && reached != m.reached.end())
          m.meant = *reached;
        else if (const auto c = std::ranges::find_if(channels, [&](const auto& x) { return wanted.empty() || x.id == wanted; });
                 c != channels.end())
          m.meant = {s, static_cast<int>(c - channels.begin())};
      }
    }
    if (m.meant.device < 0 && (m.reached.size() == 1 || paralleled(bench, nets, m.reached))) m.meant = m.reached.front();
    if (m.kind == MotorKind::BipolarStepper) findBridges(bench, m);
    if (m.kind == MotorKind::UnipolarStepper) findSwitches(bench, nets, m);
    out.push_back(std::move(m));
  }
  findReversing(bench, nets, out);
  for (auto& m : out) {
    m.half = halfBridge(bench, nets, m);
    m.tiedLow = tiedLow(bench, nets, m);
    m.buffers = buffersOf(bench, nets, m);
  }
  findCoils(bench, out);
  return out;
}

}  // namespace bold::bench
