#pragma once

#include <string>
#include <vector>

#include "core/harness/harness.h"

namespace bold::harness {

/// What sets one document apart from another, a line each in document order: "S2 (tb6612fng) is new",
/// "the wire s1.IN1 – uno.D9 is gone", "what M1 is meant to do is changed". Empty when they say the same.
std::vector<std::string> differences(const Harness& from, const Harness& to);

}  // namespace bold::harness
