#pragma once

namespace bold::places {

/// How a part lies on somebody's table: turned clockwise by quarters from how `Part::hold` says, and seen from below.
struct Lie {
  int quarters = 0;        ///< 0 .. 3
  bool fromBelow = false;  ///< from the solder side: left and right change places, before it is turned
  bool operator==(const Lie&) const = default;
};

}  // namespace bold::places
