#include "core/circuit/command.h"

#include <algorithm>
#include <optional>
#include <tuple>

#include "core/circuit/signal_nets.h"
#include "core/parts/roles.h"

namespace bold::circuit {
namespace {

using parts::BridgeAction;
using parts::Drive;
using parts::Level;

bool isStepper(MotorKind k) {
  return k == MotorKind::BipolarStepper || k == MotorKind::UnipolarStepper;
}

std::string actionWord(Action a, int step) {
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
  }
  return {};
}

// Forward of a bridge is its first output high; which way the motor then turns is the wires' business.
bool matches(const Motor& m, const parts::Channel& c, int firstCoil, const parts::TruthRow& row, Action action, int step) {
  if (c.lowSide) {
    std::vector<int> on;
    for (std::size_t o = 0; o < row.outputs.size(); ++o)
      if (row.outputs[o] == Drive::Low) on.push_back(firstCoil + static_cast<int>(o));
    switch (action) {
      case Action::Forward:
        return on.size() == row.outputs.size();
      case Action::Step: {
        auto wanted = stepOutputs(m, step);
        std::erase_if(wanted, [&](int coil) { return coil < firstCoil || coil >= firstCoil + static_cast<int>(row.outputs.size()); });
        return on == wanted;
      }
      case Action::AllOff:
      case Action::Coast:
        return on.empty();
      default:
        return false;
    }
  }
  if (m.half) {
    const auto drive = row.outputs[m.half->output];
    const auto on = m.half->high ? Drive::High : Drive::Low;
    if (action == Action::Forward || action == Action::Hold) return drive == on;
    if (action == Action::Coast) return drive == Drive::Open;
    return action == Action::AllOff && drive != on && drive != Drive::Short;
  }
  if (c.out.size() == 2) {
    const auto a = parts::bridgeAction(row.outputs[0], row.outputs[1]);
    switch (action) {
      case Action::Forward:
      case Action::Hold:
        return a == BridgeAction::Forward;
      case Action::Reverse:
        return a == BridgeAction::Reverse;
      case Action::Brake:
        return a == BridgeAction::Brake;
      case Action::Coast:
        return a == BridgeAction::Coast;
      case Action::AllOff:
        return a == BridgeAction::Coast || a == BridgeAction::Brake;
      default:
        return false;
    }
  }
  // A stage for all the coils of one stepper.
  const bool driven = std::ranges::all_of(row.outputs, [](Drive d) { return d == Drive::High || d == Drive::Low; });
  const bool open = std::ranges::all_of(row.outputs, [](Drive d) { return d == Drive::Open; });
  if (action == Action::Hold || action == Action::Step) return driven;
  return (action == Action::AllOff || action == Action::Coast) && open;
}

}  // namespace

std::vector<int> stepOutputs(const Motor& motor, int step) {
  const bool wave = motor.intent && motor.intent->sequence == "wave";
  const int first = step % 4;
  if (wave) return {first};
  const int second = (first + 1) % 4;
  return {std::min(first, second), std::max(first, second)};
}

const std::vector<parts::TruthRow>& TruthTables::of(ChannelRef ref) {
  const auto* part = m_bench.devices[static_cast<std::size_t>(ref.device)].part.get();
  const auto [it, fresh] = m_rows.try_emplace({part, ref.channel});
  if (fresh) it->second = parts::truthTable(*part, channelOf(m_bench, ref));
  return it->second;
}

Recipe inputsFor(TruthTables& tables, const Motor& m, const MeantChannel& meant, Action action, int step) {
  Recipe recipe;
  const auto& channel = channelOf(tables.bench(), meant.ref);
  const auto& rows = tables.of(meant.ref);
  std::vector<std::string> driven;
  if (m.intent)
    for (const auto& s : m.intent->signals)
      if (const auto it = meant.inputs.find(s.role); it != meant.inputs.end()) driven.push_back(it->second);
  const auto isDriven = [&](const std::string& t) { return std::ranges::count(driven, t) > 0; };
  const Action basic = isStepper(m.kind) ? (m.kind == MotorKind::UnipolarStepper ? Action::Step : Action::Hold) : Action::Forward;
  const auto isTiedLow = [&](const std::string& t) {
    return std::ranges::count(m.tiedLow, tables.bench().terminal(meant.ref.device, t)) > 0;
  };
  // What no signal drives must stand still: the values at which the motor can run at all, as the wires have them where that
  // is possible (a mode input tied to ground), else as many high as possible.
  const parts::TruthRow* reference = nullptr;
  std::pair most{-1, -1};
  for (const auto& row : rows) {
    if (!matches(m, channel, meant.firstCoil, row, basic, 0)) continue;
    std::pair agree{0, 0};
    for (const auto& [t, level] : row.inputs) {
      if (isDriven(t)) continue;
      agree.first += level == Level::Low && isTiedLow(t);
      agree.second += level == Level::High;
    }
    if (agree > most) {
      most = agree;
      reference = &row;
    }
  }
  if (!reference) return recipe;
  // Of several rows that do it, the one that changes the fewest driven inputs from running: a brake keeps the enable.
  const parts::TruthRow* best = nullptr;
  int fewest = 1000;
  for (const auto& row : rows) {
    if (!matches(m, channel, meant.firstCoil, row, action, step)) continue;
    int changes = 0;
    bool possible = true;
    for (const auto& [t, level] : row.inputs) {
      if (level == reference->inputs.at(t)) continue;
      possible = possible && isDriven(t);
      // For "off" people write everything low.
      changes += action == Action::AllOff || action == Action::Brake ? (level == Level::High ? 10 : 1) : 1;
    }
    if (action == Action::AllOff)
      for (const auto& [t, level] : row.inputs) changes += isDriven(t) && level == Level::High ? 2 : 0;
    if (possible && changes < fewest) {
      fewest = changes;
      best = &row;
    }
  }
  if (!best) return recipe;
  recipe.inputs = best->inputs;
  if (m.half) std::erase_if(recipe.inputs, [&](const auto& input) { return !parts::decides(rows, input.first, m.half->output); });
  recipe.found = true;
  return recipe;
}

Recipe inputsFor(const Bench& bench, const Motor& m, const MeantChannel& meant, Action action, int step) {
  TruthTables tables(bench);
  return inputsFor(tables, m, meant, action, step);
}

bool possible(TruthTables& tables, const Motor& m, Action action) {
  const auto channels = meantChannels(tables.bench(), m);
  return !channels.empty() &&
         std::ranges::all_of(channels, [&](const MeantChannel& c) { return inputsFor(tables, m, c, action, 0).found; });
}
bool possible(const Bench& bench, const Motor& m, Action action) {
  TruthTables tables(bench);
  return possible(tables, m, action);
}

std::vector<Action> actionsOf(const Bench& bench, const Motor& m) {
  TruthTables tables(bench);
  return actionsOf(tables, m);
}

std::vector<Action> actionsOf(TruthTables& tables, const Motor& m) {
  std::vector<Action> candidates;
  switch (m.kind) {
    case MotorKind::Servo:
      return {Action::Move};
    case MotorKind::BipolarStepper:
      candidates = {Action::Hold};
      if (m.intent && std::ranges::count(m.intent->signals, "step", &harness::Signal::role) > 0) candidates.push_back(Action::Step);
      break;
    case MotorKind::UnipolarStepper:
      return {Action::Step};
    case MotorKind::Brushed:
      candidates = {Action::Forward};
      if (m.intent && m.intent->bothDirections) candidates = {Action::Forward, Action::Reverse, Action::Brake, Action::Coast};
      break;
  }
  // A bridge of loose transistors: the plan names a pin for each way, whatever transistor comes first on a lead.
  const auto has = [&](const char* role) { return m.intent && std::ranges::count(m.intent->signals, role, &harness::Signal::role) > 0; };
  if (m.kind == MotorKind::Brushed && has("forward") && has("reverse")) return {Action::Forward, Action::Reverse};
  if (m.meant.device < 0) return {candidates.front()};
  std::vector<Action> out;
  for (const auto a : candidates)
    if (possible(tables, m, a)) out.push_back(a);
  return out.empty() ? std::vector<Action>{candidates.front()} : out;
}

namespace {

constexpr std::size_t kMostSupplies = 8;  // more sources than that on one bench are not switched one by one

class CommandList {
 public:
  CommandList(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors)
      : m_bench(bench), m_nets(nets), m_motors(motors), m_tables(bench) {}

  std::vector<Command> build() {
    add(plain(Action::AllOff, "all off"), {Charge::Full, Charge::Nominal, Charge::Empty});
    auto boot = plain(Action::Boot, "while booting");
    for (auto& [pin, state] : boot.pins) state = PinState::Float;
    boot.forced.clear();
    auto chatter = boot;
    bool any = false;
    for (TerminalIndex t = 0; t < static_cast<int>(m_bench.terminalCount()); ++t) {
      const auto& pin = m_bench.facts(t).pin;
      if (!pin || pin->boot != "toggles" || !m_bench.connected(t)) continue;
      chatter.pins[t] = PinState::High;
      any = true;
    }
    add(std::move(boot), {Charge::Nominal});
    if (any) {
      chatter.step = 1;
      chatter.id = chatter.title = "while booting, pins chattering";
      add(std::move(chatter), {Charge::Nominal});
    }
    for (std::size_t m = 0; m < m_motors.size(); ++m) one(static_cast<int>(m));
    auto all = plain(Action::AllRunning, "all running");
    for (std::size_t m = 0; m < m_motors.size(); ++m) set(all, static_cast<int>(m), actions(m).front(), 0);
    const auto running = all;
    if (m_motors.size() > 1) add(std::move(all), {Charge::Full, Charge::Nominal, Charge::Empty});
    oneSupply(running);
    return std::move(m_out);
  }

 private:
  const Bench& m_bench;
  const Nets& m_nets;
  const std::vector<Motor>& m_motors;
  std::vector<Command> m_out;
  TruthTables m_tables;
  std::map<std::tuple<int, Action, int>, std::map<TerminalIndex, Level>> m_wanted;
  std::vector<std::vector<Action>> m_actions;

  void add(Command c, std::vector<Charge> charges) {
    c.charges = std::move(charges);
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
      c.id = c.title = "only " + m_bench.devices[static_cast<std::size_t>(d)].doc.called() + " on";
      add(std::move(c), {Charge::Nominal});
    }
  }

  // Everything at rest.
  Command plain(Action action, const std::string& id) {
    Command c;
    c.id = id;
    c.title = id;
    c.action = action;
    c.turning.assign(m_motors.size(), false);
    for (std::size_t m = 0; m < m_motors.size(); ++m) set(c, static_cast<int>(m), Action::AllOff, 0);
    return c;
  }

  // Every command sets every motor: what that takes is worked out once.
  const std::map<TerminalIndex, Level>& wantedBy(int motor, Action action, int step) {
    const auto [it, fresh] = m_wanted.try_emplace({motor, action, step});
    const auto& m = m_motors[static_cast<std::size_t>(motor)];
    if (fresh)
      for (const auto& channel : meantChannels(m_bench, m))
        for (const auto& [t, level] : inputsFor(m_tables, m, channel, action, step).inputs)
          it->second[m_bench.terminal(channel.ref.device, t)] = level;
    return it->second;
  }
  const std::vector<Action>& actions(std::size_t motor) {
    if (m_actions.empty())
      for (const auto& m : m_motors) m_actions.push_back(actionsOf(m_tables, m));
    return m_actions[motor];
  }

  // The levels that make one motor do this, written to its pins (or put at the stage where the plan names no pins).
  void set(Command& c, int motor, Action action, int step) {
    const auto& m = m_motors[static_cast<std::size_t>(motor)];
    c.turning[static_cast<std::size_t>(motor)] = action != Action::AllOff && action != Action::Brake && action != Action::Coast;
    const auto& wanted = wantedBy(motor, action, step);
    const bool planned = m.intent && !m.intent->signals.empty();
    if (!planned) {
      c.forced.insert(wanted.begin(), wanted.end());
      return;
    }
    for (const auto& s : m.intent->signals) {
      const auto pin = m_bench.terminal(s.pin);
      if (pin < 0) continue;
      Level level = c.turning[static_cast<std::size_t>(motor)] ? Level::High : Level::Low;
      const auto at = wanted.find(inputOf(m_bench, m, s.role));
      const bool known = at != wanted.end();
      if (known) level = at->second;
      // A bridge made of loose transistors has no truth table: its plan says which pins are high for which way.
      if (s.role == "forward") level = action == Action::Forward ? Level::High : Level::Low;
      if (s.role == "reverse") level = action == Action::Reverse ? Level::High : Level::Low;
      if (s.role == "step")
        level = action == Action::Step ? Level::High : Level::Low;
      else if (s.role == "dir" && isStepper(m.kind))
        level = action == Action::Step && step == 0 ? Level::High : Level::Low;
      else if (s.role == "pulse")
        level = Level::Low;
      else if (s.activeLow && (!known || throughTransistors(m_bench, m_nets, pin, at->first)))
        level = !level;
      c.pins[pin] = level == Level::High ? PinState::High : PinState::Low;
    }
  }

  void one(int motor) {
    const auto& m = m_motors[static_cast<std::size_t>(motor)];
    const auto& name = m_bench.devices[static_cast<std::size_t>(m.device)].doc.called();
    const auto make = [&](Action a, int step, Moment moment, const std::string& tail) {
      auto c = plain(a, name + " " + actionWord(a, step) + tail);
      c.motor = motor;
      c.step = step;
      c.moment = moment;
      return c;
    };
    const auto& mine = actions(static_cast<std::size_t>(motor));
    for (const auto a : mine) {
      // A step/dir stage is asked to step both ways; plain switches go through their whole sequence.
      const int steps = a != Action::Step ? 1 : m.kind == MotorKind::UnipolarStepper ? 4 : 2;
      for (int s = 0; s < steps; ++s) {
        auto c = make(a, s, Moment::Running, "");
        set(c, motor, a, s);
        const bool first = a == mine.front() && s == 0;
        add(std::move(c), first                 ? std::vector{Charge::Full, Charge::Nominal, Charge::Empty, Charge::Strong}
                          : opensApart(m, a, s) ? std::vector{Charge::Full, Charge::Nominal}
                                                : std::vector{Charge::Nominal});
      }
    }
    const Action run = mine.front();
    if (m.kind == MotorKind::Brushed || m.kind == MotorKind::Servo) {
      auto stalled = plain(run, name + " stalled");
      stalled.moment = Moment::Stalled;
      stalled.motor = motor;
      for (std::size_t k = 0; k < m_motors.size(); ++k) set(stalled, static_cast<int>(k), actions(k).front(), 0);
      add(std::move(stalled), {Charge::Full, Charge::Nominal, Charge::Empty, Charge::Strong});
    }
    // A plan that lets it coast first never sends it backwards while it turns.
    const bool sudden = !m.intent || !m.intent->ramp;
    if (m.kind == MotorKind::Brushed && sudden && std::ranges::count(mine, Action::Reverse) > 0) {
      auto c = make(Action::Reverse, 0, Moment::Reversing, ", still turning forward");
      set(c, motor, Action::Reverse, 0);
      add(std::move(c), {Charge::Full});
    }
    if (m.kind == MotorKind::Servo) return;
    add(make(run, 0, Moment::JustOpened, ", just opened"), {Charge::Full});
    for (const auto a : mine)
      for (int s = 0; s < 4; ++s)
        if (opensApart(m, a, s)) add(make(a, s, Moment::JustOpened, ", just opened"), {Charge::Full});
  }

  // Whether switching this off sends a current other ways than switching off the first: the other direction of a bridge
  // without clamps of its own, the other coils of a unipolar motor.
  bool opensApart(const Motor& m, Action action, int step) const {
    if (m.kind == MotorKind::UnipolarStepper)
      return action == Action::Step && step > 0 && step < 4 && (m.intent && m.intent->sequence == "wave" ? true : step == 2);
    return m.kind == MotorKind::Brushed && action == Action::Reverse && step == 0 &&
           (m.meant.device < 0 || !channelOf(m_bench, m.meant).clampsInside);
  }
};

}  // namespace

std::vector<Command> commandsOf(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors) {
  return CommandList(bench, nets, motors).build();
}

}  // namespace bold::circuit
