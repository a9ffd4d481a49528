#include "core/bench/command.h"

#include <fmt/core.h>

#include <algorithm>
#include <set>
#include <tuple>

#include "core/bench/end_switches.h"
#include "core/bench/isolated_enable.h"
#include "core/bench/peripheral_commands.h"
#include "core/bench/reversing.h"
#include "core/bench/signal_nets.h"
#include "core/bench/signal_path.h"
#include "core/bench/steering.h"
#include "core/parts/roles.h"

namespace bold::bench {
namespace {

using parts::Level;

bool isStepper(MotorKind k) {
  return k == MotorKind::BipolarStepper || k == MotorKind::UnipolarStepper;
}

std::string actionWord(const Motor& m, Action a, int step) {
  if (m.still && a == Action::Forward) return "on";
  switch (a) {
    case Action::AllOff:
      return "off";
    case Action::Boot:
      return "while booting";
    case Action::Forward:
      return "forward";
    case Action::Reverse:
      return "reverse";
    case Action::Brake:
      return "brake";
    case Action::Coast:
      return "coast";
    case Action::Hold:
      return "hold";
    case Action::Step:
      return "step " + std::to_string(step + 1);
    case Action::Move:
      return "move";
    case Action::AllRunning:
      return "all running";
    case Action::OneSupply:
      return "only one supply on";
    case Action::Combination:
      return "combination";
    case Action::Pressed:
      return "pressed";
    case Action::SwitchedOff:
      return "switched off";
    case Action::EndStop:
      return "at its end";
  }
  return {};
}

constexpr std::size_t kMostSupplies = 8;  // more sources than that on one bench are not switched one by one

class CommandList {
 public:
  CommandList(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors)
      : m_bench(bench),
        m_nets(nets),
        m_motors(motors),
        m_tables(bench),
        m_lowUntilAsked(lowUntilAsked(bench)),
        m_linePins(linePins(bench, nets)) {}

  std::vector<Command> build() {
    add(plain(Action::AllOff, "all off"), {Corner::Full, Corner::Nominal, Corner::Empty});
    auto boot = plain(Action::Boot, "while booting");
    for (auto& [pin, state] : boot.pins)
      if (const auto& facts = m_bench.facts(pin).pin; !facts || facts->boot != parts::Boot::Low) state = PinState::Float;
    boot.forced.clear();
    auto chatter = boot;
    bool any = false;
    for (TerminalIndex t = 0; t < static_cast<int>(m_bench.terminalCount()); ++t) {
      const auto& pin = m_bench.facts(t).pin;
      if (!pin || pin->boot != parts::Boot::Toggles || !m_bench.connected(t)) continue;
      chatter.pins[t] = PinState::High;
      any = true;
    }
    add(std::move(boot), {Corner::Nominal});
    if (any) {
      chatter.variant = 1;
      chatter.id = chatter.title = "while booting, pins chattering";
      add(std::move(chatter), {Corner::Nominal});
    }
    for (std::size_t m = 0; m < m_motors.size(); ++m) one(static_cast<int>(m));
    auto all = plain(Action::AllRunning, "all running");
    setAll(all);
    const auto running = all;
    if (m_motors.size() > 1) add(std::move(all), {Corner::Full, Corner::Nominal, Corner::Empty});
    oneSupply(running);
    moved(running);
    endStops();
    return std::move(m_out);
  }

 private:
  const Bench& m_bench;
  const Nets& m_nets;
  const std::vector<Motor>& m_motors;
  std::vector<Command> m_out;
  TruthTables m_tables;
  std::map<TerminalIndex, TerminalIndex> m_wiredPins;
  std::map<std::pair<TerminalIndex, TerminalIndex>, Path> m_paths;
  std::map<std::tuple<int, Action, int>, std::map<TerminalIndex, Level>> m_wanted;
  std::vector<std::vector<Action>> m_actions;
  std::vector<Steering> m_steering;
  std::vector<TerminalIndex> m_lowUntilAsked;
  std::vector<LinePin> m_linePins;

  void add(Command c, std::vector<Corner> corners) {
    c.corners = std::move(corners);
    m_out.push_back(std::move(c));
  }

  // Each supply alone, the program asking for everything: what is then fed backwards, and which inputs are driven
  // while their part has no supply.
  void oneSupply(const Command& running) {
    std::vector<int> sources;
    for (std::size_t d = 0; d < m_bench.devices.size(); ++d)
      if (parts::isSource(*m_bench.devices[d].part)) sources.push_back(static_cast<int>(d));
    if (sources.size() < 2 || sources.size() > kMostSupplies) return;
    for (const int d : sources) {
      auto c = running;
      c.action = Action::OneSupply;
      c.supply = d;
      c.id = c.title = "only " + m_bench.devices[d].called() + " on";
      add(std::move(c), {Corner::Nominal});
    }
  }

  // A relay that no command switches: nobody stated what hangs on it, or what switches it.
  bool switched(const MovedContacts& relay) const {
    const auto of = [&](ChannelRef r) {
      return r.device == relay.contacts.front().first && std::ranges::any_of(relay.contacts, [&](const auto& at) {
               const auto& s = std::get<parts::Switch>(m_bench.devices[at.first].part->elements[at.second].body);
               return std::ranges::any_of(channelOf(m_bench, r).out, [&](const auto& o) { return s.a == o || s.b == o; });
             });
    };
    return std::ranges::any_of(m_motors, [&](const Motor& m) { return of(m.meant) || std::ranges::any_of(m.further, of); });
  }

  // What is worked by hand, by what it senses or by a coil, each for itself.
  void moved(const Command& running) {
    int variant = 0;
    for (auto& m : movedContacts(m_bench, m_nets)) {
      if (m.relay && switched(m)) continue;
      auto c = running;
      c.action = m.switchedOff ? Action::SwitchedOff : Action::Pressed;
      c.id = c.title = m.title;
      c.variant = variant++;
      c.moved = m.contacts;
      add(c, {Corner::Full, Corner::Nominal});
      if (c.action == Action::Pressed && !m.relay) onDrivenPins(m, c, variant);
    }
  }

  // A button over a pin that the program drives: whatever level it has while somebody presses.
  void onDrivenPins(const MovedContacts& m, const Command& pressed, int& variant) {
    std::set<TerminalIndex> pins;
    for (const auto& i : m_bench.intents)
      for (const auto& x : i.signals)
        if (const auto t = m_bench.terminal(x.pin); t >= 0 && m_bench.facts(t).pin && m_bench.facts(t).pin->output) pins.insert(t);
    if (pins.empty()) return;
    const Nets fixed(m_bench, false);
    std::set<int> ends;
    for (const auto& [d, e] : m.contacts) {
      const auto& c = std::get<parts::Contact>(m_bench.devices[d].part->elements[e].body);
      for (const auto& n : {c.a, c.b})
        if (const auto t = m_bench.terminal(d, n); t >= 0) ends.insert(fixed.of(t));
    }
    for (const auto pin : pins) {
      if (!ends.contains(fixed.of(pin))) continue;
      const auto it = pressed.pins.find(pin);
      for (const auto state : {PinState::Low, PinState::High}) {
        if (it != pressed.pins.end() && it->second == state) continue;
        auto c = pressed;
        c.pins[pin] = state;
        c.variant = variant++;
        c.id = c.title = fmt::format("{}, {} {}", pressed.title, m_bench.called(pin), state == PinState::High ? "high" : "low");
        add(std::move(c), {Corner::Nominal});
      }
    }
  }

  // Each way that a motor turns, with each end switch in its leads open.
  void endStops() {
    const auto all = endSwitches(m_bench, m_nets, m_motors);
    for (std::size_t k = 0; k < all.size(); ++k) {
      const auto motor = static_cast<std::size_t>(all[k].motor);
      for (const auto way : {Action::Forward, Action::Reverse}) {
        if (std::ranges::count(actions(motor), way) == 0) continue;
        auto c = plain(Action::EndStop, {});
        set(c, all[k].motor, way, 0);
        c.motor = all[k].motor;
        c.variant = 2 * static_cast<int>(k) + (way == Action::Reverse ? 1 : 0);
        c.id = c.title = fmt::format("{} {}, {} open", m_bench.devices[m_motors[motor].device].called(),
                                     actionWord(m_motors[motor], way, 0), m_bench.devices[all[k].device].called());
        c.moved = all[k].contacts;
        add(std::move(c), {Corner::Nominal});
      }
    }
  }

  // Everything at rest.
  Command plain(Action action, const std::string& id) {
    Command c;
    c.id = id;
    c.title = id;
    c.action = action;
    c.turning.assign(m_motors.size(), false);
    for (const auto t : m_lowUntilAsked) c.pins[t] = PinState::Low;
    // What enables outputs is held so that it does; of the others both levels come up, low while all is off.
    for (const auto& [t, enables] : m_linePins)
      c.pins[t] = (enables ? *enables == Level::High : action != Action::AllOff) ? PinState::High : PinState::Low;
    for (std::size_t m = 0; m < m_motors.size(); ++m) set(c, static_cast<int>(m), Action::AllOff, 0);
    return c;
  }

  static bool turnsOver(Path p) { return p == Path::Inverted || p == Path::Unclear; }

  // A pin whose level is turned over on its way. What switches on and off is written high to run, or low where that is stated; whether
  // the wires make the right level of it is what is to be found out. A direction is written as the stage's table has it, turned over only
  // where that is stated.
  Level throughLogic(int motor, const harness::Signal& s, TerminalIndex input, Level wanted, Path p) {
    static const std::set<std::string> kOnOff{"enable", "standby", "sleep", "reset", "in", "speed"};
    const bool low = s.active == harness::Active::Low;
    if (!kOnOff.contains(s.role) || p == Path::Unclear) return low ? !wanted : wanted;
    const auto& running = wantedBy(motor, actions(motor).front(), 0);
    const auto it = running.find(input);
    const bool runs = it == running.end() || it->second == wanted;
    return runs != low ? Level::High : Level::Low;
  }

  Path path(TerminalIndex pin, TerminalIndex input) {
    const auto [it, fresh] = m_paths.try_emplace({pin, input}, Path::None);
    if (fresh) it->second = pathBetween(m_bench, m_nets, pin, input);
    return it->second;
  }

  // Every command sets every motor: what that takes is worked out once.
  const std::map<TerminalIndex, Level>& wantedBy(int motor, Action action, int step) {
    const auto [it, fresh] = m_wanted.try_emplace({motor, action, step});
    const auto& m = m_motors[motor];
    if (fresh && !m.poles.empty()) it->second = reversingInputs(m_bench, m, action);
    if (fresh)
      for (const auto& channel : meantChannels(m_bench, m))
        for (const auto& [t, level] : inputsFor(m_tables, m, channel, action, step).inputs)
          it->second[m_bench.terminal(channel.ref.device, t)] = level;
    return it->second;
  }
  Steering steering(int motor) {
    if (m_steering.empty())
      for (const auto& m : m_motors) m_steering.push_back(wiredSteering(m_bench, m_nets, m));
    return m_steering[motor];
  }
  const std::vector<Action>& actions(std::size_t motor) {
    if (m_actions.empty())
      for (const auto& m : m_motors) m_actions.push_back(actionsOf(m_tables, m));
    return m_actions[motor];
  }

  // The one pin that a program can drive and that gets to this input; -1 where there is none, or more than one.
  TerminalIndex wiredPin(TerminalIndex input) {
    const auto [it, fresh] = m_wiredPins.try_emplace(input, -1);
    if (!fresh) return it->second;
    const auto pins = programPins(m_bench, m_nets, input);
    return pins.size() == 1 ? it->second = *pins.begin() : -1;
  }

  // Every motor runs: relays that turn one round as it asks of them.
  void setAll(Command& c) {
    std::set<int> led;
    for (const auto& m : m_motors)
      for (const int k : reversingCoils(m)) led.insert(k);
    for (std::size_t k = 0; k < m_motors.size(); ++k)
      if (!led.contains(static_cast<int>(k))) set(c, static_cast<int>(k), actions(k).front(), 0);
  }

  // A relay's coil and what its contacts work are one matter, said of whichever the intent has signals for: its coil's, else its motor's.
  void set(Command& c, int motor, Action action, int step) {
    const auto said = [&](int k) { return m_motors[k].intent && !m_motors[k].intent->signals.empty(); };
    const auto turns = [](Action a) { return a != Action::AllOff && a != Action::Brake && a != Action::Coast; };
    const auto coil = m_motors[motor].coil;
    if (coil < 0) {
      int lead = motor;
      for (std::size_t k = 0; k < m_motors.size() && !said(lead); ++k)
        if (m_motors[k].coil == motor && said(static_cast<int>(k))) lead = static_cast<int>(k);
      if (lead == motor)
        write(c, motor, action, step);
      else
        write(c, lead, turns(action) != m_motors[lead].atRest ? Action::Forward : Action::AllOff, 0);
      follow(c, motor, turns(action) || steering(motor) == Steering::AlwaysOn);
      turnCoils(c, motor, action);
      followRound(c, motor);
    } else {
      const bool closes = turns(action) != m_motors[motor].atRest;
      if (said(coil) || !said(motor))
        write(c, coil, closes ? Action::Forward : Action::AllOff, 0);
      else
        write(c, motor, action, step);
      follow(c, coil, closes);
    }
  }
  // What a coil that is on or off makes of the motors on its contacts.
  void follow(Command& c, int coil, bool on) const {
    c.turning[coil] = on;
    for (std::size_t k = 0; k < m_motors.size(); ++k)
      if (m_motors[k].coil == coil) c.turning[k] = on != m_motors[k].atRest;
  }

  // The coils that a motor is turned round by, for what it is asked to do.
  void turnCoils(Command& c, int motor, Action action) {
    const auto& m = m_motors[motor];
    for (const auto& contact : m.poles) {
      if (contact.coil < 0) continue;
      const auto& levels = wantedBy(motor, action, 0);
      const bool on = levels.at(contact.input) == wantedBy(contact.coil, Action::Forward, 0).at(contact.input);
      if (!m.intent || m.intent->signals.empty()) write(c, contact.coil, on ? Action::Forward : Action::AllOff, 0);
      c.turning[contact.coil] = on;
    }
  }
  // What a coil makes of a motor that it helps to turn round, the others as they are set.
  void followRound(Command& c, int coil) {
    for (std::size_t k = 0; k < m_motors.size(); ++k) {
      const auto coils = reversingCoils(m_motors[k]);
      if (std::ranges::count(coils, coil) == 0) continue;
      std::map<TerminalIndex, Level> levels;
      for (const int x : coils) levels.merge(std::map(wantedBy(x, c.turning[x] ? Action::Forward : Action::AllOff, 0)));
      c.turning[k] = turnedBy(m_motors[k], levels) != Action::AllOff;
    }
  }

  // Of channels in parallel the inputs that copper joins take one level; another motor's are not this one's to set.
  bool inputOfReached(const Motor& m, TerminalIndex t) const {
    return std::ranges::any_of(m.reached, [&](ChannelRef r) {
      return r.device == m_bench.deviceOf(t) &&
             std::ranges::any_of(channelOf(m_bench, r).signals, [&](const auto& s) { return s.second == m_bench.facts(t).id; });
    });
  }

  // The levels that make one motor do this, written to its pins (or put at the stage where the intent names no pins).
  void write(Command& c, int motor, Action action, int step) {
    const auto& m = m_motors[motor];
    for (const int k : together(m_motors, motor))
      c.turning[k] = action != Action::AllOff && action != Action::Brake && action != Action::Coast;
    const auto& wanted = wantedBy(motor, action, step);
    const bool planned = m.intent && !m.intent->signals.empty();
    if (!planned) {
      // A gate or base has no level that could be put there: it is driven from the pin that the wires lead to it.
      for (const auto& [t, level] : wanted) {
        const auto& input = m_bench.facts(t).input;
        if (const auto pin = input && !input->levels.empty() ? -1 : wiredPin(t); pin >= 0)
          c.pins[pin] = (level == Level::High) != turnsOver(path(pin, t)) ? PinState::High : PinState::Low;
        else
          for (const auto other : m_nets.members(m_nets.of(t)))
            if (other == t || inputOfReached(m, other)) c.forced.emplace(other, level);
      }
      return;
    }
    for (const auto& s : m.intent->signals) {
      const auto pin = m_bench.terminal(s.pin);
      if (pin < 0) continue;
      Level level = c.turning[motor] ? Level::High : Level::Low;
      const auto at = wanted.find(inputOf(m_bench, m, s.role));
      const bool known = at != wanted.end();
      if (known)
        level = at->second;
      else if (const auto runs =
                   s.active == harness::Active::Unsaid ? runsAt(m_bench, m_nets, m, inputOf(m_bench, m, s.role), pin) : std::nullopt)
        level = level == Level::High ? *runs : !*runs;
      // A bridge made of loose transistors has no truth table: its intent says which pins are high for which way.
      if (s.role == "forward" && !known) level = action == Action::Forward ? Level::High : Level::Low;
      if (s.role == "reverse" && !known) level = action == Action::Reverse ? Level::High : Level::Low;
      if (s.role == "step")
        level = action == Action::Step ? Level::High : Level::Low;
      else if (s.role == "dir" && isStepper(m.kind))
        level = action == Action::Step && step == 0 ? Level::High : Level::Low;
      else if (s.role == "pulse")
        level = Level::Low;
      else if (known && turnsOver(path(pin, at->first)))
        level = throughLogic(motor, s, at->first, level, path(pin, at->first));
      else if (s.active == harness::Active::Low && !known)
        level = !level;
      c.pins[pin] = level == Level::High ? PinState::High : PinState::Low;
    }
  }

  void one(int motor) {
    const auto& m = m_motors[motor];
    const auto& name = m_bench.devices[m.device].called();
    const auto make = [&](Action a, int step, Moment moment, const std::string& tail) {
      auto c = plain(a, name + " " + actionWord(m, a, step) + tail);
      c.motor = motor;
      c.variant = step;
      c.moment = moment;
      return c;
    };
    const auto& mine = actions(motor);
    for (const auto a : mine) {
      // A step/dir stage is asked to step both ways; plain switches go through their whole sequence.
      const int steps = a != Action::Step ? 1 : m.kind == MotorKind::UnipolarStepper ? 4 : 2;
      for (int s = 0; s < steps; ++s) {
        auto c = make(a, s, Moment::Running, "");
        set(c, motor, a, s);
        const bool first = a == mine.front() && s == 0;
        add(std::move(c), first                 ? std::vector{Corner::Full, Corner::Nominal, Corner::Empty, Corner::Strong}
                          : opensApart(m, a, s) ? std::vector{Corner::Full, Corner::Nominal}
                                                : std::vector{Corner::Nominal});
      }
    }
    const Action run = mine.front();
    if ((m.kind == MotorKind::TwoLead && !m.still) || m.kind == MotorKind::Servo) {
      auto stalled = plain(run, name + " stalled");
      stalled.moment = Moment::Stalled;
      stalled.motor = motor;
      setAll(stalled);
      if (spreads(m)) {
        auto far = stalled;
        far.moment = Moment::StalledAtMost;
        far.id = far.title = name + " stalled, winding at the low end of its class";
        add(std::move(far), {Corner::Full});
      }
      add(std::move(stalled), {Corner::Full, Corner::Nominal, Corner::Empty, Corner::Strong});
    }
    // An intent that lets it coast first never sends it backwards while it turns.
    const bool sudden = !m.still && (!m.intent || !m.intent->ramp);
    if (m.kind == MotorKind::TwoLead && sudden && std::ranges::count(mine, Action::Reverse) > 0) {
      auto c = make(Action::Reverse, 0, Moment::Reversing, ", still turning forward");
      set(c, motor, Action::Reverse, 0);
      add(std::move(c), {Corner::Full});
    }
    combinations(motor);
    if (m.kind == MotorKind::Servo) return;
    add(make(run, 0, Moment::JustOpened, ", just opened"), {Corner::Full});
    for (const auto a : mine)
      for (int s = 0; s < 4; ++s)
        if (opensApart(m, a, s)) add(make(a, s, Moment::JustOpened, ", just opened"), {Corner::Full});
  }

  // A bridge of loose transistors has no table that says what both pins high do: every state of its pins, open ones included, is
  // worked out at every corner.
  void combinations(int motor) {
    const auto& m = m_motors[motor];
    const auto pins = bridgePins(m_bench, m_nets, m);
    if (pins.size() < 2 || pins.size() > kMostBridgePins) return;
    const auto& name = m_bench.devices[m.device].called();
    int states = 1;
    for (std::size_t k = 0; k < pins.size(); ++k) states *= 3;
    for (int n = 0; n < states; ++n) {
      auto c = plain(Action::Combination, "");
      c.motor = motor;
      c.variant = n;
      std::string title;
      int rest = n;
      for (const auto pin : pins) {
        const auto state = static_cast<PinState>(rest % 3);
        rest /= 3;
        c.pins[pin] = state;
        title += fmt::format("{}{} {}", title.empty() ? "" : ", ", m_bench.facts(pin).label,
                             state == PinState::High  ? "high"
                             : state == PinState::Low ? "low"
                                                      : "open");
      }
      c.id = c.title = fmt::format("{}: {}", name, title);
      add(std::move(c), {Corner::Full, Corner::Nominal, Corner::Empty, Corner::Strong});
    }
  }

  // Whether the catalogue gives a spread of its winding that no measurement has replaced.
  bool spreads(const Motor& m) const {
    if (m.kind != MotorKind::TwoLead) return false;
    const auto& r = windingOf(m_bench, m, 0).resistance;
    return r.spreadMin && r.typical() && *r.spreadMin < *r.typical() && !r.overridden;
  }

  // Whether switching this off sends a current other ways than switching off the first: the other direction of a bridge
  // without clamps of its own, the other coils of a unipolar motor.
  bool opensApart(const Motor& m, Action action, int step) const {
    if (m.kind == MotorKind::UnipolarStepper)
      return action == Action::Step && step > 0 && step < 4 && (m.intent && m.intent->sequence == "wave" ? true : step == 2);
    return m.kind == MotorKind::TwoLead && action == Action::Reverse && step == 0 &&
           (m.meant.device < 0 || !channelOf(m_bench, m.meant).clampsInside);
  }
};

}  // namespace

std::vector<TerminalIndex> bridgePins(const Bench& bench, const Nets& nets, const Motor& m) {
  std::set<TerminalIndex> out;
  if (m.kind != MotorKind::TwoLead) return {};
  const auto& w = windingOf(bench, m, 0);
  for (const auto& lead : {w.a, w.b}) {
    const auto t = bench.terminal(m.device, lead);
    if (t < 0 || nets.rail(nets.of(t))) return {};  // a single switch: its other lead is on a supply
    std::size_t transistors = 0;
    for (const auto on : nets.members(nets.of(t))) {
      const auto& elements = bench.devices[bench.deviceOf(on)].part->elements;
      transistors += bench.deviceOf(on) != m.device && std::ranges::any_of(elements, [](const parts::Element& e) {
                       return std::holds_alternative<parts::Bipolar>(e.body) || std::holds_alternative<parts::Mosfet>(e.body);
                     });
    }
    if (transistors < 2) return {};
    for (const int net : signalNets(bench, nets, t, Along::TransistorsBack))
      for (const auto at : nets.members(net))
        if (bench.facts(at).pin && bench.facts(at).pin->output) out.insert(at);
  }
  return {out.begin(), out.end()};
}

std::vector<Command> commandsOf(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors) {
  return CommandList(bench, nets, motors).build();
}

}  // namespace bold::bench
