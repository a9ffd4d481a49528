#pragma once

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/harness/harness.h"
#include "core/parts/library.h"
#include "core/parts/part.h"
#include "core/parts/truth_table.h"

/// What is asked of a part before it is wired: of its file alone, with the settings that it comes with.
namespace bold::choose {

/// The part of a device with the figures that the bench gives it; nullptr: no library knows it.
std::shared_ptr<const parts::Part> partOf(const parts::Library& library, const harness::Device& device);

/// A role that a program has to drive; what is no such role and sets no speed is tied to what lets the stage work.
bool drivenRole(const std::string& role);
/// Two terminals are one copper inside.
bool joined(const parts::Part& part, const std::string& a, const std::string& b);
/// A regulator of its own holds this terminal.
bool feedsItself(const parts::Part& part, const std::string& terminal);
/// A resistor inside holds an input at this level.
bool pulled(const parts::Part& part, const std::string& input, parts::Level level);
/// Terminals behind a light diode that this one lights, through inner points: its way back.
std::vector<std::string> wayBack(const parts::Part& part, const std::string& terminal);
/// The jumper that comes with it at this terminal; nullptr: none.
const std::pair<std::string, std::string>* jumperAt(const parts::Part& part, const std::string& terminal);
/// What an input takes at most from a pin at this level, through the resistors inside; without what a transistor's base takes.
Amps inputCurrent(const parts::Part& part, const std::string& input, Volts high);
/// What has to stand before this input; nullptr: nothing.
const parts::Requirement* seriesAt(const parts::Part& part, const std::string& terminal);
/// The terminal of a controller that gives what a window asks for: the rail of its pins before any other.
std::optional<std::string> railFor(const parts::Part& board, const parts::SupplyFacts& need);

/// A setting by which the part says how much current it regulates to (its switches), and the largest of its values that does not pass
/// this; nothing where it has none.
struct CurrentSwitch {
  std::string setting, label, value;
};
std::optional<CurrentSwitch> currentSwitch(const parts::Part& part, Amps most);

/// The rail that the pins of a controller give.
Volts pinLevel(const parts::Part& board);

/// The level of an input at which the channel's outputs can be made more different things; low where it makes no difference.
parts::Level working(const std::vector<parts::TruthRow>& rows, const std::string& input);
/// The level of an input at which nothing of the channel moves, whatever the others are; of in1, in2 and so on with all of them at it.
/// Nothing: at either, or at neither.
std::optional<parts::Level> offLevel(const parts::Part& part, const parts::Channel& channel, const std::string& input);
/// With this input held at work there is still a row in which nothing moves: it need not be driven to stop.
bool stopsWithout(const std::vector<parts::TruthRow>& rows, const std::string& input);
/// Low at this input opens all outputs.
bool lowStopsAll(const std::vector<parts::TruthRow>& rows, const std::string& input);

}  // namespace bold::choose
