#pragma once

#include <string>

#include "core/base/quantity.h"

/// Which figures a part of a bench can have at all, by unit: far beyond anything that is sold, and still apart from a slip of the keyboard.
namespace bold {

/// Whether a figure can be this. Nothing (0) is one, but for a resistance.
bool plausible(AnyQuantity figure);
/// "it is 1 uV to 100 kV", for sentences.
std::string plausibleWords(Unit unit);

}  // namespace bold
