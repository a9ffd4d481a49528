#pragma once

#include "core/base/quantity.h"

namespace bold {

/// The largest value of the E12 row that is no larger. @param most more than 0
Ohms e12(Ohms most);

}  // namespace bold
