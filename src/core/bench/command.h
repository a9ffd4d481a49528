#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/bench/motors.h"
#include "core/parts/truth_table.h"

namespace bold::bench {

/// Pressed: all running, and a button, limit switch, slider or sensor is the other way than at rest.
/// SwitchedOff: all running, and what is switched by hand is open.
/// EndStop: a motor forward (variant 2 k) or in reverse (2 k + 1), and end switch k in its lead is open.
/// Combination: the pins of a bridge of loose transistors in a state that no command of the intent asks for and a program can write.
enum class Action {
  AllOff,
  Boot,
  Forward,
  Reverse,
  Brake,
  Coast,
  Hold,
  Step,
  Move,
  AllRunning,
  OneSupply,
  Combination,
  Pressed,
  SwitchedOff,
  EndStop
};
/// Reversing: the other direction is commanded while it still turns, so that its own voltage adds to the supply's.
/// StalledAtMost: stalled with the least winding resistance of the motor's class, all others typical.
enum class Moment { Running, Stalled, JustOpened, Reversing, StalledAtMost };
enum class PinState { Float, Low, High };
/// The corner a command is worked out at, named by the state of the supplies. Full and Nominal: everything else typical (the expected
/// corner). Empty: and greatest drops, weakest pins, aged cells. Strong: full, and least drops, strongest pins.
enum class Corner { Full, Nominal, Empty, Strong };
inline bool expected(Corner c) {
  return c == Corner::Full || c == Corner::Nominal;
}

/// Something the program may ask of the bench, as pin levels, and the state the motors are then in.
struct Command {
  std::string id;     ///< "paddle forward", stable
  std::string title;  ///< for people
  Action action = Action::AllOff;
  Moment moment = Moment::Running;
  int motor = -1;   ///< index into the motors; -1: all or none
  int variant = 0;  ///< Step: which step of the sequence; Boot: 1 where the pins that chatter stand high; Combination: its number
  int supply = -1;  ///< OneSupply: the only source that is on (device); -1: all are
  std::map<TerminalIndex, PinState> pins;
  std::map<TerminalIndex, parts::Level> forced;  ///< stage inputs put there directly, for motors without signals
  std::vector<std::pair<int, int>> moved{};      ///< contacts, of relays too, that are the other way than at rest: device, element
  std::vector<bool> turning;                     ///< per motor: asked to run
  std::vector<Corner> corners;                   ///< the supply states it is solved at
};

/// A bridge of loose transistors: the pins that reach it, and those of the intent.
/// More pins than that are not tried in all their states.
inline constexpr std::size_t kMostBridgePins = 4;
/// The pins that steer the transistors on both of a motor's leads; empty where it is not on such a bridge.
std::vector<TerminalIndex> bridgePins(const Bench& bench, const Nets& nets, const Motor& motor);

/// What the truth table of the meant channel says the inputs must be.
struct WantedInputs {
  std::map<std::string, parts::Level> inputs;  ///< by input terminal id of the stage
  bool found = false;
};

/// Truth tables of a bench's channels, each worked out once.
class TruthTables {
 public:
  explicit TruthTables(const Bench& bench) : m_bench(bench) {}
  const Bench& bench() const { return m_bench; }
  const std::vector<parts::TruthRow>& of(ChannelRef channel);

 private:
  const Bench& m_bench;
  std::map<std::pair<const parts::Part*, int>, std::vector<parts::TruthRow>> m_rows;  // devices of one part share them
};

/// Pin-side inputs for an action of one motor; inputs without a signal stay at what the intent presumes.
WantedInputs inputsFor(TruthTables& tables, const Motor& motor, const MeantChannel& channel, Action action, int step);
WantedInputs inputsFor(const Bench& bench, const Motor& motor, const MeantChannel& channel, Action action, int step);
/// Whether every channel of the motor has a row for the action.
bool possible(TruthTables& tables, const Motor& motor, Action action);
bool possible(const Bench& bench, const Motor& motor, Action action);

/// The coils of a unipolar motor that step `step` of its sequence energises, by channel output index.
std::vector<int> stepOutputs(const Motor& motor, int step);

/// Every command that checks are decided from, in document order.
std::vector<Command> commandsOf(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors);

/// The actions a motor is meant to be able to do, "off" not included.
std::vector<Action> actionsOf(TruthTables& tables, const Motor& motor);
std::vector<Action> actionsOf(const Bench& bench, const Motor& motor);

}  // namespace bold::bench
