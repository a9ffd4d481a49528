#pragma once

#include <string>

#include "core/bench/operating_point.h"

namespace bold::bench {

/// What a motor does at a point, with the moment the command is about: "is held, pushed forward", "was just switched off".
std::string doingWords(const OperatingPoint& point, int motor);

}  // namespace bold::bench
