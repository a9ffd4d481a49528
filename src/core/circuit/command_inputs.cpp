#include <algorithm>
#include <utility>

#include "core/circuit/command.h"

namespace bold::circuit {
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
  const Action basic = m.kind != MotorKind::Brushed && m.kind != MotorKind::Servo
                           ? (m.kind == MotorKind::UnipolarStepper ? Action::Step : Action::Hold)
                           : Action::Forward;
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

}  // namespace bold::circuit
