#include "core/circuit/netlist.h"

#include <algorithm>
#include <cmath>

#include "core/base/interpolate.h"
#include "core/circuit/operating_point.h"
#include "core/parts/read_element.h"
#include "core/parts/saturation.h"

namespace bold::circuit {
namespace {

using Kind = Branch::Kind;

constexpr double kRegulatorOhms = 0.05;  // output resistance of a linear regulator
constexpr double kPinLeak = 1e-8;        // S of a pin that is an input: far less than anybody promises, more than what is blocked
constexpr double kSensing = 1e-5;        // S: by which it senses its output; without it leaks would lift an idle output
constexpr double kChopperTie = 100e3;    // an active chopper output is tied to ground in the mean
constexpr double kZenerOhms = 1.0;       // of a conducting zener or transient suppressor
constexpr double kHot = 1.5;             // a hot FET channel against a cold one
constexpr double kStrongPin = 0.3;       // of the greatest promised pin resistance: the strongest real pin
constexpr double kStrongJunction = 0.9;  // of the typical base-emitter voltage
constexpr double kHeldAbove = 0.02;      // V above its setting from which an unknown load takes up what is pushed in
constexpr double kServoCorner = 0.5;     // share of its least voltage below which a sink is resistive

class Builder {
 public:
  Builder(const NetlistInput& in, const SwitchState& on) : m_in(in), m_bench(in.bench), m_nodes(in.nets.nodes()), m_on(on) {}

  Netlist build() {
    m_out.circuit.nodes = m_in.nets.nodeCount();
    m_out.links.reserve(m_bench.links.size());
    m_out.main.assign(m_bench.elementCount(), -1);
    m_out.base.assign(m_bench.elementCount(), -1);
    m_out.circuit.branches.reserve(m_bench.links.size() + 2 * m_bench.elementCount());
    for (const auto& l : m_bench.links) m_out.links.push_back(l.a == l.b ? -1 : conductance(node(l.a), node(l.b), 1 / resistance(l).value));
    for (std::size_t d = 0; d < m_bench.devices.size(); ++d) {
      const auto& device = m_bench.devices[d];
      m_device = static_cast<int>(d);
      m_inner = m_out.circuit.nodes;
      m_out.circuit.nodes += device.part->innerNodes;
      m_element = static_cast<std::size_t>(device.firstElement);
      for (const auto& element : device.part->elements) {
        if (device.has(element)) std::visit([&](const auto& b) { put(b); }, element.body);
        ++m_element;
      }
    }
    return std::move(m_out);
  }

 private:
  const NetlistInput& m_in;
  const Bench& m_bench;
  const std::vector<int>& m_nodes;  // per terminal; -1: touched by nothing
  const SwitchState& m_on;
  Netlist m_out;
  int m_device = 0;
  std::size_t m_element = 0;  // counted over the bench
  int m_inner = 0;            // the device's first inner node

  bool on() const { return m_on[m_element] != 0; }
  int& main() { return m_out.main[m_element]; }
  int& base() { return m_out.base[m_element]; }

  bool weak() const { return m_in.charge == Charge::Empty; }
  bool strong() const { return m_in.charge == Charge::Strong; }
  // A figure at the corner: its greatest end where the least current is wanted, else typical.
  std::optional<double> atMost(const Figure& f) const { return weak() ? f.greatest() : f.typical(); }

  Ohms resistance(const Link& l) const { return weak() ? l.greatest : strong() ? l.least : l.resistance; }

  int node(TerminalIndex t) const { return m_nodes[static_cast<std::size_t>(t)]; }
  int node(const parts::Node& n) const { return n.inner() ? m_inner - 2 - n.at : node(m_bench.terminal(m_device, n)); }
  int push(Branch b) {
    m_out.circuit.branches.push_back(std::move(b));
    return static_cast<int>(m_out.circuit.branches.size()) - 1;
  }
  int conductance(int a, int b, double g) {
    Branch x;
    x.a = a;
    x.b = b;
    x.g = g;
    return push(x);
  }
  int knee(int a, int b, double v0, double r) {
    Branch x;
    x.kind = Kind::Knee;
    x.a = a;
    x.b = b;
    x.v0 = v0;
    x.r = std::max(r, 1e-4);
    return push(x);
  }
  int saturating(int a, int b, double r, double limit) {
    Branch x;
    x.kind = Kind::Saturating;
    x.a = a;
    x.b = b;
    x.r = std::max(r, 1e-4);
    x.limit = std::max(limit, 1e-12);
    return push(x);
  }
  int source(int a, int b, double v0, double r, double limit, double limit2) {
    Branch x;
    x.kind = Kind::Source;
    x.a = a;
    x.b = b;
    x.v0 = v0;
    x.r = std::max(r, 1e-4);
    x.limit = limit;
    x.limit2 = limit2;
    return push(x);
  }

  void put(const parts::Joint&) {}
  // At the moment a switch opens it stands at the voltage it had; else no current flows.
  void put(const parts::Capacitor& c) {
    const auto it = m_in.held.find(m_element);
    if (it == m_in.held.end()) return;
    main() = source(node(c.a), node(c.b), it->second, c.esr.typical().value_or(c.ceramic ? kCeramicOhms : kElectrolyticOhms), 1e6, 1e6);
  }
  void put(const parts::Contact& c) {
    if (c.closed) main() = conductance(node(c.a), node(c.b), 1 / std::max(c.resistance.typical().value_or(kContact.value), 1e-4));
  }
  void put(const parts::Resistor& r) {
    const auto ohms = r.resistance.typical();
    if (ohms) main() = conductance(node(r.a), node(r.b), r.closed.empty() || on() ? 1 / std::max(*ohms, 1e-4) : kOff);
  }
  void put(const parts::Diode& d) {
    // The slope takes a quarter of the drop at rated current; the knee takes the rest.
    const double drop = d.drop.typical().value_or(0.8);
    const double at = std::max(d.ratedCurrent.typical().value_or(1.0), 1e-3);
    main() = knee(node(d.anode), node(d.cathode), 0.75 * drop, 0.25 * drop / at);
    if (const auto z = d.zener.typical()) base() = knee(node(d.cathode), node(d.anode), *z, kZenerOhms);
  }
  void put(const parts::Switch& s) {
    const int a = node(s.a);
    const int b = node(s.b);
    if (!on())
      main() = conductance(a, b, kOff);
    else if (s.oneWay)
      main() = knee(a, b, (weak() && s.v0Max.known() ? s.v0Max : s.v0).typical().value_or(0),
                    (weak() && s.resistanceMax.known() ? s.resistanceMax : s.resistance).typical().value_or(0.1));
    else
      main() = conductance(a, b, 1 / std::max(atMost(s.resistance).value_or(0.1) * (weak() ? kHot : 1), 1e-4));
  }
  void put(const parts::Bipolar& t) {
    const int b = node(t.base);
    const int e = node(t.emitter);
    // Gain, saturation and VBE follow from the collector current and it from them: it is an unknown of its own.
    const int current = m_out.circuit.nodes++;
    Branch x;
    x.kind = Kind::Bipolar;
    x.a = node(t.collector);
    x.b = e;
    x.c = b;
    x.d = current;
    x.sign = t.pnp ? -1 : 1;
    x.r = t.darlington ? 10 : 1;
    // The greatest VBE belongs to the current of its row, not to a tenth of it.
    const double vbe = t.vbe.typical().value_or(0.7);
    x.v0 = strong() ? kStrongJunction * vbe : vbe;
    x.rise = weak() ? t.vbe.greatest().value_or(vbe) - vbe : 0;
    x.rows = &parts::saturationOf(t);
    x.full = std::max(x.rows->front().first, kLeastCurrent);
    x.gain = t.darlington ? 1000 : 50;
    if (!t.hfeMin.empty()) x.gains = &t.hfeMin;
    x.drop = t.darlington ? 0.7 : 0;  // a Darlington never saturates below one junction
    main() = push(x);
    Branch junction = x;
    junction.kind = Kind::Knee;
    junction.a = t.pnp ? e : b;
    junction.b = t.pnp ? b : e;
    junction.c = -1;
    base() = push(junction);
    x.kind = Kind::Collector;
    x.a = current;
    x.b = node(t.collector);
    x.d = e;
    push(x);
  }
  void put(const parts::Mosfet& m) {
    const int d = node(m.drain);
    const int s = node(m.source);
    Branch x;
    x.kind = Kind::Mosfet;
    x.a = d;
    x.b = s;
    x.c = node(m.gate);
    x.sign = m.pChannel ? -1 : 1;
    x.v0 = atMost(m.threshold).value_or(3);
    static const Branch::Rows kUnknown{{10.0, 0.1}};
    x.rows = m.rds.empty() ? &kUnknown : &m.rds;
    const auto& [vgs, rds] = x.rows->front();
    x.gain = 1 / (2 * rds * std::max(vgs - x.v0, 0.2));
    main() = push(x);
    if (m.pChannel)
      knee(d, s, 0.7, 0.05);
    else
      knee(s, d, 0.7, 0.05);  // body diode
  }
  void put(const parts::Winding& w) {
    const int a = node(w.a);
    const int b = node(w.b);
    const auto ohms = farEnd(m_device) ? w.resistance.spreadMin : w.resistance.typical();
    if (const auto it = m_in.opened.find(m_element); it != m_in.opened.end()) {
      Branch x;
      x.kind = Kind::Current;
      x.a = a;
      x.b = b;
      x.i = it->second;
      main() = push(x);
      return;
    }
    if (!ohms) return;  // unknown: left open; the quantities of its motor are unknown
    if (const auto it = m_in.emf.find(m_element); it != m_in.emf.end()) {
      main() = source(a, b, it->second, *ohms, 1e6, 1e6);
      return;
    }
    const auto run = w.run.typical();
    if (w.brushed && run && turning(m_device))
      main() = saturating(a, b, *ohms, *run);
    else
      main() = conductance(a, b, 1 / *ohms);
  }
  bool turning(int device) const {
    for (std::size_t m = 0; m < m_in.motors.size(); ++m)
      if (m_in.motors[m].device == device) return m_in.command.turning[m] && !(held() && m_in.command.motor == static_cast<int>(m));
    return false;
  }
  bool held() const { return m_in.command.moment == Moment::Stalled || m_in.command.moment == Moment::StalledAtMost; }
  bool commanded(int device) const {
    const auto m = m_in.command.motor;
    return m >= 0 && m_in.motors[static_cast<std::size_t>(m)].device == device;
  }
  bool starting(int device) const { return commanded(device) && held(); }
  bool farEnd(int device) const { return commanded(device) && m_in.command.moment == Moment::StalledAtMost; }
  void put(const parts::Source& s) {
    if (m_in.command.supply >= 0 && m_in.command.supply != m_device) {  // switched off: nothing behind its leads
      conductance(node(s.positive), node(s.negative), 0);
      return;
    }
    const auto& figure = m_in.charge == Charge::Full || strong() ? s.full : weak() ? s.empty : s.nominal;
    const auto volts = figure.typical() ? figure.typical() : s.nominal.typical();
    if (!volts) return;  // unknown supply: left out, and the bench is not judged
    // The pulse of an opened winding goes into a supply's output capacitor, or into a cell, whatever it does for long.
    const bool takes = s.sinks || m_in.command.moment == Moment::JustOpened;
    // A regulated supply's lower tolerance is given under load: its lead is in it already.
    const double ohms = weak() && s.limit.known() ? 0.02 : atMost(s.resistance).value_or(0.1);
    main() = source(node(s.positive), node(s.negative), *volts, ohms, s.limit.typical().value_or(1e6), takes ? 1e6 : 0);
  }
  void put(const parts::Sink& s) {
    auto amps = s.current.typical();
    if (s.start.known()) {
      if (starting(m_device))
        amps = s.start.typical();
      else if (!turning(m_device))
        amps = std::min(amps.value_or(0.01), 0.01);
    }
    if (!amps) return;
    const double volts = s.voltage.least().value_or(5.0);
    main() = saturating(node(s.positive), node(s.negative), kServoCorner * volts / std::max(*amps, 1e-6), *amps);
  }
  void put(const parts::Regulator& g) {
    Branch x;
    x.kind = Kind::Regulator;
    x.a = node(g.in);
    x.b = node(g.out);
    x.c = node(g.ground);
    x.v0 = g.set.typical().value_or(5);
    x.drop = atMost(g.dropout).value_or(1);
    x.r = kRegulatorOhms;
    x.limit = g.limit.typical().value_or(1);
    main() = push(x);
    conductance(x.b, x.c, kSensing);
    if (feedsUnknownLoad(g)) knee(x.b, x.c, x.v0 + kHeldAbove, kRegulatorOhms);
    if (g.backDiode) knee(x.b, x.a, 0.6, 0.3);
  }
  // The rail of a controller's pins whose own draw nobody states: whatever is pushed into it is taken up, so that it shows as a current
  // of the pin. That it may be lifted instead is for input-overvoltage to say.
  bool feedsUnknownLoad(const parts::Regulator& g) const {
    const auto& device = m_bench.devices[static_cast<std::size_t>(m_device)];
    bool pins = false;
    for (const auto& e : device.part->elements) {
      if (const auto* p = std::get_if<parts::Pins>(&e.body)) pins = pins || node(p->rail) == node(g.out);
      if (const auto* s = std::get_if<parts::Sink>(&e.body); s && s->current.known() && node(s->positive) == node(g.out)) return false;
    }
    return pins;
  }
  void put(const parts::Pins& p) {
    const int rail = node(p.rail);
    const int ground = node(p.ground);
    const double r = strong() ? kStrongPin * p.resistance.greatest().value_or(40) : atMost(p.resistance).value_or(40);
    const double most = p.shortCircuit.typical().value_or(0.06);
    for (const auto& name : p.pins) {
      const auto t = m_bench.terminal(m_device, name);
      if (t < 0 || node(t) < 0) continue;
      auto& at = m_out.pins[t];
      const auto it = m_in.command.pins.find(t);
      const auto wanted = it == m_in.command.pins.end() ? PinState::Float : it->second;
      at.high = wanted == PinState::High;
      // Both transistors of every pin, on or off: all commands then make circuits of one shape, worked out once.
      const int high = wanted == PinState::High ? saturating(rail, node(t), r, most) : conductance(rail, node(t), 0);
      const int low = wanted == PinState::Low ? saturating(node(t), ground, r, most)
                                              : conductance(node(t), ground, wanted == PinState::Float ? kPinLeak : 0);
      at.drive = wanted == PinState::High ? high : wanted == PinState::Low ? low : -1;
      if (wanted == PinState::Float && m_in.command.action == Action::Boot) bootPull(p, t, rail, ground);
      if (std::ranges::count(p.tolerant, name) == 0) at.up = knee(node(t), rail, 0.5, 10);
      at.down = knee(ground, node(t), 0.5, 10);
    }
  }
  void bootPull(const parts::Pins& p, TerminalIndex t, int rail, int ground) {
    const auto& facts = m_bench.facts(t).pin;
    const double ohms = p.pull.typical().value_or(50e3);
    if (!facts) return;
    if (facts->boot == "weak-up") conductance(rail, node(t), 1 / ohms);
    if (facts->boot == "weak-down") conductance(node(t), ground, 1 / ohms);
  }
  void put(const parts::Chopper& c) {
    const int vm = node(c.supply);
    const int ground = node(c.ground);
    const double rds = std::max(atMost(c.rds).value_or(0.5), 1e-4);
    Branch x;
    x.limit = on() ? parts::tripCurrent(c).value_or(Amps{0}).value * c.holdShare : 0;
    x.i = c.quiescent.typical().value_or(0.005);
    for (const auto& [a, b] : c.coils) {
      const int na = node(a);
      const int nb = node(b);
      // One switch chops between supply and ground, the other holds the coil's far end at ground.
      x.kind = Kind::Coil;
      x.a = na;
      x.b = ground;
      x.c = vm;
      x.d = ground;
      x.r = rds / 2;
      m_out.coils[m_element].push_back(push(x));
      x.kind = Kind::Draw;
      x.a = vm;
      x.c = na;
      x.d = nb;
      x.r = rds;
      m_out.draws[m_element].push_back(push(x));
      x.i = 0;  // once for all coils
      conductance(na, ground, 1 / kChopperTie);
      conductance(nb, ground, on() ? 2 / rds : 1 / kChopperTie);
      for (const int n : {na, nb}) {
        knee(n, vm, 0.7, 0.1);
        knee(ground, n, 0.7, 0.1);
      }
    }
    conductance(vm, ground, 1e-6);
  }
};

}  // namespace

Netlist makeNetlist(const NetlistInput& input, const SwitchState& on) {
  return Builder(input, on).build();
}

}  // namespace bold::circuit
