#pragma once

#include "core/parts/part.h"

namespace bold::parts {

/// What a part is, told by its elements alone: for pictures, lists and the checks that speak of "a motor".
bool isMotor(const Part& part);  ///< has a winding, or a load that starts to move (servo)
bool isSource(const Part& part);
bool isController(const Part& part);  ///< has pins that a program drives

}  // namespace bold::parts
