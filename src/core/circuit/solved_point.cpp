#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "core/circuit/netlist.h"
#include "core/circuit/operating_point.h"

namespace bold::circuit {
namespace {

using parts::Level;

constexpr int kMostOuterPasses = 30;
constexpr int kHunting = 16;          // passes after which what still flips will not stop by itself
constexpr Ohms kFloating{1e6};        // an input held by more than this floats
constexpr double kTies = 1e-5;        // S: ten in a row are still less than that
constexpr double kNoCurrent = 1e-8;   // A: leaks that the model makes up and solving is not exact to
constexpr double kMoves = 0.2;        // share of its running current from which a motor counts as turning
constexpr double kBrakeShare = 0.15;  // share of the shorted motor's current from which it brakes
constexpr double kBackEmf = 0.8;      // of the rated voltage, where nothing better is known of how fast it turns

// What an input needs for low and high at its part's rail; nothing when the rail has no voltage against ground.
struct Threshold {
  double low, high;
};

class SolvedPoint : public OperatingPoint {
 public:
  SolvedPoint(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Command& command, Charge charge)
      : m_bench(bench), m_nets(nets), m_motors(motors), m_command(command), m_charge(charge) {}

  void run(const OperatingPoint* running, const OperatingPoint* start) {
    const auto opened = openedCurrents(running);
    const auto emf = emfs(running);
    const auto held = heldVoltages(running);
    const NetlistInput input{m_bench, m_nets, m_motors, m_command, m_charge, opened, emf, held};
    SwitchState on(m_bench.elementCount());
    if (const auto* s = dynamic_cast<const SolvedPoint*>(start)) {
      on = s->m_on;
      m_solution = s->m_solution;
    }
    for (int pass = 0; pass < kMostOuterPasses; ++pass) {
      m_netlist = makeNetlist(input, on);
      m_solution = circuit::solve(m_netlist.circuit, std::move(m_solution));
      if (!m_solution.converged) {
        m_whyNot = "its currents and voltages could not be found";
        return;
      }
      m_on = on;
      findLevels();
      const auto flipped = flip(on, pass);
      if (flipped.empty()) return;
      if (pass >= kHunting) settleHunting(flipped, on);
    }
    m_whyNot = "its logic does not come to rest";
  }

  const Command& command() const override { return m_command; }
  Charge charge() const override { return m_charge; }
  const std::string& whyNot() const override { return m_whyNot; }
  bool hunts() const override { return !m_held.empty(); }

  std::optional<Volts> across(TerminalIndex a, TerminalIndex b) const override {
    const int na = node(a);
    const int nb = node(b);
    if (na < 0 || nb < 0) return std::nullopt;
    if (m_solution.island[static_cast<std::size_t>(na)] != m_solution.island[static_cast<std::size_t>(nb)]) return std::nullopt;
    return Volts{m_solution.volts[static_cast<std::size_t>(na)] - m_solution.volts[static_cast<std::size_t>(nb)]};
  }
  Amps link(int l) const override { return branch(m_netlist.links[static_cast<std::size_t>(l)]); }
  Amps element(int device, int e) const override {
    const auto index = m_bench.elementIndex(device, e);
    if (const auto it = m_netlist.draws.find(index); it != m_netlist.draws.end()) {
      Amps sum{};
      for (const int draw : it->second) sum = sum + branch(draw);
      return sum;
    }
    const int k = at(m_netlist.main, device, e);
    if (k >= 0 && m_netlist.circuit.branches[static_cast<std::size_t>(k)].kind == Branch::Kind::Current)
      return Amps{m_netlist.circuit.branches[static_cast<std::size_t>(k)].i};  // a coil just opened carries on, arc or not
    const auto i = branch(k);
    const auto& body = m_bench.devices[static_cast<std::size_t>(device)].part->elements[static_cast<std::size_t>(e)].body;
    return std::holds_alternative<parts::Source>(body) ? -i : i;
  }
  Amps base(int device, int e) const override { return branch(at(m_netlist.base, device, e)); }
  Amps pin(TerminalIndex t) const override {
    const auto it = m_netlist.pins.find(t);
    if (it == m_netlist.pins.end()) return {};
    const auto& p = it->second;
    return branch(p.drive) * (p.high ? 1 : -1) - branch(p.up) + branch(p.down);
  }
  Amps coil(int device, int e, int c) const override {
    const auto it = m_netlist.coils.find(m_bench.elementIndex(device, e));
    if (it == m_netlist.coils.end() || c >= static_cast<int>(it->second.size())) return {};
    return -branch(it->second[static_cast<std::size_t>(c)]);
  }

  Watts power(int device, int e) const override {
    const auto& body = m_bench.devices[static_cast<std::size_t>(device)].part->elements[static_cast<std::size_t>(e)].body;
    if (const auto* c = std::get_if<parts::Chopper>(&body)) {
      double watts = 0;
      for (std::size_t k = 0; k < c->coils.size(); ++k)
        watts += std::pow(coil(device, e, static_cast<int>(k)).value, 2) * c->rds.typical().value_or(0.5);
      const auto v = across(m_bench.terminal(device, c->supply), m_bench.terminal(device, c->ground));
      return Watts{watts + c->quiescent.typical().value_or(0) * (v ? std::abs(v->value) : 0)};
    }
    double watts = 0;
    for (const auto* list : {&m_netlist.main, &m_netlist.base})
      if (const int k = at(*list, device, e); k >= 0) {
        const auto& b = m_netlist.circuit.branches[static_cast<std::size_t>(k)];
        const double v = m_solution.volts[static_cast<std::size_t>(b.a)] - m_solution.volts[static_cast<std::size_t>(b.b)];
        watts += v * m_solution.amps[static_cast<std::size_t>(k)];
      }
    return Watts{watts};
  }

  Level level(TerminalIndex t) const override { return m_levels.empty() ? Level::Undefined : m_levels[static_cast<std::size_t>(t)]; }

  std::optional<bool> on(int device, int e) const override {
    const auto l = condition(device, e);
    if (l == Level::Undefined) return std::nullopt;
    return l == Level::High;
  }

  std::optional<Ohms> resistance(TerminalIndex a, TerminalIndex b) const override {
    const int na = node(a);
    const int nb = node(b);
    if (na < 0 || nb < 0) return std::nullopt;
    if (na == nb) return Ohms{0};
    const auto r = m_solution.resistance(na, nb);
    return r ? std::optional(Ohms{*r}) : std::nullopt;
  }

  double arcShare(int motor) const override {
    double most = 0;
    const auto& m = m_motors[static_cast<std::size_t>(motor)];
    for (const int w : m.windings) {
      const int k = at(m_netlist.main, m.device, w);
      if (k < 0 || m_netlist.circuit.branches[static_cast<std::size_t>(k)].kind != Branch::Kind::Current) continue;
      const double all = element(m.device, w).value;
      const double left = branch(k).value;  // what finds another way than the arc
      if (std::abs(all) > 1e-9) most = std::max(most, 1 - left / all);
    }
    return most;
  }

  Doing doing(int motor) const override {
    const auto& m = m_motors[static_cast<std::size_t>(motor)];
    if (touchesUndecided(m)) return Doing::Undecided;
    if (m.kind == MotorKind::Servo) return Doing::Energised;
    if (m.kind != MotorKind::Brushed) {
      for (std::size_t i = 0; i < m.windings.size(); ++i) {
        const auto& w = windingOf(m_bench, m, i);
        const double rated = w.phase.typical().value_or(w.nominal.typical().value_or(0) / w.resistance.typical().value_or(1e9));
        if (std::abs(element(m.device, m.windings[i]).value) > kMoves * rated && rated > 0) return Doing::Energised;
      }
      return Doing::Nothing;
    }
    const auto& w = windingOf(m_bench, m, 0);
    if (node(m_bench.terminal(m.device, w.a)) < 0) return Doing::Nothing;
    const double i = element(m.device, m.windings[0]).value;
    const double run = w.run.typical().value_or(0.05);
    // A turning motor that is let go is a generator: it brakes when its own voltage drives a current round, so and so much of what it
    // would drive through a dead short.
    const auto action = m_command.action;
    const auto ohms = w.resistance.typical();
    const auto volts = across(m_bench.terminal(m.device, w.a), m_bench.terminal(m.device, w.b));
    const bool letGo = m_command.motor >= 0 && (action == Action::Brake || action == Action::Coast) &&
                       std::ranges::count(together(m_motors, m_command.motor), motor) > 0;
    if (letGo && w.nominal.typical() && ohms) {
      const double own = volts ? std::abs(volts->value - i * *ohms) : *w.nominal.typical();
      return std::abs(i) > kBrakeShare * own / *ohms ? Doing::Brake : Doing::Coast;
    }
    if (i > kMoves * run) return Doing::Forward;
    if (i < -kMoves * run) return Doing::Reverse;
    return Doing::Coast;
  }

  Behind behind() const { return {m_netlist.circuit, m_solution}; }

 private:
  const Bench& m_bench;
  const Nets& m_nets;
  const std::vector<Motor>& m_motors;
  const Command& m_command;
  Charge m_charge;
  std::string m_whyNot;
  Netlist m_netlist;
  Solution m_solution;
  SwitchState m_on;
  std::set<std::size_t> m_out, m_held;  // switches that cannot hold themselves on: taken for off, or for on

  std::vector<Level> m_levels;  // per terminal; meant for inputs

  // Asked many times by the conditions, worked out once a pass.
  void findLevels() {
    m_levels.assign(m_bench.terminalCount(), Level::Undefined);
    // What plain conductors and driven pins tie together needs no figure; for the others a resistance is worked out.
    Groups tied(m_solution.volts.size());
    const auto& branches = m_netlist.circuit.branches;
    for (std::size_t k = 0; k < branches.size(); ++k) {
      const auto& b = branches[k];
      const bool ties = (b.kind == Branch::Kind::Conductance && b.g >= kTies) || (b.kind == Branch::Kind::Saturating && 1 / b.r >= kTies) ||
                        (b.kind == Branch::Kind::Source && m_solution.giving(k));
      if (ties) tied.join(b.a, b.b);
    }
    for (const auto t : m_bench.inputs()) m_levels[static_cast<std::size_t>(t)] = levelAt(t, tied);
    for (const auto& [t, level] : m_command.forced) m_levels[static_cast<std::size_t>(t)] = level;
  }

  Level levelAt(TerminalIndex t, Groups& tied) const {
    const auto& facts = m_bench.facts(t);
    const int device = m_bench.deviceOf(t);
    const auto ground = m_bench.terminal(device, facts.input->ground);
    const auto v = across(t, ground);
    if (node(t) < 0 || !v) return Level::Undefined;
    if (tied.find(node(t)) != tied.find(node(ground))) {
      const auto r = resistance(t, ground);
      if (!r || *r > kFloating) return Level::Undefined;
    }
    const auto threshold = thresholdOf(device, facts, ground);
    if (!threshold) return Level::Low;  // no supply: it reads nothing as high
    return v->value > (threshold->low + threshold->high) / 2 ? Level::High : Level::Low;
  }

  int node(TerminalIndex t) const { return t < 0 ? -1 : m_nets.nodes()[static_cast<std::size_t>(t)]; }
  int at(const std::vector<int>& list, int device, int e) const { return list.empty() ? -1 : list[m_bench.elementIndex(device, e)]; }
  Amps branch(int b) const {
    const double i = b < 0 ? 0 : m_solution.amps[static_cast<std::size_t>(b)];
    return std::abs(i) < kNoCurrent ? Amps{} : Amps{i};
  }

  std::optional<Threshold> thresholdOf(int device, const parts::Terminal& facts, TerminalIndex ground) const {
    const auto& part = *m_bench.devices[static_cast<std::size_t>(device)].part;
    const auto it = part.levels.find(facts.input->levels);
    if (it == part.levels.end()) return std::nullopt;
    const auto& set = it->second;
    if (set.rail.empty()) return Threshold{set.low.typical().value_or(0.8), set.high.typical().value_or(2.0)};
    const auto rail = across(m_bench.terminal(device, set.rail), ground);
    if (!rail || rail->value < 1.0) return std::nullopt;
    return Threshold{set.lowShare * rail->value, set.highShare * rail->value};
  }

  // @param supplied as if every supply of the part were there
  Level condition(int device, int e, bool supplied = false) const {
    const auto& part = *m_bench.devices[static_cast<std::size_t>(device)].part;
    const auto& element = part.elements[static_cast<std::size_t>(e)];
    parts::Condition::World world;
    world.level = [this, device](const parts::Node& t) { return level(m_bench.terminal(device, t)); };
    world.volts = [this, device, supplied, &part](const parts::Node& a, const parts::Node& b) -> std::optional<double> {
      if (const auto* t = part.find(a); supplied && t && t->supply) return 1e3;
      const auto v = across(m_bench.terminal(device, a), m_bench.terminal(device, b));
      return v ? std::optional(v->value) : std::nullopt;
    };
    if (const auto* s = std::get_if<parts::Switch>(&element.body)) return s->on.evaluate(world);
    if (const auto* c = std::get_if<parts::Chopper>(&element.body)) return c->on.evaluate(world);
    if (const auto* r = std::get_if<parts::Resistor>(&element.body)) return r->closed.evaluate(world);
    return Level::Low;
  }

  struct Flip {
    int device, element;
    std::size_t index;
  };

  // A motor is undecided when a switch at one of the channels it is wired to does not know whether it is on.
  bool touchesUndecided(const Motor& m) const {
    for (const auto& ref : m.reached) {
      const auto& elements = m_bench.devices[static_cast<std::size_t>(ref.device)].part->elements;
      const auto& outs = channelOf(m_bench, ref).out;
      for (std::size_t e = 0; e < elements.size(); ++e) {
        const auto* s = std::get_if<parts::Switch>(&elements[e].body);
        const bool here = (s && std::ranges::count(outs, s->a) + std::ranges::count(outs, s->b) > 0) ||
                          std::holds_alternative<parts::Chopper>(elements[e].body);
        if (here && !on(ref.device, static_cast<int>(e))) return true;
      }
    }
    return false;
  }

  std::map<std::size_t, double> openedCurrents(const OperatingPoint* running) const {
    std::map<std::size_t, double> out;
    if (m_command.moment != Moment::JustOpened || !running || !running->solved()) return out;
    for (const int k : together(m_motors, m_command.motor)) {
      const auto& m = m_motors[static_cast<std::size_t>(k)];
      for (const int w : m.windings)
        if (const double i = running->element(m.device, w).value; std::abs(i) > 1e-3) out[m_bench.elementIndex(m.device, w)] = i;
    }
    return out;
  }

  // The capacitors at the stage of the opened motor keep the voltage they had.
  std::map<std::size_t, double> heldVoltages(const OperatingPoint* running) const {
    std::map<std::size_t, double> out;
    if (m_command.moment != Moment::JustOpened || !running || !running->solved()) return out;
    for (const auto& [d, e] : m_motors[static_cast<std::size_t>(m_command.motor)].buffers) {
      const auto& c =
          std::get<parts::Capacitor>(m_bench.devices[static_cast<std::size_t>(d)].part->elements[static_cast<std::size_t>(e)].body);
      if (const auto v = running->across(m_bench.terminal(d, c.a), m_bench.terminal(d, c.b)); v && c.capacitance.known())
        out[m_bench.elementIndex(d, e)] = v->value;
    }
    return out;
  }

  // A motor that is told to brake, coast or turn round is still turning: its own voltage is what it had while running.
  std::map<std::size_t, double> emfs(const OperatingPoint* running) const {
    std::map<std::size_t, double> out;
    const auto a = m_command.action;
    const bool turns = a == Action::Brake || a == Action::Coast || m_command.moment == Moment::Reversing;
    if (!turns || m_command.motor < 0) return out;
    for (const int k : together(m_motors, m_command.motor))
      if (const auto volts = emf(m_motors[static_cast<std::size_t>(k)], running))
        out[m_bench.elementIndex(m_motors[static_cast<std::size_t>(k)].device, m_motors[static_cast<std::size_t>(k)].windings[0])] = *volts;
    return out;
  }
  std::optional<double> emf(const Motor& m, const OperatingPoint* running) const {
    if (m.kind != MotorKind::Brushed) return std::nullopt;
    const auto& w = windingOf(m_bench, m, 0);
    if (!w.resistance.typical() || !w.nominal.typical()) return std::nullopt;
    double volts = kBackEmf * *w.nominal.typical();
    if (running && running->solved())
      if (const auto v = running->across(m_bench.terminal(m.device, w.a), m_bench.terminal(m.device, w.b)))
        if (const double e = v->value - running->element(m.device, m.windings[0]).value * *w.resistance.typical();
            e * v->value > 0 && std::abs(e) > 0.1 * std::abs(v->value))
          volts = e;
    return volts;
  }

  // Some supply of the part is below what it needs; its inputs may have gone with it.
  bool starved(int device) const {
    return std::ranges::any_of(m_bench.devices[static_cast<std::size_t>(device)].part->terminals, [&](const parts::Terminal& t) {
      if (!t.supply || !t.supply->recommended.min) return false;
      const auto v = across(m_bench.terminal(device, t.id), m_bench.terminal(device, t.supply->back));
      return v && v->value < *t.supply->recommended.min;
    });
  }

  // What draws its own supply below what it works at goes off and on for ever. Taken for on, its currents and the voltage it
  // is left with are what is to be judged; what goes off by its inputs steers itself and has no such point. With one supply on alone it may
  // be fed through its inputs only: it counts as off.
  void settleHunting(const std::vector<Flip>& flipped, SwitchState& on) {
    for (const auto& f : flipped) {
      if (m_command.action == Action::OneSupply) {
        on[f.index] = 0;
        m_out.insert(f.index);
      } else if (on[f.index] == 0 && (starved(f.device) || condition(f.device, f.element, true) == Level::High)) {
        on[f.index] = 1;
        m_held.insert(f.index);
      }
    }
  }

  // Brings the switches in line with their conditions; those that had to change.
  std::vector<Flip> flip(SwitchState& states, int pass) const {
    std::vector<Flip> flipped;
    for (std::size_t d = 0; d < m_bench.devices.size(); ++d) {
      const auto& device = m_bench.devices[d];
      for (std::size_t i = 0; i < device.part->elements.size(); ++i) {
        const auto& element = device.part->elements[i];
        const auto* selector = std::get_if<parts::Resistor>(&element.body);
        const bool switches = std::holds_alternative<parts::Chopper>(element.body) || std::holds_alternative<parts::Switch>(element.body) ||
                              (selector && !selector->closed.empty());
        if (!switches || !device.has(element)) continue;
        const int at = static_cast<int>(d);
        const int e = static_cast<int>(i);
        const auto index = m_bench.elementIndex(at, e);
        auto& on = states[index];
        const bool want = (condition(at, e) == Level::High && !m_out.contains(index)) || m_held.contains(index);
        // After some passes one flip at a time, so that two cannot chase each other.
        if ((on != 0) == want || (pass > 8 && !flipped.empty())) continue;
        on = want;
        flipped.push_back({at, e, index});
      }
    }
    return flipped;
  }
};

}  // namespace

Behind behind(const OperatingPoint& point) {
  return dynamic_cast<const SolvedPoint&>(point).behind();
}

std::unique_ptr<OperatingPoint> solve(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Command& command,
                                      Charge charge, const OperatingPoint* running, const OperatingPoint* start) {
  auto point = std::make_unique<SolvedPoint>(bench, nets, motors, command, charge);
  point->run(running, start);
  return point;
}

}  // namespace bold::circuit
