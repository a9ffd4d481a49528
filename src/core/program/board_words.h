#pragma once

#include "core/parts/part.h"
#include "core/program/follow.h"
#include "core/program/public_calls.h"

namespace bold::program {

/// The terminal of a controller that a program's word for a pin means; its index, -1: none.
/// @param analog the word is taken by something that reads voltages: a small number counts those pins
int terminalOf(const parts::Part& part, const PinWord& pin, bool analog, const PublicCalls& calls);

}  // namespace bold::program
