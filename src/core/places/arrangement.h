#pragma once

#include <optional>
#include <string>
#include <vector>

#include "core/parts/part.h"
#include "core/places/lie.h"

/// Where terminals lie on a part: for words, for drawings, and to tell a slip of the finger. Without Qt, without a bench.
namespace bold::places {

/// One terminal in its row.
struct Spot {
  int terminal;      ///< in Part::terminals
  int row;           ///< in Part::layout.rows
  int column;        ///< of a double row, else 0
  int index, count;  ///< in its row or column, from the top or the left
  double x, y;       ///< pitches from the top left corner of the outline
};

struct Arrangement {
  double width = 0, height = 0;  ///< pitches, of the outline
  std::vector<Spot> spots;
  const Spot* at(int terminal) const;
};

/// Nothing where the part's order is not known, not even as the usual one. The usual order, which nobody vouches for, is given too:
/// whether it is certain says Part::layoutKnown, or who looked at the print.
std::optional<Arrangement> arrangementOf(const parts::Part& part);

/// Whether rows of this edge are counted from the top, not from the left.
bool upright(parts::Edge edge);

/// The edge that this edge of the part is at, as it lies.
parts::Edge seen(parts::Edge edge, Lie lie);

/// Terminals that no drawing shows: whole connectors, contacts inside, and what lies in no known order. Indices in Part::terminals.
std::vector<int> unplaced(const parts::Part& part);
/// Whether a finger does not reach it one by one: a contact of a socket that is plugged as a whole, or one inside.
bool outOfReach(const parts::Part& part, const parts::Terminal& terminal);

}  // namespace bold::places
