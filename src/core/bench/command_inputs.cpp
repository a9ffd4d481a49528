#include <algorithm>
#include <limits>
#include <set>
#include <utility>

#include "core/bench/command.h"

namespace bold::bench {
namespace {

using parts::BridgeAction;
using parts::Drive;
using parts::Level;

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
  // A relay's contact: on or off.
  if (c.out.size() == 1 && m.kind == MotorKind::TwoLead) {
    const bool on = row.outputs[0] != Drive::Open;
    return action == Action::Forward ? on : (action == Action::AllOff || action == Action::Coast) && !on;
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
  const auto* part = m_bench.devices[ref.device].part.get();
  const auto [it, fresh] = m_rows.try_emplace({part, ref.channel});
  if (fresh) it->second = parts::truthTable(*part, channelOf(m_bench, ref));
  return it->second;
}

namespace {

// Which row of a channel's truth table makes its motor do something.
class RowChoice {
 public:
  RowChoice(TruthTables& tables, const Motor& motor, const MeantChannel& meant)
      : m_bench(tables.bench()),
        m_motor(motor),
        m_meant(meant),
        m_channel(channelOf(tables.bench(), meant.ref)),
        m_rows(tables.of(meant.ref)) {
    if (!motor.intent) return;
    for (const auto& s : motor.intent->signals)
      if (const auto it = meant.inputs.find(s.role); it != meant.inputs.end()) m_driven.insert(it->second);
  }

  WantedInputs of(Action action, int step) const {
    const auto* runs = running();
    const auto* row = runs ? nearest(*runs, action, step) : nullptr;
    if (!row) return {};
    WantedInputs out{row->inputs, true};
    if (m_motor.half)
      std::erase_if(out.inputs, [&](const auto& input) { return !parts::decides(m_rows, input.first, m_motor.half->output); });
    return out;
  }

 private:
  const Bench& m_bench;
  const Motor& m_motor;
  const MeantChannel& m_meant;
  const parts::Channel& m_channel;
  const std::vector<parts::TruthRow>& m_rows;
  std::set<std::string> m_driven;  // inputs that a signal of the intent drives

  bool does(const parts::TruthRow& row, Action action, int step) const {
    return matches(m_motor, m_channel, m_meant.firstCoil, row, action, step);
  }
  bool tiedLow(const std::string& input) const {
    return std::ranges::count(m_motor.tiedLow, m_bench.terminal(m_meant.ref.device, input)) > 0;
  }
  Action basic() const {
    switch (m_motor.kind) {
      case MotorKind::UnipolarStepper:
        return Action::Step;
      case MotorKind::BipolarStepper:
        return Action::Hold;
      case MotorKind::TwoLead:
      case MotorKind::Servo:
        break;
    }
    return Action::Forward;
  }

  // What no signal drives must stand still: the values at which the motor can run at all, as the wires have them where that
  // is possible (a mode input tied to ground), else as many high as possible.
  const parts::TruthRow* running() const {
    const parts::TruthRow* best = nullptr;
    std::pair most{-1, -1};
    for (const auto& row : m_rows) {
      if (!does(row, basic(), 0)) continue;
      std::pair agree{0, 0};
      for (const auto& [input, level] : row.inputs) {
        if (m_driven.contains(input)) continue;
        agree.first += level == Level::Low && tiedLow(input);
        agree.second += level == Level::High;
      }
      if (agree > most) {
        most = agree;
        best = &row;
      }
    }
    return best;
  }

  // Of several rows that do it, the one that changes the fewest driven inputs from running: a brake keeps the enable.
  const parts::TruthRow* nearest(const parts::TruthRow& runs, Action action, int step) const {
    const parts::TruthRow* best = nullptr;
    int fewest = std::numeric_limits<int>::max();
    for (const auto& row : m_rows) {
      if (!does(row, action, step)) continue;
      const auto cost = changes(row, runs, action);
      if (!cost || *cost >= fewest) continue;
      fewest = *cost;
      best = &row;
    }
    return best;
  }

  // What it costs to go there from running; nothing where an input would have to change that no signal drives. For "off" people write
  // everything low.
  std::optional<int> changes(const parts::TruthRow& row, const parts::TruthRow& runs, Action action) const {
    constexpr int kRaised = 10;
    constexpr int kLeftHigh = 2;
    const bool stops = action == Action::AllOff || action == Action::Brake;
    int cost = 0;
    for (const auto& [input, level] : row.inputs) {
      const bool driven = m_driven.contains(input);
      if (level != runs.inputs.at(input)) {
        if (!driven) return std::nullopt;
        cost += stops && level == Level::High ? kRaised : 1;
      }
      if (action == Action::AllOff && driven && level == Level::High) cost += kLeftHigh;
    }
    return cost;
  }
};

}  // namespace

WantedInputs inputsFor(TruthTables& tables, const Motor& m, const MeantChannel& meant, Action action, int step) {
  return RowChoice(tables, m, meant).of(action, step);
}

WantedInputs inputsFor(const Bench& bench, const Motor& m, const MeantChannel& meant, Action action, int step) {
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
    case MotorKind::TwoLead:
      candidates = {Action::Forward};
      if (m.intent && m.intent->bothDirections) candidates = {Action::Forward, Action::Reverse, Action::Brake, Action::Coast};
      break;
  }
  // A bridge of loose transistors: the intent names a pin for each way, whatever transistor comes first on a lead.
  const auto has = [&](const char* role) { return m.intent && std::ranges::count(m.intent->signals, role, &harness::Signal::role) > 0; };
  if (m.kind == MotorKind::TwoLead && ((has("forward") && has("reverse")) || (!m.poles.empty() && candidates.size() > 1)))
    return {Action::Forward, Action::Reverse};
  if (m.meant.device < 0) return {candidates.front()};
  std::vector<Action> out;
  for (const auto a : candidates)
    if (possible(tables, m, a)) out.push_back(a);
  return out.empty() ? std::vector<Action>{candidates.front()} : out;
}

}  // namespace bold::bench
