#include "core/places/arrangement.h"

#include <algorithm>
#include <array>

namespace bold::places {

using parts::Edge;

namespace {

constexpr double kRim = 1;        // pitches between the outline's corner and the first terminal
constexpr double kNarrowest = 4;  // of a part with a left and a right row
constexpr double kRowNames = 3;   // room for the names of inner rows at their left
constexpr double kBoard = 6;      // of one with marks at its edges as well

// How far along its edge the n-th stands.
double along(const parts::LayoutRow& row, int index) {
  return row.start + index + (row.groups > 0 ? index / row.groups : 0);
}

int lengthOf(const parts::LayoutRow& row) {
  return (static_cast<int>(row.terminals.size()) + row.columns - 1) / row.columns;
}

// Pitches that all rows of an edge take, one behind the other.
double extent(const parts::Layout& layout, Edge edge) {
  double sum = 0;
  for (const auto& row : layout.rows)
    if (row.edge == edge) sum += row.gap + along(row, std::max(lengthOf(row) - 1, 0)) + 1;
  return sum;
}

// Inner rows lie under one another: lines and the gaps between.
double lines(const parts::Layout& layout) {
  double sum = 0;
  for (const auto& row : layout.rows)
    if (row.edge == Edge::Inner) sum += row.gap + 1;
  return sum;
}

double widestLine(const parts::Layout& layout) {
  double most = 0;
  for (const auto& row : layout.rows)
    if (row.edge == Edge::Inner) most = std::max(most, along(row, std::max(lengthOf(row) - 1, 0)) + 1);
  return most;
}

int columnsAt(const parts::Layout& layout, Edge edge) {
  int most = 0;
  for (const auto& row : layout.rows)
    if (row.edge == edge) most = std::max(most, row.columns);
  return most;
}

class Laying {
 public:
  explicit Laying(const parts::Part& part) : m_part(part), m_layout(part.layout) {
    const bool sides = columnsAt(m_layout, Edge::Left) > 0 || columnsAt(m_layout, Edge::Right) > 0;
    const bool board = sides && std::ranges::any_of(m_layout.marks, [](const parts::LayoutMark& m) { return m.kind == "socket"; });
    const double inner = std::max({extent(m_layout, Edge::Top), extent(m_layout, Edge::Bottom), widestLine(m_layout)});
    const double names = widestLine(m_layout) > 0 ? kRowNames : 0;
    m_out.width = std::max(inner + 2 * kRim - 1 + names + (sides && inner > 0 ? 2 : 0), board ? kBoard : sides ? kNarrowest : 2 * kRim);
    m_innerTop = columnsAt(m_layout, Edge::Top) + kRim;
    const double tall = std::max({extent(m_layout, Edge::Left), extent(m_layout, Edge::Right), lines(m_layout)});
    m_out.height = std::max(tall - 1, 0.0) + 2 * kRim + columnsAt(m_layout, Edge::Top) + columnsAt(m_layout, Edge::Bottom);
    m_out.height = std::max(m_out.height, 2.0);
  }

  Arrangement run() {
    std::array<double, 5> next{};
    for (std::size_t r = 0; r < m_layout.rows.size(); ++r) {
      const auto& row = m_layout.rows[r];
      auto& at = next[static_cast<std::size_t>(row.edge)];
      at += row.gap;
      lay(static_cast<int>(r), row, at);
      at += row.edge == Edge::Inner ? 1 : along(row, std::max(lengthOf(row) - 1, 0)) + 1;
    }
    return std::move(m_out);
  }

 private:
  const parts::Part& m_part;
  const parts::Layout& m_layout;
  Arrangement m_out;
  double m_innerTop = 0;

  void lay(int r, const parts::LayoutRow& row, double from) {
    const int length = lengthOf(row);
    for (std::size_t k = 0; k < row.terminals.size(); ++k) {
      const int column = static_cast<int>(k) % row.columns;
      int index = static_cast<int>(k) / row.columns;
      if (row.fromTheEnd) index = length - 1 - index;
      const int count = (static_cast<int>(row.terminals.size()) - column + row.columns - 1) / row.columns;
      Spot s{m_part.indexOf(row.terminals[k]), r, column, index, count, 0, 0};
      place(s, row, row.edge == Edge::Inner ? from : from + along(row, index));
      m_out.spots.push_back(s);
    }
  }

  // `at` pitches along its edge; of a double row the last column is at the outside.
  void place(Spot& s, const parts::LayoutRow& row, double at) const {
    const double inwards = row.columns - 1 - s.column;
    switch (row.edge) {
      case Edge::Left:
        s.x = s.column;
        s.y = m_innerTop + at;
        break;
      case Edge::Right:
        s.x = m_out.width - inwards;
        s.y = m_innerTop + at;
        break;
      case Edge::Top:
        s.x = middle(row.edge) + at;
        s.y = s.column;
        break;
      case Edge::Bottom:
        s.x = middle(row.edge) + at;
        s.y = m_out.height - inwards;
        break;
      case Edge::Inner:
        s.x = m_out.width - kRim - (widestLine(m_layout) - 1) + along(row, s.index);
        s.y = m_innerTop + at;
        break;
    }
  }

  double middle(Edge edge) const { return (m_out.width - (extent(m_layout, edge) - 1)) / 2; }
};

}  // namespace

bool upright(Edge e) {
  return e == Edge::Left || e == Edge::Right;
}

const Spot* Arrangement::at(int terminal) const {
  const auto it = std::ranges::find(spots, terminal, &Spot::terminal);
  return it == spots.end() ? nullptr : &*it;
}

std::optional<Arrangement> arrangementOf(const parts::Part& part) {
  if (part.layout.empty()) return std::nullopt;
  return Laying(part).run();
}

Edge seen(Edge edge, Lie lie) {
  if (edge == Edge::Inner) return edge;
  static constexpr std::array kClockwise{Edge::Top, Edge::Right, Edge::Bottom, Edge::Left};
  if (lie.fromBelow && upright(edge)) edge = edge == Edge::Left ? Edge::Right : Edge::Left;
  const auto at = std::ranges::find(kClockwise, edge) - kClockwise.begin();
  return kClockwise[static_cast<std::size_t>((at + lie.quarters) % 4)];
}

bool outOfReach(const parts::Part& part, const parts::Terminal& t) {
  const auto& layout = part.layout;
  return std::ranges::count(layout.hidden, t.place.connector) > 0 || std::ranges::any_of(layout.marks, [&](const parts::LayoutMark& m) {
           return m.kind == "socket" && m.name == t.place.connector && !t.place.connector.empty();
         });
}

std::vector<int> unplaced(const parts::Part& part) {
  std::vector<int> out;
  for (std::size_t t = 0; t < part.terminals.size(); ++t) {
    const bool placed = std::ranges::any_of(
        part.layout.rows, [&](const parts::LayoutRow& row) { return std::ranges::count(row.terminals, part.terminals[t].id) > 0; });
    if (!placed) out.push_back(static_cast<int>(t));
  }
  return out;
}

}  // namespace bold::places
