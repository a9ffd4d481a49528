#pragma once

#include "core/bench/command.h"
#include "core/bench/motors.h"

/// A motor that relays turn round: their contacts bring each of its leads to one pole or the other.
namespace bold::bench {

/// Every such contact, lead by lead; empty where not both leads can be brought to both poles, by two inputs at least.
std::vector<PoleContact> poleContacts(const Bench& bench, const Nets& nets, const Motor& motor);

/// The levels at their inputs that make it do this. Whatever is no way round leaves the relays at rest.
std::map<TerminalIndex, parts::Level> reversingInputs(const Bench& bench, const Motor& motor, Action action);

/// The input that "forward" or "reverse" is for: the one that is not at rest then; -1: another role, or none.
TerminalIndex reversingInput(const Bench& bench, const Motor& motor, const std::string& role);

}  // namespace bold::bench
