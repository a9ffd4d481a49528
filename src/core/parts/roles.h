#pragma once

#include "core/parts/part.h"

namespace bold::parts {

/// What a part is, told by its elements alone: for pictures, lists and the checks that speak of "a motor".
bool isMotor(const Part& part);  ///< has a winding, or a load that starts to move (servo)
bool isStill(const Part& part);  ///< of a motor: turns nothing, is only on or off
bool isSource(const Part& part);
bool isPeripheral(const Part& part);  ///< a program reads or steers it, and it drives no motor by itself: a button, an encoder, a register
bool isController(const Part& part);  ///< has pins that a program drives

/// By which a program reads or steers a peripheral: ends of its contacts, inputs, bus lines; terminal ids in their order.
std::vector<std::string> peripheralLines(const Part& part);

}  // namespace bold::parts
