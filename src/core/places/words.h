#pragma once

#include <string>

#include "core/places/arrangement.h"

namespace bold::places {

/// Where a finger finds a terminal, the part lying so: "left row, 6th from the top"; "3rd screw from the left"; "row c, hole 17".
/// Where its order is not known, what it is contacted by: "screw".
std::string placeWords(const parts::Part& part, const parts::Terminal& terminal, Lie lie = {});

/// The same with all that tells it from any other of the part: "left row, 6th from the top, position 11, chip GPIO17"; "screw, printed
/// OUT2". No two terminals of a part have the same.
std::string fullPlace(const parts::Part& part, const parts::Terminal& terminal, Lie lie = {});

/// "parts up, USB up"; as it lies: "parts up, USB at the right", "solder side up".
std::string holdWords(const parts::Part& part, Lie lie);

}  // namespace bold::places
