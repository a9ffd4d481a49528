#include "core/bench/netlist.h"

#include <algorithm>
#include <cmath>

#include "core/parts/read_element.h"
#include "core/parts/saturation.h"
#include "core/solver/branches.h"

namespace bold::bench {
namespace {

using solver::Branch;
using Kind = Branch::Kind;

constexpr double kLeastOhms = 1e-4;
constexpr double kRegulatorOhms = 0.05;  // output resistance of a linear regulator
constexpr double kSensing = 1e-5;        // S: by which it senses its output; without it leaks would lift an idle output
constexpr double kHeldAbove = 0.02;      // V above its setting from which an unknown load takes up what is pushed in
constexpr double kRegulated = 0.02;      // ohm: a supply whose lower tolerance is given under load
constexpr double kPinLeak = 1e-8;        // S of a pin that is an input: far less than anybody promises, more than what is blocked
constexpr double kChopperTie = 100e3;    // ohm: an active chopper output is tied to ground in the mean
constexpr double kChopperIdle = 1e-6;    // S from its supply to ground
constexpr double kZenerOhms = 1.0;       // of a conducting zener or transient suppressor
constexpr double kHot = 1.5;             // a hot FET channel against a cold one
constexpr double kStrongPin = 0.3;       // of the greatest promised pin resistance: the strongest real pin
constexpr double kStrongJunction = 0.9;  // of the typical base-emitter voltage
constexpr double kBaseOhms = 1, kDarlingtonBaseOhms = 10;
constexpr double kOneJunction = 0.7;   // V: a Darlington never saturates below it
constexpr double kServoCorner = 0.5;   // share of its least voltage below which a sink is resistive
constexpr double kServoAtRest = 0.01;  // A
constexpr double kOptoRow = 1e-3;      // A at which an optocoupler's saturation is given
constexpr double kLeastInput = 0.5;    // V, of a converter that works from nearly nothing
constexpr double kLeastEfficiency = 0.1;

// A diode inside a part: where it begins to conduct, and its slope.
struct Clamp {
  double volts, ohms;
};
constexpr Clamp kPinClamp{0.5, 10}, kOutputClamp{0.7, 0.1}, kBodyDiode{0.7, 0.05}, kBackDiode{0.6, 0.3}, kCatchDiode{0.3, 0.1};

class Builder {
 public:
  Builder(const NetlistInput& in, const SwitchState& on) : m_in(in), m_bench(in.bench), m_nodes(in.nets.nodes()), m_on(on) {}

  Netlist build() {
    begin();
    for (const auto& l : m_bench.links) wire(l);
    for (m_device = 0; m_device < static_cast<int>(m_bench.devices.size()); ++m_device) device(m_bench.devices[m_device]);
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

  void begin() {
    m_out.circuit.nodes = m_in.nets.nodeCount();
    m_out.links.reserve(m_bench.links.size());
    m_out.main.assign(m_bench.elementCount(), -1);
    m_out.base.assign(m_bench.elementCount(), -1);
    m_out.circuit.branches.reserve(m_bench.links.size() + 2 * m_bench.elementCount());
  }

  void wire(const Link& l) {
    const Ohms ohms = weak() ? l.resistance.greatest : strong() ? l.resistance.least : l.resistance.expected;
    m_out.links.push_back(l.a == l.b ? -1 : add(solver::conductance(node(l.a), node(l.b), 1 / ohms.value)));
  }

  void device(const BenchDevice& device) {
    m_inner = m_out.circuit.nodes;
    m_out.circuit.nodes += device.part->innerNodes;
    m_element = device.firstElement;
    for (const auto& element : device.part->elements) {
      if (device.has(element)) std::visit([&](const auto& body) { put(body); }, element.body);
      ++m_element;
    }
  }

  // ---- what every element is put together from

  int add(const Branch& b) {
    m_out.circuit.branches.push_back(b);
    return static_cast<int>(m_out.circuit.branches.size()) - 1;
  }
  int& main() { return m_out.main[m_element]; }
  int& base() { return m_out.base[m_element]; }
  bool on() const { return m_on[m_element] != 0; }
  // The command has this contact the other way.
  bool moved() const {
    return std::ranges::any_of(m_in.command.moved, [&](const auto& at) { return m_bench.elementIndex(at.first, at.second) == m_element; });
  }
  int node(TerminalIndex t) const { return m_nodes[t]; }
  int node(const parts::Node& n) const { return n.inner() ? m_inner - 2 - n.at : node(m_bench.terminal(m_device, n)); }
  void clamp(int anode, int cathode, Clamp c) { add(solver::knee(anode, cathode, c.volts, c.ohms)); }

  bool weak() const { return m_in.corner == Corner::Empty; }
  bool strong() const { return m_in.corner == Corner::Strong; }
  // A figure at the corner: its greatest end where the least current is wanted, else typical.
  std::optional<double> atCorner(const Figure& f) const { return weak() ? f.greatest() : f.typical(); }
  double known(std::optional<double> figure, const StandIn& standIn) const {
    if (!figure && m_in.stoodIn) m_in.stoodIn->emplace(&standIn, m_device);
    return valueOf(figure, standIn);
  }

  // What the command asks of a motor.
  bool commanded() const {
    const auto m = m_in.command.motor;
    return m >= 0 && m_in.motors[m].device == m_device;
  }
  bool stalls() const { return m_in.command.moment == Moment::Stalled || m_in.command.moment == Moment::StalledAtMost; }
  bool turning() const {
    for (std::size_t m = 0; m < m_in.motors.size(); ++m)
      if (m_in.motors[m].device == m_device) return m_in.command.turning[m] && !(stalls() && m_in.command.motor == static_cast<int>(m));
    return false;
  }

  // ---- passive parts

  void put(const parts::Joint&) {}

  void put(const parts::Contact& c) {
    if (!c.closed && c.moved == parts::Moved::No) return;
    // One that is moved stands in the circuit open as well: all commands then make circuits of one shape.
    const double siemens = 1 / std::max(known(c.resistance.typical(), kContactResistance), kLeastOhms);
    main() = add(solver::conductance(node(c.a), node(c.b), c.closedInUse() != moved() ? siemens : 0));
  }

  void put(const parts::Resistor& r) {
    const auto ohms = r.resistance.typical();
    if (!ohms) return;
    const bool closed = r.closed.empty() || on();
    main() = add(solver::conductance(node(r.a), node(r.b), closed ? 1 / std::max(*ohms, kLeastOhms) : solver::kGmin));
  }

  // At the moment a switch opens it stands at the voltage it had; else no current flows.
  void put(const parts::Capacitor& c) {
    const auto it = m_in.carriedOn.held.find(m_element);
    if (it == m_in.carriedOn.held.end()) return;
    const double esr = known(c.esr.typical(), c.ceramic ? kCeramicEsr : kElectrolyticEsr);
    main() = add(solver::source(node(c.a), node(c.b), it->second, esr, solver::kNoLimit, solver::kNoLimit));
  }

  // The slope takes a quarter of the drop at rated current; the knee takes the rest.
  Clamp kneeOf(const parts::Diode& d) const {
    const double drop = known(d.drop.typical(), kDiodeDrop);
    return {0.75 * drop, 0.25 * drop / std::max(known(d.ratedCurrent.typical(), kDiodeCurrent), 1e-3)};
  }
  void put(const parts::Diode& d) {
    const auto knee = kneeOf(d);
    main() = add(solver::knee(node(d.anode), node(d.cathode), knee.volts, knee.ohms));
    if (const auto z = d.zener.typical()) base() = add(solver::knee(node(d.cathode), node(d.anode), *z, kZenerOhms));
  }

  // ---- semiconductors

  void put(const parts::Switch& s) {
    const int a = node(s.a);
    const int b = node(s.b);
    if (on() == (s.contact && moved())) {
      main() = add(solver::conductance(a, b, solver::kGmin));
    } else if (s.oneWay) {
      const auto& volts = weak() && s.v0Max.known() ? s.v0Max : s.v0;
      const auto& ohms = weak() && s.resistanceMax.known() ? s.resistanceMax : s.resistance;
      main() = add(solver::knee(a, b, known(volts.typical(), kSwitchDrop), known(ohms.typical(), kSwitchResistance)));
    } else {
      const double ohms = known(atCorner(s.resistance), kSwitchResistance) * (weak() && !s.contact ? kHot : 1);
      main() = add(solver::conductance(a, b, 1 / std::max(ohms, kLeastOhms)));
    }
  }

  // Gain, saturation and VBE follow from the collector current and it from them: it is an unknown of its own.
  void put(const parts::Bipolar& t) {
    const int current = m_out.circuit.nodes++;
    const auto transistor = transistorOf(t, current);
    main() = add(transistor);
    auto junction = transistor;
    junction.kind = Kind::Knee;
    junction.a = t.pnp ? transistor.b : transistor.c;
    junction.b = t.pnp ? transistor.c : transistor.b;
    junction.c = -1;
    base() = add(junction);
    auto collector = transistor;
    collector.kind = Kind::Collector;
    collector.a = current;
    collector.b = transistor.a;
    collector.d = transistor.b;
    add(collector);
  }
  Branch transistorOf(const parts::Bipolar& t, int current) const {
    Branch x;
    x.kind = Kind::Bipolar;
    x.a = node(t.collector);
    x.b = node(t.emitter);
    x.c = node(t.base);
    x.d = current;
    x.sign = t.pnp ? -1 : 1;
    x.r = t.darlington ? kDarlingtonBaseOhms : kBaseOhms;
    // The greatest VBE belongs to the current of its row, not to a tenth of it.
    const double vbe = known(t.vbe.typical(), kBaseEmitter);
    x.v0 = strong() ? kStrongJunction * vbe : vbe;
    x.rise = weak() ? t.vbe.greatest().value_or(vbe) - vbe : 0;
    x.rows = &parts::saturationOf(t);
    x.full = std::max(x.rows->front().first, solver::kLeastCurrent);
    const auto& gain = t.darlington ? kDarlingtonGain : kGain;
    if (t.hfeMin.empty()) known({}, gain);
    x.gain = gain.value.value;  // with rows of its own only a first guess
    if (!t.hfeMin.empty()) x.gains = &t.hfeMin;
    x.drop = t.darlington ? kOneJunction : 0;
    return x;
  }

  // A transistor whose base gets what its light diode carries: its gain is the transfer ratio.
  void put(const parts::Phototransistor& t) {
    const parts::Diode* led = nullptr;
    for (const auto& e : m_bench.devices[m_device].part->elements)
      if (const auto* d = std::get_if<parts::Diode>(&e.body); d && node(d->anode) == node(t.anode) && node(d->cathode) == node(t.cathode))
        led = d;
    if (!led) return;
    const auto knee = kneeOf(*led);
    Branch lit;
    lit.kind = Kind::Lit;
    lit.a = node(t.emitter);
    lit.b = m_out.circuit.nodes++;
    lit.c = node(t.anode);
    lit.d = node(t.cathode);
    lit.v0 = knee.volts;
    lit.r = knee.ohms;
    lit.gain = 1;
    add(lit);
    Branch x;
    x.kind = Kind::Bipolar;
    x.a = node(t.collector);
    x.b = node(t.emitter);
    x.c = lit.b;
    x.v0 = kBaseEmitter.value.value;
    x.r = kBaseOhms;
    x.gain = known(t.ratio.least(), kTransferRatio);
    x.drop = 0;
    x.ron = std::max(known(t.saturation.greatest(), kOptoSaturation), 0.05) / kOptoRow;
    main() = add(x);
    add(solver::knee(x.c, x.b, x.v0, x.r));
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
    x.v0 = known(atCorner(m.threshold), kGateThreshold);
    static const Branch::Rows kUnknown{{10.0, kChannelResistance.value.value}};
    if (m.rds.empty()) known({}, kChannelResistance);
    x.rows = m.rds.empty() ? &kUnknown : &m.rds;
    const auto& [vgs, rds] = x.rows->front();
    x.gain = 1 / (2 * rds * std::max(vgs - x.v0, 0.2));
    main() = add(x);
    m.pChannel ? clamp(d, s, kBodyDiode) : clamp(s, d, kBodyDiode);
  }

  // ---- loads

  void put(const parts::Winding& w) {
    const int a = node(w.a);
    const int b = node(w.b);
    if (const auto it = m_in.carriedOn.currents.find(m_element); it != m_in.carriedOn.currents.end()) {
      main() = add(solver::current(a, b, it->second));
      return;
    }
    const bool farEnd = commanded() && m_in.command.moment == Moment::StalledAtMost;
    const auto ohms = farEnd ? w.resistance.spreadMin : w.resistance.typical();
    if (!ohms) return;  // unknown: left open; the quantities of its motor are unknown
    if (const auto it = m_in.carriedOn.emf.find(m_element); it != m_in.carriedOn.emf.end()) {
      main() = add(solver::source(a, b, it->second, *ohms, solver::kNoLimit, solver::kNoLimit));
      return;
    }
    const auto run = w.run.typical();
    const bool runs = w.brushed && run && turning();
    main() = add(runs ? solver::saturating(a, b, *ohms, *run) : solver::conductance(a, b, 1 / *ohms));
  }

  void put(const parts::Sink& s) {
    auto amps = s.current.typical();
    if (s.start.known()) {
      if (commanded() && stalls())
        amps = s.start.typical();
      else if (!turning())
        amps = std::min(amps.value_or(kServoAtRest), kServoAtRest);
    }
    if (!amps) return;
    const double volts = known(s.voltage.least(), kServoVoltage);
    main() = add(solver::saturating(node(s.positive), node(s.negative), kServoCorner * volts / std::max(*amps, 1e-6), *amps));
  }

  // ---- supplies

  void put(const parts::Source& s) {
    if (m_in.command.supply >= 0 && m_in.command.supply != m_device) {  // switched off: nothing behind its leads
      add(solver::conductance(node(s.positive), node(s.negative), 0));
      return;
    }
    const auto& figure = m_in.corner == Corner::Full || strong() ? s.full : weak() ? s.empty : s.nominal;
    const auto volts = figure.typical() ? figure.typical() : s.nominal.typical();
    if (!volts) return;  // unknown supply: left out, and the bench is not judged
    // The pulse of an opened winding goes into a supply's output capacitor, or into a cell, whatever it does for long.
    const bool takes = s.sinks || m_in.command.moment == Moment::JustOpened;
    // A regulated supply's lower tolerance is given under load: its lead is in it already.
    const double ohms = weak() && s.limit.known() ? kRegulated : known(atCorner(s.resistance), kSupplyResistance);
    const double most = s.limit.typical().value_or(solver::kNoLimit);  // none stated: cells have none
    main() = add(solver::source(node(s.positive), node(s.negative), *volts, ohms, most, takes ? solver::kNoLimit : 0));
  }

  void put(const parts::Regulator& g) {
    if (g.switching) return converter(g);
    Branch x;
    x.kind = Kind::Regulator;
    x.a = node(g.in);
    x.b = node(g.out);
    x.c = node(g.ground);
    x.v0 = known(g.set.typical(), kRegulatorOutput);
    x.drop = known(atCorner(g.dropout), kRegulatorDropout);
    x.r = kRegulatorOhms;
    x.limit = known(g.limit.typical(), kRegulatorLimit);
    main() = add(x);
    add(solver::conductance(x.b, x.c, kSensing));
    if (feedsUnknownLoad(g)) clamp(x.b, x.c, {x.v0 + kHeldAbove, kRegulatorOhms});
    if (g.backDiode) clamp(x.b, x.a, kBackDiode);
  }
  // By power balance. What it gives is an unknown of its own, from which follows what it takes.
  void converter(const parts::Regulator& g) {
    const int in = node(g.in);
    const int out = node(g.out);
    const int ground = node(g.ground);
    const bool down = g.steps == parts::Steps::Down;
    const double least = down ? kLeastInput : std::max(known(g.least.typical(), kConverterLeast), kLeastInput);
    // Its switch and catch diode, which conduct where it is unpowered, fed from its output or the wrong way round.
    if (g.steps == parts::Steps::Up) clamp(in, out, kCatchDiode);
    if (down || g.backDiode) clamp(out, in, kBodyDiode);
    clamp(ground, in, kBodyDiode);
    add(solver::conductance(out, ground, kSensing));
    if (const auto idle = g.idle.typical(); idle && *idle > 0) add(solver::saturating(in, ground, kServoCorner * least / *idle, *idle));
    const auto set = g.set.typical();
    if (!set) return;  // a trimmer that nobody measured: what it feeds is not judged
    Branch law;
    law.kind = Kind::Converter;
    law.a = m_out.circuit.nodes++;
    law.b = out;
    law.c = in;
    law.d = ground;
    law.v0 = *set;
    law.r = kRegulatorOhms;
    law.drop = down ? known(atCorner(g.dropout), kConverterDropout) : 0;
    law.gain = down ? 1 : *set / least;
    law.ron = down ? law.drop + kLeastInput : least;
    law.efficiency = std::clamp(known(g.efficiency.typical(), kEfficiency), kLeastEfficiency, 1.0);
    law.limit = known(g.limit.typical(), kConverterLimit);
    law.limit2 = g.inputLimit.typical().value_or(0);
    add(law);
    Branch given;
    given.kind = Kind::Given;
    given.a = ground;
    given.b = out;
    given.d = law.a;
    main() = add(given);
    auto draw = law;
    draw.kind = Kind::PowerDraw;
    draw.a = in;
    draw.b = ground;
    draw.c = out;
    draw.d = law.a;
    base() = add(draw);
    if (feedsUnknownLoad(g)) clamp(out, ground, {*set + kHeldAbove, kRegulatorOhms});
  }
  // The rail of a controller's pins whose own draw nobody states: whatever is pushed into it is taken up, so that it shows as a current
  // of the pin. That it may be lifted instead is for input-overvoltage to say.
  bool feedsUnknownLoad(const parts::Regulator& g) const {
    bool pins = false;
    for (const auto& e : m_bench.devices[m_device].part->elements) {
      if (const auto* p = std::get_if<parts::Pins>(&e.body)) pins = pins || node(p->rail) == node(g.out);
      if (const auto* s = std::get_if<parts::Sink>(&e.body); s && s->current.known() && node(s->positive) == node(g.out)) return false;
    }
    return pins;
  }

  // ---- controller pins

  void put(const parts::Pins& p) {
    const double ohms =
        strong() ? kStrongPin * known(p.resistance.greatest(), kPinResistance) : known(atCorner(p.resistance), kPinResistance);
    const double most = known(p.shortCircuit.typical(), kPinShortCircuit);
    for (const auto& name : p.pins)
      if (const auto t = m_bench.terminal(m_device, name); t >= 0 && node(t) >= 0)
        pin(p, t, {ohms, most}, std::ranges::count(p.tolerant, name) > 0, p.on.empty() || on());
  }
  struct Strength {
    double ohms, most;
  };
  // Both transistors of every pin, on or off: all commands then make circuits of one shape, worked out once.
  void pin(const parts::Pins& p, TerminalIndex t, Strength strength, bool tolerant, bool enabled) {
    const int rail = node(p.rail);
    const int ground = node(p.ground);
    const int here = node(t);
    const auto it = m_in.command.pins.find(t);
    const auto wanted = it == m_in.command.pins.end() || !enabled ? PinState::Float : it->second;
    const bool up = wanted == PinState::High;
    const bool down = wanted == PinState::Low;
    const double leak = wanted == PinState::Float ? kPinLeak : 0;
    const int high = add(up ? solver::saturating(rail, here, strength.ohms, strength.most) : solver::conductance(rail, here, 0));
    const int low = add(down ? solver::saturating(here, ground, strength.ohms, strength.most) : solver::conductance(here, ground, leak));
    auto& at = m_out.pins[t];
    at.high = up;
    at.drive = up ? high : down ? low : -1;
    if (wanted == PinState::Float && m_in.command.action == Action::Boot) bootPull(p, t);
    if (!tolerant) at.up = add(solver::knee(here, rail, kPinClamp.volts, kPinClamp.ohms));
    at.down = add(solver::knee(ground, here, kPinClamp.volts, kPinClamp.ohms));
  }
  void bootPull(const parts::Pins& p, TerminalIndex t) {
    const auto& facts = m_bench.facts(t).pin;
    const bool up = facts && facts->boot == parts::Boot::WeakUp;
    const bool down = facts && facts->boot == parts::Boot::WeakDown;
    if (!up && !down) return;
    const double siemens = 1 / known(p.pull.typical(), kBootPull);
    add(up ? solver::conductance(node(p.rail), node(t), siemens) : solver::conductance(node(t), node(p.ground), siemens));
  }

  // ---- current-regulating stages

  void put(const parts::Chopper& c) {
    const int vm = node(c.supply);
    const int ground = node(c.ground);
    const double rds = std::max(known(atCorner(c.rds), kChopperResistance), kLeastOhms);
    Branch x;
    x.limit = on() ? parts::tripCurrent(c).value_or(Amps{0}).value * c.holdShare : 0;
    x.i = known(c.quiescent.typical(), kChopperQuiescent);
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
      m_out.coils[m_element].push_back(add(x));
      x.kind = Kind::Draw;
      x.a = vm;
      x.c = na;
      x.d = nb;
      x.r = rds;
      m_out.draws[m_element].push_back(add(x));
      x.i = 0;  // once for all coils
      add(solver::conductance(na, ground, 1 / kChopperTie));
      add(solver::conductance(nb, ground, on() ? 2 / rds : 1 / kChopperTie));
      for (const int n : {na, nb}) {
        clamp(n, vm, kOutputClamp);
        clamp(ground, n, kOutputClamp);
      }
    }
    add(solver::conductance(vm, ground, kChopperIdle));
  }
};

}  // namespace

Netlist makeNetlist(const NetlistInput& input, const SwitchState& on) {
  return Builder(input, on).build();
}

}  // namespace bold::bench
