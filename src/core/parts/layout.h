#pragma once

#include <string>
#include <vector>

namespace bold::parts {

/// Where on a part, held as `Part::hold` says.
enum class Edge { Left, Right, Top, Bottom, Inner };

/// A row of terminals: along the left and right edge from the top, else from the left.
struct LayoutRow {
  std::string name;                    ///< a connector's, or its own
  std::vector<std::string> terminals;  ///< as they lie, ids; empty: those of the connector, by position
  Edge edge = Edge::Left;
  double gap = 0;           ///< pitches before it
  double start = 0;         ///< pitches that its first stands further in
  int columns = 1;          ///< 2: a double row, positions to and fro
  int groups = 0;           ///< a gap of one pitch after each so many; 0: none
  bool fromTheEnd = false;  ///< position 1 is at the bottom, or at the right
};

/// What shows which way round it lies.
struct LayoutMark {
  std::string kind;  ///< socket, notch, tab, flat, dot, band, stripe, shaft, print
  std::string name;  ///< of a socket: its connector; of a dot: what it marks
  Edge edge = Edge::Top;
};

/// How positions are counted as numbers of their own.
enum class Numbers {
  None,
  Around,  ///< as legs of a chip: down the left row, up the right
  Header,  ///< positions of one header
};

/// How the terminals lie on a part. What is in no row has no known place.
struct Layout {
  std::vector<LayoutRow> rows;
  std::vector<LayoutMark> marks;
  std::vector<std::string> hidden;  ///< connectors that no finger reaches
  Numbers numbers = Numbers::None;
  std::string source, variant;
  bool empty() const { return rows.empty(); }
};

}  // namespace bold::parts
