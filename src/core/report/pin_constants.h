#pragma once

#include <optional>
#include <string>
#include <string_view>

#include "core/checks/analysis.h"
#include "core/places/numbering.h"

/// The pins that the wires lead to, as constants for a program.
namespace bold::report {

enum class Language { C, Cpp, Python };

/// One constant for each role of each motor and each line of each sensor that a pin is wired to, named after what people call it:
/// WAVE_PADDLE_SPEED, wavePaddleSpeed. A role that is stated otherwise than it is wired says so in a remark, one that no pin reaches stands
/// there as a remark. With several controllers, those of each stand together.
/// @param numbering what the program calls pins by; where a pin has no such name, the printed one is taken and that is said
std::string pinConstants(const harness::Harness& harness, const Analysis& analysis, Language language, places::Numbering numbering,
                         const std::string& file);

}  // namespace bold::report
