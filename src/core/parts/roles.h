#pragma once

#include "core/parts/part.h"

namespace bold::parts {

/// What a part is, told by its elements alone: for pictures, lists and the checks that speak of "a motor".
bool isMotor(const Part& part);  ///< has a winding, or a load that starts to move (servo)
bool isSource(const Part& part);
bool isSensor(const Part& part);      ///< has contacts that are moved while the bench runs: a button, a limit switch, an encoder
bool isController(const Part& part);  ///< has pins that a program drives

/// The ends of a sensor's contacts that a program may read, and the inputs by which it asks: terminal ids in their order.
std::vector<std::string> sensedEnds(const Part& part);

}  // namespace bold::parts
