#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/places/numbering.h"

/// What is taken for a terminal by a slip of the finger or of the mind.
namespace bold::places {

/// Indices in Part::terminals; -1: none.
struct Neighbours {
  int before = -1, after = -1;      ///< beside it in its row: towards the top or left, towards the bottom or right
  int across = -1;                  ///< straight across: of the other column, or the other row
  int fromTheOtherEnd = -1;         ///< in its own row, counted from the wrong end; of legs: the part seen from the back
  int upsideDown = -1;              ///< where it would be with the part turned by half
  std::vector<Meaning> sameNumber;  ///< terminals that its number means in another system
};

Neighbours neighboursOf(const parts::Part& part, int terminal);

/// How one terminal was taken for another: "one position off", "straight across", "counted from the wrong end", "legs read from the back",
/// "position 17 taken for a name", "the part upside down"; nothing where they have no more to do with each other than any two.
std::optional<std::string> slip(const parts::Part& part, int meant, int taken);

/// "left of it GND, right of it D9", by print, as the part is held; empty where its place is not known.
std::string besideIt(const parts::Part& part, int terminal);

}  // namespace bold::places
