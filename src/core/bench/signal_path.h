#pragma once

#include <optional>

#include "core/bench/nets.h"

namespace bold::bench {

/// How a pin's level gets to an input.
enum class Path {
  None,      ///< not at all
  Copper,    ///< by copper and resistors
  Straight,  ///< through transistors or logic without memory, high as high
  Inverted,  ///< through the same, turned over
  Unclear    ///< through something that does both, or of which nothing is known
};

/// Followed by the elements: a transistor turns over from its control to what it pulls to its rail, follows to its other end, and passes
/// on between its ends where its control is tied (a one-transistor level shifter); a switch passes on what its condition makes of
/// an input; a part without any element, or one that no library knows, leaves it unclear.
Path pathBetween(const Bench& bench, const Nets& nets, TerminalIndex pin, TerminalIndex input);

}  // namespace bold::bench
