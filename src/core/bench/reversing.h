#pragma once

#include "core/bench/command.h"
#include "core/bench/motors.h"

/// A motor that relays turn round: their contacts bring each of its leads to one pole or the other.
namespace bold::bench {

/// Every such contact, lead by lead; empty where not both leads can be brought to both poles, by two inputs at least.
/// @param motors all of the bench with the channels that they are meant for: among them the coils of bare relays
std::vector<PoleContact> poleContacts(const Bench& bench, const Nets& nets, const std::vector<Motor>& motors, const Motor& motor);

/// The levels at their inputs that make it do this. Whatever is no way round leaves the relays at rest.
std::map<TerminalIndex, parts::Level> reversingInputs(const Bench& bench, const Motor& motor, Action action);

/// What these levels at the inputs of its relays make it do: Forward, Reverse, or AllOff where both leads are on one pole or open.
Action turnedBy(const Motor& motor, const std::map<TerminalIndex, parts::Level>& inputs);

/// The input that "forward" or "reverse" is for: the one that is not at rest then; -1: another role, or none.
TerminalIndex reversingInput(const Bench& bench, const Motor& motor, const std::string& role);

}  // namespace bold::bench
