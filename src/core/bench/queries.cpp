#include "core/bench/queries.h"

#include <algorithm>

#include "core/bench/signal_nets.h"

namespace bold::bench {

const std::string& idOf(const Bench& bench, int device) {
  return bench.devices[device].doc.id;
}

const std::string& called(const Bench& bench, int device) {
  return bench.devices[device].called();
}

std::string called(const SolvedBench& s, const Motor& motor) {
  return called(s.bench, motor.device);
}

std::optional<PinGroup> pinGroup(const Bench& bench, TerminalIndex t) {
  if (t < 0 || !bench.facts(t).pin) return std::nullopt;
  const int d = bench.deviceOf(t);
  for (const auto& e : bench.devices[d].part->elements)
    if (const auto* p = std::get_if<parts::Pins>(&e.body); p && std::ranges::count(p->pins, bench.facts(t).id) > 0)
      return PinGroup{d, p, bench.terminal(d, p->rail), bench.terminal(d, p->ground)};
  return std::nullopt;
}

Amps leaving(const SolvedBench& s, const OperatingPoint& p, TerminalIndex t) {
  Amps sum{};
  for (std::size_t l = 0; l < s.bench.links.size(); ++l) {
    const auto& link = s.bench.links[l];
    if (link.a == link.b) continue;
    if (link.a == t) sum = sum + p.link(static_cast<int>(l));
    if (link.b == t) sum = sum - p.link(static_cast<int>(l));
  }
  return sum;
}

std::vector<TerminalIndex> signalReach(const SolvedBench& s, TerminalIndex from) {
  std::vector<TerminalIndex> out;
  for (const int net : signalNets(s.bench, s.nets, from, Along::Copper))
    for (const auto t : s.nets.members(net))
      if (t != from) out.push_back(t);
  return out;
}

TerminalIndex referenceOf(const Bench& bench, TerminalIndex input) {
  const int d = bench.deviceOf(input);
  const auto& facts = bench.facts(input);
  if (facts.input) return bench.terminal(d, facts.input->ground);
  for (const auto& c : bench.devices[d].part->channels)
    for (const auto& [role, t] : c.signals)
      if (t == facts.id && !c.returnTerminal.empty()) return bench.terminal(d, c.returnTerminal);
  return -1;
}

const Nets::Pole* sourceAt(const SolvedBench& s, TerminalIndex t, bool positive) {
  if (t < 0) return nullptr;
  for (const auto& p : s.nets.sources())
    if (s.nets.same(positive ? p.positive : p.negative, t)) return &p;
  return nullptr;
}

const Figure& continuousOf(const Bench& bench, ChannelRef ref) {
  const auto& c = channelOf(bench, ref);
  const auto& settings = bench.devices[ref.device].settings;
  const auto it = settings.find("heatSink");
  return it != settings.end() && it->second == "fitted" && c.continuousSink.known() ? c.continuousSink : c.continuous;
}

std::vector<const Motor*> loadsOf(const SolvedBench& s, ChannelRef channel) {
  std::vector<const Motor*> out;
  for (const auto& m : s.motors)
    if (std::ranges::count(m.reached, channel) > 0) out.push_back(&m);
  return out;
}

std::vector<ChannelRef> loadedChannels(const SolvedBench& s) {
  std::vector<ChannelRef> out;
  for (const auto& m : s.motors)
    for (const auto& r : m.reached)
      if (std::ranges::count(out, r) == 0) out.push_back(r);
  return out;
}

bool isServo(const SolvedBench& s, int device) {
  return std::ranges::any_of(s.motors, [&](const Motor& m) { return m.device == device && m.kind == MotorKind::Servo; });
}

bool partlyFed(const OperatingPoint& p) {
  return p.command().supply >= 0 || p.command().action == Action::SwitchedOff;
}

bool everyday(const OperatingPoint& p) {
  return p.solved() && expected(p.corner()) && !partlyFed(p) && p.command().action != Action::Combination &&
         p.command().action != Action::EndStop && p.command().moment != Moment::StalledAtMost;
}

bool steady(const OperatingPoint& p) {
  return everyday(p) && p.command().moment == Moment::Running && !brief(p.command().action);
}

bool brief(Action action) {
  return action == Action::Brake || action == Action::Coast || action == Action::Combination;
}

TerminalIndex at(const Bench& bench, int device, const parts::Node& node) {
  return node.starts_with('~') ? -1 : bench.terminal(device, node);
}

bool hasSignals(const Motor& motor) {
  return motor.intent && !motor.intent->signals.empty();
}

double dutyOf(const Motor& motor) {
  return motor.intent && motor.intent->dutyCap ? *motor.intent->dutyCap : 1;
}

const parts::Source& sourceBody(const Bench& bench, const Nets::Pole& pole) {
  return std::get<parts::Source>(bench.devices[pole.device].part->elements[pole.element].body);
}

std::optional<Volts> fullVoltage(const Bench& bench, const Nets::Pole& pole) {
  return sourceBody(bench, pole).full.typicalAs<Volts>();
}

std::vector<SupplyInput> supplyInputs(const Bench& bench, parts::SupplyFor purpose) {
  std::vector<SupplyInput> out;
  for (TerminalIndex t = 0; t < static_cast<int>(bench.terminalCount()); ++t)
    if (const auto& supply = bench.facts(t).supply; supply && supply->purpose == purpose)
      out.push_back({t, bench.terminal(bench.deviceOf(t), supply->back), &*supply});
  return out;
}

std::string during(const OperatingPoint& p) {
  return p.command().title;
}

TerminalIndex steeredBy(const SolvedBench& s, TerminalIndex t) {
  if (const auto pin = drivenBy(s, t); t < 0 || pin >= 0) return pin;
  for (const int net : signalNets(s.bench, s.nets, t, Along::TransistorsBack))
    for (const auto r : s.nets.members(net))
      if (pinGroup(s.bench, r)) return r;
  return -1;
}

TerminalIndex drivenBy(const SolvedBench& s, TerminalIndex t) {
  if (t < 0) return -1;
  if (pinGroup(s.bench, t)) return t;
  for (const auto r : signalReach(s, t))
    if (pinGroup(s.bench, r)) return r;
  return -1;
}

int connectionsAt(const Bench& bench, TerminalIndex t) {
  return static_cast<int>(
      std::ranges::count_if(bench.connections, [&](const auto& c) { return bench.terminal(c.a) == t || bench.terminal(c.b) == t; }));
}

int onlyConnectionAt(const Bench& bench, TerminalIndex t) {
  const auto ends = [&](const auto& c) { return bench.terminal(c.a) == t || bench.terminal(c.b) == t; };
  if (connectionsAt(bench, t) != 1) return -1;
  return static_cast<int>(std::ranges::find_if(bench.connections, ends) - bench.connections.begin());
}

bool isContact(const Bench& bench, ChannelRef ref) {
  const auto& out = channelOf(bench, ref).out;
  return out.size() == 1 && std::ranges::any_of(bench.devices[ref.device].part->elements, [&](const parts::Element& e) {
           const auto* sw = std::get_if<parts::Switch>(&e.body);
           return sw && sw->contact && (sw->a == out.front() || sw->b == out.front());
         });
}

bool plainGround(const SolvedBench& s, TerminalIndex t) {
  if (drivenBy(s, t) >= 0) return false;
  for (const auto& pole : s.nets.sources())
    if (s.nets.same(pole.positive, t)) return false;
  return std::ranges::none_of(s.nets.members(s.nets.of(t)), [&](TerminalIndex u) {
    const int d = s.bench.deviceOf(u);
    const auto& id = s.bench.facts(u).id;
    const auto& part = *s.bench.devices[d].part;
    const bool output = std::ranges::any_of(part.channels, [&](const parts::Channel& c) { return std::ranges::count(c.out, id) > 0; });
    const bool control = std::ranges::any_of(part.elements, [&](const parts::Element& e) {
      if (const auto* m = std::get_if<parts::Mosfet>(&e.body)) return m->gate == id;
      if (const auto* b = std::get_if<parts::Bipolar>(&e.body)) return b->base == id;
      if (const auto* r = std::get_if<parts::Regulator>(&e.body)) return r->out == id;
      return false;
    });
    return output || control || s.bench.facts(u).supply || pinGroup(s.bench, u);
  });
}

bool returnAstray(const SolvedBench& s, int device) {
  return std::ranges::any_of(supplyInputs(s.bench, parts::SupplyFor::Motor), [&](const SupplyInput& input) {
    const auto* pole = s.bench.deviceOf(input.positive) == device ? sourceAt(s, input.positive, true) : nullptr;
    return pole && !s.nets.same(input.negative, pole->negative);
  });
}

bool onLead(const SolvedBench& s, const Motor& m, TerminalIndex t) {
  for (std::size_t i = 0; i < m.windings.size(); ++i) {
    const auto& w = windingOf(s.bench, m, i);
    if (s.nets.same(t, s.bench.terminal(m.device, w.a)) || s.nets.same(t, s.bench.terminal(m.device, w.b))) return true;
  }
  return false;
}

std::vector<std::string> connectorsOf(const SolvedBench& s, const Motor& m) {
  std::vector<std::string> out;
  eachElement<parts::Contact>(s.bench, [&](int d, int, const parts::Contact& c) {
    if (c.connector && (onLead(s, m, at(s.bench, d, c.a)) || onLead(s, m, at(s.bench, d, c.b))) &&
        std::ranges::count(out, idOf(s.bench, d)) == 0)
      out.push_back(idOf(s.bench, d));
  });
  return out;
}

int indexOf(const SolvedBench& s, const Motor& motor) {
  return static_cast<int>(&motor - s.motors.data());
}

}  // namespace bold::bench
