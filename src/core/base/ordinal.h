#pragma once

#include <string>

namespace bold {

/// "1st", "2nd", "13th": places as people count them with a finger.
std::string ordinal(int n);

}  // namespace bold
